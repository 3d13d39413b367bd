/** Strands: new ones, their names, in the picture or not, and cues that go from one to another. */
import { within, type Range } from '../../../time/range.ts';
import { create, remove, update, type Change, type Edit } from '../../record/change.ts';
import { newStrand } from '../../defaults.ts';
import { TRAVELS } from '../../record/limits.ts';
import { cuesInOrder, strandsInOrder } from '../../order.ts';
import {
  isTravelling,
  type Cue,
  type Id,
  type Programme,
  type Strand,
  type StrandKind,
} from '../../programme.ts';
import { aOrMany, plural } from '../../../text/plural.ts';

/** The new strand of a kind; where its name is taken, a number is put after it. */
export function strandToAdd(programme: Programme, kind: StrandKind, id: Id): Strand {
  const strand = newStrand(kind, id, programme.facts.frame.height);
  const all = strandsInOrder(programme);
  const taken = new Set(all.map(({ title: name }) => name));
  let { title } = strand;
  for (let number = 2; taken.has(title); number++) title = `${strand.title} ${number}`;
  return { ...strand, title, place: (all.at(-1)?.place ?? 0) + 1 };
}

/** Adds an empty strand, whose id is to be `id`. */
export const addStrand = (programme: Programme, kind: StrandKind, id: Id): Edit => ({
  name: 'Add a strand',
  changes: [create('strand', strandToAdd(programme, kind, id))],
});

/**
 * The strand of a kind on which a stretch is free: that of a cue which is there already, another one, or a new one.
 *
 * @param cue  that is to be put there, and does not stand in its own way
 */
export function strandWithRoom(
  programme: Programme,
  kind: StrandKind,
  range: Range,
  newId: () => Id,
  cue?: Cue,
): { changes: Change[]; strand: Id } {
  const all = strandsInOrder(programme).filter((strand) => strand.kind === kind);
  const own = all.filter(({ id }) => id === cue?.strand);
  const free = [...own, ...all].find(
    ({ id, overlapAllowed }) =>
      overlapAllowed ||
      within(cuesInOrder(programme, id), range).every((each) => each.id === cue?.id),
  );
  if (free) return { changes: [], strand: free.id };
  const made = strandToAdd(programme, kind, newId());
  return { changes: [create('strand', made)], strand: made.id };
}

/** Gives a strand another name. A name of nothing but spaces changes nothing. */
export function renameStrand(programme: Programme, id: Id, title: string): Edit {
  const strand = programme.strands[id];
  const named = title.trim();
  return {
    name: 'Rename a strand',
    changes: strand && named !== '' ? update('strand', strand, { title: named }) : [],
  };
}

/** Leaves a strand out of the picture, or takes it in again. */
export function muteStrand(programme: Programme, id: Id, muted: boolean): Edit {
  const strand = programme.strands[id];
  return {
    name: muted ? 'Hide a strand' : 'Show a strand',
    changes: strand && (strand.muted ?? false) !== muted ? update('strand', strand, { muted }) : [],
  };
}

/**
 * Lets cues of a strand overlap, as two speakers at once need, or no longer. While some do, it stays as it is, and the
 * note says how many.
 */
export function allowOverlap(programme: Programme, id: Id, allowed: boolean): Edit {
  const name = allowed ? 'Allow overlaps' : 'Forbid overlaps';
  const strand = programme.strands[id];
  if (!strand || strand.overlapAllowed === allowed) return { name, changes: [] };
  if (isTravelling(strand.kind)) return { name, changes: [], note: TRAVELS };
  const over = allowed ? 0 : countOverlaps(cuesInOrder(programme, id));
  if (over > 0) {
    const note = `${plural(over, 'cue overlaps', 'cues overlap')} another on “${strand.title}”. Separate them first.`;
    return { name, changes: [], note };
  }
  return { name, changes: update('strand', strand, { overlapAllowed: allowed }) };
}

/** How many cues begin while one before them lasts. */
function countOverlaps(row: readonly Cue[]): number {
  let [count, until] = [0, -Infinity];
  for (const { start, end } of row) {
    if (start < until) count++;
    until = Math.max(until, end);
  }
  return count;
}

/** Takes a strand one place further to the front, or to the back; at either end it stays. */
export function moveStrand(programme: Programme, id: Id, by: 1 | -1): Edit {
  const name = by > 0 ? 'Move a strand forward' : 'Move a strand back';
  const all = [...strandsInOrder(programme)];
  const from = all.findIndex((strand) => strand.id === id);
  const [strand, other] = [all[from], all[from + by]];
  if (!strand || !other) return { name, changes: [] };
  all[from] = other;
  all[from + by] = strand;
  return { name, changes: all.flatMap((each, place) => update('strand', each, { place })) };
}

/** Takes a strand away with all its cues. The last one stays. */
export function removeStrand(programme: Programme, id: Id): Edit {
  const name = 'Delete a strand';
  const strand = programme.strands[id];
  if (!strand) return { name, changes: [] };
  const written = strandsInOrder(programme).filter(({ kind }) => !isTravelling(kind));
  if (written.length === 1 && written[0]?.id === id)
    return { name, changes: [], note: 'A programme needs at least one strand.' };
  const cues = cuesInOrder(programme, id).map((cue) => remove('cue', cue));
  return { name, changes: [...cues, remove('strand', strand)] };
}

/**
 * Takes cues to another strand at the times that they have, or puts copies there.
 *
 * A cue in whose place there is one already stays where it is, and the note says how many do.
 *
 * @param copyId  names each copy; the cues themselves go where there is none
 */
export function cuesToStrand(
  programme: Programme,
  ids: readonly Id[],
  strand: Id,
  copyId?: () => Id,
): Edit {
  const to = programme.strands[strand];
  const cues = ids
    .map((id) => programme.cues[id])
    .filter((cue): cue is Cue => cue !== undefined && cue.strand !== strand)
    .sort((a, b) => a.start - b.start);
  const many = aOrMany(cues.length, 'cue');
  const name = `${copyId ? 'Copy' : 'Move'} ${many} to another strand`;
  if (!to) return { name, changes: [] };
  const there = cuesInOrder(programme, strand);
  const changes: Change[] = [];
  let [free, stayed] = [-Infinity, 0];
  for (const cue of cues) {
    const taken = cue.start < free || within(there, cue).length > 0;
    const other = isTravelling(to.kind)
      ? to.kind !== programme.strands[cue.strand]?.kind
      : cue.passage;
    if (other) return { name, changes: [], note: TRAVELS };
    if (taken && !to.overlapAllowed) {
      stayed++;
      continue;
    }
    free = cue.end;
    changes.push(
      ...(copyId
        ? [create('cue', { ...cue, id: copyId(), strand })]
        : update('cue', cue, { strand })),
    );
  }
  const verb = stayed === 1 ? 'stays' : 'stay';
  const note = `${stayed} ${verb}: on “${to.title}” another cue is in the way.`;
  return { name, changes, ...(stayed > 0 && { note }) };
}
