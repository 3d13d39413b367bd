/** Notes that are held in words, marked by hand. */
import { update, type Edit } from '../../record/change.ts';
import type { Hold, Id, Programme } from '../../programme.ts';
import { wordChanged } from './syllables.ts';
import { timesOf } from '../../woven/reworded.ts';
import { wordsIn } from '../../woven/wordsIn.ts';

/** Where a note is held that an editor marks, until it is moved: from a little after the word begins to its end. */
const MARKED: Hold = { from: 0.2, to: 1 };

/** Marks a word of a cue as held, or as not held where it is. */
export function toggleHeld(programme: Programme, id: Id, place: number): Edit {
  const cue = programme.cues[id];
  const word = cue && timesOf(cue.words, wordsIn(cue))[place];
  const isHeld = (word?.held ?? []).length > 0;
  const name = isHeld ? 'Mark a word as not held' : 'Mark a word as held';
  if (!cue || !word) return { name, changes: [] };
  const words = wordChanged(cue, place, ({ held: _gone, ...rest }) =>
    isHeld ? rest : { ...rest, held: [MARKED] },
  );
  return { name, changes: update('cue', cue, { words }) };
}
