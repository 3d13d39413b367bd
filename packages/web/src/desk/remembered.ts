/** What this browser remembers over a reload. Nothing is lost but convenience where it cannot. */

/** What was remembered under a key; undefined where nothing was, or where it cannot be read. */
export function remembered<T>(key: string): T | undefined {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? 'null') as T | undefined) ?? undefined;
  } catch {
    return undefined;
  }
}

/** Remembers a value, in place of the last one. A value that the browser has no room for is forgotten. */
export function remember(key: string, value: unknown): void {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch {
    localStorage.removeItem(key);
  }
}
