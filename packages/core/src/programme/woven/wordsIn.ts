/** The words of a cue. */
import { plainText } from '../../text/lines.ts';
import { wordsOf } from '../../text/words.ts';
import type { Cue } from '../programme.ts';

/** The words of a cue, as they are written. */
export const wordsIn = (cue: Cue): string[] => wordsOf(plainText(cue.text)).map(({ text }) => text);
