/** Edits of what cues say and how they look, and taking cues away. */
import { retype } from '../../../text/lines.ts';
import { remove, update, type Edit } from '../../record/change.ts';
import type { Cue, Id, Programme, TextStyle } from '../../programme.ts';
import { aOrMany } from '../../../text/plural.ts';
import { reworded } from '../../woven/reworded.ts';

const pick = (programme: Programme, ids: readonly Id[]): Cue[] =>
  ids.map((id) => programme.cues[id]).filter((cue) => cue !== undefined);

/** Gives a cue new text; what stayed of the old keeps its italics and colours. */
export function setText(programme: Programme, id: Id, text: string): Edit {
  const cue = programme.cues[id];
  const becomes = cue && retype(cue.text, text.replace(/\r\n?/g, '\n'));
  return { name: 'Edit text', changes: becomes ? update('cue', cue, reworded(cue, becomes)) : [] };
}

/** Sets parts of the style of cues; a part set to undefined goes back to the strand's. */
export function setStyle(
  programme: Programme,
  ids: readonly Id[],
  part: { readonly [K in keyof TextStyle]?: TextStyle[K] | undefined },
): Edit {
  const cues = pick(programme, ids);
  const restyle = (cue: Cue): Partial<TextStyle> =>
    Object.fromEntries(
      Object.entries({ ...cue.style, ...part }).filter(([, value]) => value !== undefined),
    );
  return {
    name: `Style ${aOrMany(cues.length, 'cue')}`,
    changes: cues.flatMap((cue) => update('cue', cue, { style: restyle(cue) })),
  };
}

/**
 * Sets parts of a strand's style, for every cue on it that does not differ. What its pattern sets is set in the pattern,
 * for all that have it.
 */
export function setStrandStyle(programme: Programme, id: Id, part: Partial<TextStyle>): Edit {
  const name = 'Style a strand';
  const strand = programme.strands[id];
  if (!strand) return { name, changes: [] };
  const pattern = programme.patterns[strand.pattern ?? ''];
  const fields = Object.entries(part);
  const isPatterns = ([field]: [string, unknown]) =>
    pattern !== undefined && Object.hasOwn(pattern.look, field);
  const [patterns, own] = [fields.filter(isPatterns), fields.filter((each) => !isPatterns(each))];
  const style = { ...strand.style, ...(Object.fromEntries(own) as Partial<TextStyle>) };
  const changes = update('strand', strand, { style });
  if (pattern && patterns.length > 0) {
    const look = { ...pattern.look, ...(Object.fromEntries(patterns) as Partial<TextStyle>) };
    changes.push(...update('pattern', pattern, { look }));
  }
  return { name, changes };
}

export function deleteCues(programme: Programme, ids: readonly Id[]): Edit {
  const cues = pick(programme, ids);
  return {
    name: `Delete ${aOrMany(cues.length, 'cue')}`,
    changes: cues.map((cue) => remove('cue', cue)),
  };
}
