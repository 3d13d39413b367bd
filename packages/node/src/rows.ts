/** Things to do in as many rows as there are hands, each of neighbours, so that no hand does the same twice. */
export class Rows<T> {
  readonly #rows: T[][];

  constructor(things: readonly T[], count: number) {
    const long = Math.max(1, Math.ceil(things.length / count));
    this.#rows = Array.from({ length: count }, (_, at) => things.slice(at * long, (at + 1) * long));
  }

  /** The next of a row; the last of the longest other one where it is done. */
  next(row: number): T | undefined {
    const own = this.#rows[row]?.shift();
    if (own !== undefined) return own;
    const [longest] = this.#rows.toSorted((a, b) => b.length - a.length);
    return longest?.pop();
  }

  /** Puts back what was not done. */
  back(row: number, thing: T): void {
    this.#rows[row]?.unshift(thing);
  }
}
