/** Cues that act as one group: each comes by its own time, all stand together, and all go as one. */
import { aOrMany } from '../../../text/plural.ts';
import { later } from '../../../time/ticks.ts';
import { compareCues } from '../../order.ts';
import type { Cue, Id, Programme, Standing } from '../../programme.ts';
import { update, type Edit } from '../../record/change.ts';
import { allowOverlap } from '../programme/strands.ts';

/** How each way of standing together is called. */
export const STANDING_NAMES: Readonly<Record<Standing, string>> = {
  below: 'Below each other',
  along: 'Side by side',
  paragraph: 'As a paragraph',
  pushed: 'The new one pushes up',
};

/**
 * Makes a group of cues of one strand, which may overlap from then on: all last until the last of them ends. A group that
 * is made anew of the same cues stands as it is now asked to.
 */
export function groupCues(
  programme: Programme,
  ids: readonly Id[],
  standing: Standing,
  newId: () => Id,
): Edit {
  const cues = ids.flatMap((id) => programme.cues[id] ?? []).sort(compareCues);
  const name = `Group ${aOrMany(cues.length, 'cue')}`;
  const [first] = cues;
  const nothing = (note: string): Edit => ({ name, changes: [], note });
  if (!first || cues.length < 2) return nothing('A group has two cues or more. Select them first.');
  if (cues.some(({ strand }) => strand !== first.strand))
    return nothing('The cues of a group are on one strand.');
  if (cues.some(({ passage }) => passage)) return nothing('Rolls and crawls are in no group.');
  const isOneGroup = cues.every(({ group }) => group && group.id === first.group?.id);
  const id = (isOneGroup ? first.group?.id : undefined) ?? newId();
  const end = cues.map((cue) => cue.end).reduce(later);
  const free = allowOverlap(programme, first.strand, true).changes;
  return {
    name,
    changes: [
      ...free,
      ...cues.flatMap((cue) => update('cue', cue, { group: { id, standing }, end })),
    ],
    ...(free.length > 0 && {
      note: `Cues on “${programme.strands[first.strand]?.title ?? ''}” may overlap now.`,
    }),
  };
}

/** Takes cues out of their groups; they keep their times. One that would be alone in a group is taken out too. */
export function ungroupCues(programme: Programme, ids: readonly Id[]): Edit {
  const out = new Set(ids);
  const touched = new Set(ids.flatMap((id) => programme.cues[id]?.group?.id ?? []));
  const members = Object.values(programme.cues).filter(
    ({ group }) => group && touched.has(group.id),
  );
  const left = (cue: Cue) =>
    members.filter(({ id, group }) => group?.id === cue.group?.id && !out.has(id)).length;
  const leaving = members.filter((cue) => out.has(cue.id) || left(cue) < 2);
  return {
    name: `Take ${aOrMany(leaving.length, 'cue')} out of the group`,
    changes: leaving.flatMap((cue) => update('cue', cue, { group: null })),
  };
}

/** The cues of the groups that some cues are in, beside these. */
export function wholeGroups(programme: Programme, ids: readonly Id[]): readonly Id[] {
  const groups = new Set(ids.flatMap((id) => programme.cues[id]?.group?.id ?? []));
  if (groups.size === 0) return ids;
  const others = Object.values(programme.cues).filter(({ group }) => group && groups.has(group.id));
  return [...new Set([...ids, ...others.map(({ id }) => id)])];
}
