/** Making one cue of several that follow each other. */
import { countCharacters } from '../../../text/graphemes.ts';
import { isBlank, linesOf, plainLine, tidyLine, type Line } from '../../../text/lines.ts';
import { remove, update, type Edit } from '../../record/change.ts';
import { TRAVELS } from '../../record/limits.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import { joinedComments } from '../text/emphasise.ts';

/** Two texts as one: on one line where that fits the profile, else each on its own lines. */
function joinText(a: readonly Line[], b: readonly Line[], longestLine: number): readonly Line[] {
  if (isBlank(a)) return b;
  if (isBlank(b)) return a;
  const [first, second] = [a[0], b[0]];
  if (a.length === 1 && b.length === 1 && first && second) {
    const length = countCharacters(plainLine(first)) + 1 + countCharacters(plainLine(second));
    const space = { ...first.at(-1), text: ' ' };
    if (length <= longestLine) return [tidyLine([...first, space, ...second])];
  }
  return [...a, ...b];
}

/**
 * Joins the cues `ids` into the first of them, from its start to the end of the last.
 *
 * They must be neighbours on one strand: where another cue lies between, nothing is changed and the
 * note says so.
 */
export function joinCues(programme: Programme, ids: readonly Id[]): Edit {
  const name = 'Join cues';
  const strand = programme.cues[ids[0] ?? '']?.strand;
  if (strand === undefined) return { name, changes: [] };
  const row = cuesInOrder(programme, strand);
  const chosen = new Set(ids);
  const from = row.findIndex((cue) => chosen.has(cue.id));
  const cues = row.slice(from, from + chosen.size);
  const [first, last] = [cues[0], cues.at(-1)];
  if (!first || !last || cues.length < 2)
    return { name, changes: [], note: 'There is no cue after this one to join.' };
  if (cues.some((cue) => !chosen.has(cue.id)))
    return { name, changes: [], note: 'Only cues that follow each other can be joined.' };
  if (cues.some(({ passage }) => passage)) return { name, changes: [], note: TRAVELS };
  const { longestLine } = programme.facts.profile;
  const text = cues
    .map((cue: Cue) => cue.text)
    .reduce((all, next) => joinText(all, next, longestLine), linesOf('') as readonly Line[]);
  const whole = {
    end: last.end,
    text,
    words: cues.flatMap((cue) => cue.words),
    ...joinedComments(cues),
  };
  return {
    name,
    changes: [...cues.slice(1).map((cue) => remove('cue', cue)), ...update('cue', first, whole)],
  };
}
