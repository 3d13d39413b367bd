/** Chance with a seed: the same seed gives the same numbers on every machine. */

/** Numbers from 0 up to, but not at, 1, one after another (Mulberry32, Ettinger 2017). */
export function chance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** The numbers from 0 up to `count` in an order of chance (Fisher and Yates). */
export function shuffled(count: number, seed: number): number[] {
  const next = chance(seed);
  const order = Array.from({ length: count }, (_, at) => at);
  for (let at = count - 1; at > 0; at--) {
    const other = Math.floor(next() * (at + 1));
    [order[at], order[other]] = [order[other] as number, order[at] as number];
  }
  return order;
}
