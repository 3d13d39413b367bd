/** What was made of the things that were asked for last: enough for what is on screen, and little to hold. */
export class Recent<Key, Made> {
  readonly #most: number;
  readonly #kept = new Map<Key, Made>();

  /** @param most  how many are kept */
  constructor(most: number) {
    this.#most = most;
  }

  /** What was made of a key last; undefined where it is not kept any more. */
  get(key: Key): Made | undefined {
    return this.#kept.get(key);
  }

  keep(key: Key, made: Made): void {
    this.#kept.delete(key);
    this.#kept.set(key, made);
    if (this.#kept.size <= this.#most) return;
    const [oldest] = this.#kept.keys();
    this.#kept.delete(oldest as Key);
  }
}
