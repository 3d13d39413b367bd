/** What a language is to weaving: how what is written is read out, and how what is read out sounds. */

export interface Language {
  /** Whether the acoustic model was trained on it; of others the confidence is less. */
  readonly own: boolean;
  /** Every likely way to read a token out, the likeliest first, each in words. Empty where there is nothing to say. */
  readonly readings: (token: string) => readonly (readonly string[])[];
  /** Every likely way to say a word, in names of phones of the model. */
  readonly sounds: (word: string) => readonly (readonly string[])[];
}

/** No token is read in more ways than this. */
export const MOST_READINGS = 8;

/** All sequences of one of each, the first of each first; no more than a few. */
export function inTurn<T>(parts: readonly (readonly (readonly T[])[])[]): T[][] {
  let all: T[][] = [[]];
  for (const part of parts)
    all = part.flatMap((end) => all.map((begun) => [...begun, ...end])).slice(0, MOST_READINGS);
  return all;
}

/** Readings without those that say the same. */
export function distinct(readings: readonly (readonly string[])[]): string[][] {
  const seen = new Set<string>();
  return readings
    .filter((reading) => reading.length > 0)
    .filter((reading) => {
      const name = reading.join(' ');
      return !seen.has(name) && Boolean(seen.add(name));
    })
    .map((reading) => [...reading]);
}
