/** How far something is that takes its time, told on standard error. */

/** Told no more often than this, and never before, in milliseconds. */
const EVERY = 1000;

/** Tells shares of a whole, from 0 to 1. */
export class Share {
  #told = Date.now();

  tell(doing: string, share: number): void {
    if (Date.now() - this.#told < EVERY) return;
    this.#told = Date.now();
    process.stderr.write(`${doing}: ${Math.floor(100 * share)} %\n`);
  }
}

export class Progress {
  readonly #whole: number;
  #done = 0;
  readonly #share = new Share();

  /** @param whole  how much there is to do, in any unit */
  constructor(whole: number) {
    this.#whole = whole;
  }

  /** Passes pieces on as they come, and tells what part of the whole is done. */
  async *of<T>(
    doing: string,
    pieces: AsyncIterable<T>,
    sizeOf: (piece: T) => number,
  ): AsyncGenerator<T> {
    for await (const piece of pieces) {
      yield piece;
      this.#done += sizeOf(piece);
      this.#share.tell(doing, this.#done / this.#whole);
    }
  }
}
