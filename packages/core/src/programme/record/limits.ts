/** What no edit goes below or beyond. */
import { frameLength } from '../../time/frameRate.ts';
import type { Ticks } from '../../time/ticks.ts';
import { plainText } from '../../text/lines.ts';
import type { Edit } from './change.ts';
import type { Programme } from '../programme.ts';

/** The shortest cue there can be: one frame. */
export const shortestCue = ({ facts }: Pick<Programme, 'facts'>): Ticks =>
  frameLength(facts.frameRate);

/** What is said where an edit is for cues with text of their own. */
export const TRAVELS = 'Rolls and crawls are written and timed in Travel.';

/** Changes of one step, lines of a cue, and UTF-16 units of a span and of a sheet, at most. */
export const MOST_CHANGES = 400_000;
export const MOST_LINES = 200;
export const LONGEST_SPAN = 20_000;
export const LONGEST_SHEET = 1_000_000;

/** Why an edit is too large to be kept, as a sentence; undefined where it is not. */
export function tooLarge({ changes }: Edit): string | undefined {
  if (changes.length > MOST_CHANGES)
    return `These are ${changes.length.toLocaleString('en-GB')} changes; at most ${MOST_CHANGES.toLocaleString('en-GB')} are kept at once. Bring the file in in parts.`;
  for (const { entity, becomes } of changes) {
    const sheet = entity === 'passage' ? (becomes?.sheet?.length ?? 0) : 0;
    if (sheet > LONGEST_SHEET)
      return `This sheet has ${sheet.toLocaleString('en-GB')} characters; at most ${LONGEST_SHEET.toLocaleString('en-GB')} are kept.`;
    if (entity !== 'cue' || !becomes?.text) continue;
    const { text } = becomes;
    const longest = text.flat().find((span) => span.text.length > LONGEST_SPAN);
    if (text.length <= MOST_LINES && !longest) continue;
    const what = longest ? `${longest.text.length} characters in a row` : `${text.length} lines`;
    const begins = plainText(text).trim().slice(0, 40);
    return `One text has ${what}, which is too much for a cue: “${begins} …”. Break it into lines or cues first.`;
  }
  return undefined;
}
