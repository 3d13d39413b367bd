/** Cues for lines that are heard again where nothing is written. */
import type { Repeat } from '../../../weave/woven.ts';
import { apply } from '../../record/apply.ts';
import { create, type Change } from '../../record/change.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import { wordTimes } from '../../woven/cutWoven.ts';
import { addCue } from '../cues/addCue.ts';
import { type Weaving } from './weaveCues.ts';
import { wordsIn } from '../../woven/wordsIn.ts';

/** The cue that each word of a weaving stands in. */
const cueOfWord = (programme: Programme, { cues }: Weaving): Cue[] =>
  cues.flatMap((id) => {
    const cue = programme.cues[id];
    return cue ? wordsIn(cue).map(() => cue) : [];
  });

/**
 * Each line once more, with its words timed, looking and moving as the cue that it was written in. A line that finds
 * another cue in its way is left out.
 *
 * @param repeats  in the programme's time
 */
export function cuesAgain(
  programme: Programme,
  weaving: Weaving,
  repeats: readonly Repeat[],
  newId: () => Id,
): Change[] {
  const cueOf = cueOfWord(programme, weaving);
  const changes: Change[] = [];
  let now = programme;
  for (const { from, to, woven } of repeats) {
    const own = weaving.words.slice(from, to);
    const words = wordTimes(own, woven);
    const [first, last] = [words[0], words.at(-1)];
    const like = cueOf[from];
    if (!first || !last || !like) continue;
    const range = { start: first.start, end: last.end };
    for (const change of addCue(now, like.strand, range, own.join(' '), newId).changes) {
      if (change.entity !== 'cue' || !change.becomes) continue;
      const { style, pattern = null, movement = null } = like;
      const made = { ...(change.becomes as Cue), words, style, pattern, movement };
      const created = create('cue', made);
      changes.push(created);
      now = apply(now, [created]);
    }
  }
  return changes;
}
