/** Waiting for an idle page. */

/** Resolves when the page is idle, at the latest after `longest` milliseconds. */
export const whenIdle = (longest = 1500): Promise<void> =>
  new Promise((done) => requestIdleCallback(() => done(), { timeout: longest }));
