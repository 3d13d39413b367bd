/** Parts of the interface that are loaded when they are first needed, also past a time without server. */
import { lazy, type ComponentType } from 'react';

const WAIT = 1000;
/** When the page was last loaded anew for a part that would not come, in milliseconds since 1970. */
const RELOADED = 'cadence-reloaded';

const reachable = (): Promise<boolean> =>
  fetch('/', { method: 'HEAD', cache: 'no-store' }).then(
    (response) => response.ok,
    () => false,
  );

/**
 * Loads a part; where the server is away, once it is back.
 *
 * Browsers remember that a script could not be fetched and do not ask for it again, so the page is then
 * loaded anew. Nothing is lost by that: steps that wait are kept in the browser, and the address leads
 * back to the place, the cue and the time.
 *
 * @throws what `load` throws, where loading the page anew has not helped
 */
export async function loadWithRetry<T>(load: () => Promise<T>): Promise<T> {
  try {
    return await load();
  } catch (error) {
    while (!(await reachable())) await new Promise((done) => setTimeout(done, WAIT));
    const last = Number(sessionStorage.getItem(RELOADED) ?? 0);
    if (Date.now() - last < 20_000) throw error;
    sessionStorage.setItem(RELOADED, String(Date.now()));
    window.location.reload();
    return new Promise<T>(() => undefined);
  }
}

/** A component that is loaded with retries. */
export const lazyPart = <P>(load: () => Promise<{ default: ComponentType<P> }>) =>
  lazy(() => loadWithRetry(load));
