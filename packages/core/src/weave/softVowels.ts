/**
 * Words that begin with a vowel right after a held one, as in “play it”. Where one vowel turns into the other the model hears
 * little, and leaves the second what it must. Nobody sings a vowel so short: it begins where the sound changes most.
 */
import type { Placed, Places } from './placed.ts';
import { SONG_BANDS } from './songBands.ts';
import { VOWELS } from './vowels.ts';

/** A vowel of so many frames is as short as the model can have it, or hardly longer. */
const SHORTEST = 5;
/** A vowel lasts so many frames at least, before and after where one begins. */
const LEAST = 9;
/** The vowel before was held for so many frames at least. */
const HELD = 20;
/** How many frames before it was put a vowel may begin. */
const BEFORE = 20;
/** Of the bands, those up to about 3 kHz, in which the vowels are. */
const BANDS = 30;
/** Frames on either side of which the levels are told apart. */
const BESIDE = 5;
/** Frames between two words that follow each other. */
const TOUCHING = 2;

/** How much the levels change at a frame. */
function changeAt(levels: Uint8Array, frame: number): number {
  const frames = levels.length / SONG_BANDS;
  const mean = (band: number, from: number, to: number): number => {
    const [first, last] = [Math.max(0, from), Math.min(frames, to)];
    let sum = 0;
    for (let at = first; at < last; at++) sum += levels[at * SONG_BANDS + band] as number;
    return sum / Math.max(1, last - first);
  };
  let sum = 0;
  for (let band = 0; band < BANDS; band++)
    sum += (mean(band, frame, frame + BESIDE) - mean(band, frame - BESIDE, frame)) ** 2;
  return sum;
}

/** The frame from one up to another at which the levels change most, more than at those beside it. */
function greatestChange(levels: Uint8Array, from: number, to: number): number | undefined {
  const changes = Array.from({ length: Math.max(0, to - from + 1) }, (_, at) =>
    changeAt(levels, from + at),
  );
  let best: number | undefined;
  changes.forEach((change, at) => {
    const [before, after] = [changes[at - 1], changes[at + 1]];
    if (before === undefined || after === undefined || change <= before || change < after) return;
    if (best === undefined || change > (changes[best] as number)) best = at;
  });
  return best === undefined ? undefined : from + best;
}

/** Two words that follow each other, with the edge between them at a frame. */
function withEdge([before, own]: readonly [Placed, Placed], edge: number): [Placed, Placed] {
  const [last, [first, ...others]] = [before.phones.at(-1), own.phones];
  if (!last || !first) return [before, own];
  return [
    { ...before, to: edge, phones: [...before.phones.slice(0, -1), { ...last, to: edge }] },
    { ...own, from: edge, phones: [{ ...first, from: edge }, ...others] },
  ];
}

/**
 * Places with words that begin softly where they begin.
 *
 * @param levels  of the song, as `SongLevels` has those of the middle
 * @param names   of the phones of the model
 */
export function softlyBegun(
  places: readonly (Placed | undefined)[],
  levels: Uint8Array,
  names: readonly string[],
): Places {
  const found = [...places];
  for (let at = 1; at < found.length; at++) {
    const [before, own] = [found[at - 1], found[at]];
    if (!before || !own || own.from - before.to > TOUCHING) continue;
    const [last, first] = [before.phones.at(-1), own.phones[0]];
    if (!last || !first) continue;
    const isVowel = (phone: number): boolean => VOWELS.has(names[phone] ?? '');
    if (!isVowel(last.phone) || !isVowel(first.phone)) continue;
    if (first.to - own.from > SHORTEST || last.to - last.from < HELD) continue;
    const edge = greatestChange(
      levels,
      Math.max(last.from + LEAST, own.from - BEFORE),
      first.to - LEAST,
    );
    if (edge !== undefined) [found[at - 1], found[at]] = withEdge([before, own], edge);
  }
  return found;
}
