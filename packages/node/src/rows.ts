/** Things to do in as many rows as there are hands, each of neighbours, so that no hand does the same twice. */
export class Rows<T> {
  readonly #rows: T[][];

  constructor(things: readonly T[], count: number) {
    const long = Math.max(1, Math.ceil(things.length / count));
    this.#rows = Array.from({ length: count }, (_, at) => things.slice(at * long, (at + 1) * long));
  }

  /** The next of a row; where it is done, it takes over the later half of the longest other one. */
  next(row: number): T | undefined {
    const own = this.#rows[row]?.shift();
    if (own !== undefined) return own;
    const [longest = []] = this.#rows.toSorted((a, b) => b.length - a.length);
    const taken = longest.splice(Math.floor(longest.length / 2));
    const first = taken.shift();
    this.#rows[row] = taken;
    return first;
  }

  /** Puts back what was not done. */
  back(row: number, thing: T): void {
    this.#rows[row]?.unshift(thing);
  }
}
