/**
 * What was made of the things that were asked for last: enough for what is on screen, and little to hold.
 *
 * Nothing is taken out of a map by itself: a JavaScript engine keeps what a map held before it was rearranged until its
 * next whole collection of garbage, which made each small one long.
 */
export class Recent<Key, Made> {
  readonly #most: number;
  #fresh = new Map<Key, Made>();
  #stale = new Map<Key, Made>();

  /** @param most  how many are kept at least; twice as many at most */
  constructor(most: number) {
    this.#most = most;
  }

  /** What was made of a key last; undefined where it is not kept any more. */
  get(key: Key): Made | undefined {
    return this.#fresh.get(key) ?? this.#stale.get(key);
  }

  keep(key: Key, made: Made): void {
    if (this.#fresh.size >= this.#most && !this.#fresh.has(key)) {
      this.#stale = this.#fresh;
      this.#fresh = new Map();
    }
    this.#fresh.set(key, made);
  }
}
