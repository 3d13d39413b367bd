/** Notes that are held within a word: the vowels that last. */
import type { Range } from '../time/range.ts';
import { fromSeconds, subtract } from '../time/ticks.ts';
import { VOWELS } from './vowels.ts';
import type { Woven } from './woven.ts';

/** A vowel that lasts as long is held; spoken ones hardly ever do. */
const LEAST = fromSeconds(0.3);

/** The vowels of a word that are held, from where each begins to where it ends, in turn. */
export const heldNotes = ({ sounds = [] }: Woven): Range[] =>
  sounds
    .filter(({ name, start, end }) => VOWELS.has(name) && subtract(end, start) >= LEAST)
    .map(({ start, end }) => ({ start, end }));
