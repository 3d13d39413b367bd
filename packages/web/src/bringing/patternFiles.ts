/** Patterns that come from another programme, as a file or from the clipboard. */
import { bringPatterns } from '@cadence/core/programme/edits/patterns/patterns.ts';
import { patternsOfFile } from '@cadence/core/programme/patternFile.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { aOrMany } from '@cadence/core/text/plural.ts';
import { make, newId } from '../desk/desk.ts';
import { messageOf, say } from '../desk/say.ts';
import { openNow } from '../desk/store.ts';

/**
 * Brings patterns into the open programme, fitted to its frame and rate.
 *
 * @param from  what they are in, as the start of a sentence
 * @returns the ids that they have here; none where it could not be read
 */
export function bringInPatterns(text: string, from: string): readonly Id[] {
  const { programme } = openNow();
  try {
    const edit = bringPatterns(programme, patternsOfFile(text, programme.facts), newId);
    make(edit);
    if (edit.changes.length > 0)
      say.note(`${aOrMany(edit.changes.length, 'pattern')} brought in: see Patterns.`);
    return edit.brought;
  } catch (error) {
    const why = error instanceof SyntaxError ? 'It is not JSON.' : messageOf(error);
    say.problem(`${from} is no file of patterns. ${why} Nothing was added.`);
    return [];
  }
}
