/** Waiting until the page has nothing to do. */

/** Comes when the page has come to rest, and after `longest` milliseconds if it does not. */
export const whenIdle = (longest = 1500): Promise<void> =>
  new Promise((done) => requestIdleCallback(() => done(), { timeout: longest }));
