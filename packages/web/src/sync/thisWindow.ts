/** This window among those of the application: its name, and how others tell that it is gone. */

/** Names this window to the server and to other windows. */
export const clientId = crypto.randomUUID();

/** What is known of windows. */
export interface Windows {
  /** Resolves once a window is gone. @throws AbortError when `signal` ends the wait */
  gone(client: string, signal: AbortSignal): Promise<void>;
  /** Whether a window is gone now. */
  isGone(client: string): Promise<boolean>;
}

/** Held while the window lives. The browser releases it however the window ends. */
const lockOf = (client: string): string => `window ${client}`;

/** Takes the lock of this window; called once, when the page begins. */
export function holdWindow(): void {
  void navigator.locks.request(lockOf(clientId), () => new Promise(() => undefined));
}

/** The windows of this browser, told by the Web Locks that they hold. */
export const windows: Windows = {
  gone: (client, signal) => navigator.locks.request(lockOf(client), { signal }, async () => {}),
  isGone: (client) =>
    navigator.locks.request(lockOf(client), { ifAvailable: true }, async (lock) => lock !== null),
};
