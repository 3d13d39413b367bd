/**
 * Ties: an edge of a cue that keeps to one of its words, or to a mark, at a distance of so many frames.
 *
 * Whatever moves a word or a mark takes the tied edges along; whoever moves a tied edge by hand changes its distance.
 */
import { frames, frameAfter, frameBefore, nearestFrame } from '../time/frameRate.ts';
import { add, earlier, later, subtract, ZERO, type Ticks } from '../time/ticks.ts';
import { apply } from './record/apply.ts';
import { update, type Change, type Edit } from './record/change.ts';
import type { Edge } from './edits/cues/trimCue.ts';
import { shortestCue } from './record/limits.ts';
import { cuesInOrder } from './order.ts';
import type { Cue, Id, Programme, Table, Tie } from './programme.ts';
import { aOrMany } from '../text/plural.ts';

const FIELD = { start: 'startTie', end: 'endTie' } as const;
const EDGES: readonly Edge[] = ['start', 'end'];

/** What an edge of a cue keeps to; null where it is free. */
export const tieOf = (cue: Cue, edge: Edge): Tie | null => cue[FIELD[edge]] ?? null;

/** Where a tie would have its edge; undefined where there is no such word or mark. */
function claimOf({ facts, marks }: Programme, cue: Cue, edge: Edge): Ticks | undefined {
  const tie = tieOf(cue, edge);
  if (!tie) return undefined;
  const { frameRate } = facts;
  const by = frames(tie.frames, frameRate);
  if (tie.to === 'mark') {
    const mark = marks[tie.mark];
    if (!mark) return undefined;
    return later(ZERO, edge === 'start' ? subtract(mark.at, by) : add(mark.at, by));
  }
  const [first, last] = [cue.words[0], cue.words.at(-1)];
  if (!first || !last) return undefined;
  return edge === 'start'
    ? later(ZERO, subtract(frameBefore(first.start, frameRate), by))
    : add(frameAfter(last.end, frameRate), by);
}

/** The distance at which an edge stands from what it is tied to, as the tie tells it. */
function tiedAsItStands(programme: Programme, cue: Cue, edge: Edge): Tie | null {
  const tie = tieOf(cue, edge);
  if (!tie) return null;
  const claim = claimOf(programme, { ...cue, [FIELD[edge]]: { ...tie, frames: 0 } }, edge);
  if (claim === undefined) return tie;
  const by = edge === 'start' ? subtract(claim, cue.start) : subtract(cue.end, claim);
  return { ...tie, frames: Math.round(by / frames(1, programme.facts.frameRate)) };
}

/** Ties edges of cues, or sets them free with null; words and marks keep the distance that there is. */
export function tieEdges(
  programme: Programme,
  ids: readonly Id[],
  ties: Partial<
    Record<Edge, Tie | { readonly to: 'word' } | { readonly to: 'mark'; readonly mark: Id } | null>
  >,
): Edit {
  const cues = ids.flatMap((id) => programme.cues[id] ?? []);
  const changes = cues.flatMap((cue) => {
    let tied: Cue = cue;
    for (const edge of EDGES) {
      const wanted = ties[edge];
      if (wanted === undefined) continue;
      tied = { ...tied, [FIELD[edge]]: wanted && { frames: 0, ...wanted } };
      if (wanted && !('frames' in wanted))
        tied = { ...tied, [FIELD[edge]]: tiedAsItStands(programme, tied, edge) };
    }
    return update('cue', cue, { startTie: tied.startTie ?? null, endTie: tied.endTie ?? null });
  });
  const free = Object.values(ties).every((tie) => tie === null);
  return {
    name: `${free ? 'Untie' : 'Tie'} ${aOrMany(cues.length, 'cue')}`,
    changes,
  };
}

const known = new WeakMap<Table<Cue>, boolean>();

/** Whether any cue is tied at all; worked out once for each state of the table. */
function anyTied(cues: Table<Cue>): boolean {
  let found = known.get(cues);
  if (found === undefined) {
    found = Object.values(cues).some(({ startTie, endTie }) => startTie ?? endTie);
    known.set(cues, found);
  }
  return found;
}

/** Whether a change ties a cue, or brings in one that is tied. */
const ties = ({ entity, becomes }: Change): boolean =>
  entity === 'cue' && Boolean(becomes?.startTie ?? becomes?.endTie);

/** An edge that is to move, by its tie. */
interface Claims {
  start?: Ticks;
  end?: Ticks;
}

/**
 * An edit with what its words and marks take along: tied edges go where their ties have them. Where two cues claim the
 * same frames they part between their words, and the note says so.
 */
export function withTies(programme: Programme, edit: Edit): Edit {
  if (!anyTied(programme.cues) && !edit.changes.some(ties)) return edit;
  const after = apply(programme, edit.changes);
  const [claims, retied] = consequences(after, edit.changes);
  const tied = apply(after, retied);
  if (claims.size === 0)
    return retied.length > 0 ? { ...edit, changes: [...edit.changes, ...retied] } : edit;
  const { moves, collided } = settled(tied, claims);
  const changes = [...edit.changes, ...retied, ...moves];
  if (collided === 0) return { ...edit, changes };
  const parted = `${collided === 1 ? 'Two tied cues need' : `At ${String(collided)} places two tied cues need`} the same frames. Their edge is put between their words.`;
  return { ...edit, changes, note: edit.note === undefined ? parted : `${edit.note} ${parted}` };
}

/** Which edges are to move after some changes, and which ties stand at another distance now. */
function consequences(
  after: Programme,
  changes: readonly Change[],
): [claims: Map<Id, Claims>, retied: Change[]] {
  const touched = new Map<Id, Set<string>>();
  const marks = new Set<Id>();
  for (const change of changes) {
    if (change.entity === 'mark') marks.add(change.id);
    if (change.entity !== 'cue') continue;
    const fields = touched.get(change.id) ?? new Set<string>();
    for (const field of Object.keys(change.becomes ?? {})) fields.add(field);
    touched.set(change.id, fields);
  }
  const claims = new Map<Id, Claims>();
  const retied: Change[] = [];
  for (const cue of Object.values(after.cues)) {
    const fields = touched.get(cue.id);
    for (const edge of EDGES) {
      const tie = tieOf(cue, edge);
      if (!tie) continue;
      // With its mark the tie goes too.
      if (tie.to === 'mark' && !after.marks[tie.mark]) {
        retied.push(...update('cue', cue, { [FIELD[edge]]: null }));
        continue;
      }
      if (fields?.has(edge)) {
        // The edge was set; unless the tie was too, it is the tie that follows.
        const made = fields.has('strand');
        if (fields.has(FIELD[edge]) && !made) continue;
        const stands = tiedAsItStands(after, cue, edge);
        const kept = made && tie.to === 'mark' && stands?.frames !== tie.frames ? null : stands;
        retied.push(...update('cue', cue, { [FIELD[edge]]: kept }));
        continue;
      }
      const moves =
        fields?.has(FIELD[edge]) === true ||
        (tie.to === 'mark' ? marks.has(tie.mark) : fields?.has('words') === true);
      const claim = moves ? claimOf(after, cue, edge) : undefined;
      if (claim === undefined) continue;
      claims.set(cue.id, { ...claims.get(cue.id), [edge]: claim });
    }
  }
  return [claims, retied];
}

interface Placed {
  readonly cue: Cue;
  readonly claims: Claims;
  start: Ticks;
  end: Ticks;
}

/** Edges where they are claimed, as far as their neighbours leave room. */
function settled(
  programme: Programme,
  claims: ReadonlyMap<Id, Claims>,
): { moves: Change[]; collided: number } {
  const shortest = shortestCue(programme);
  const gap = frames(programme.facts.profile.gapFrames, programme.facts.frameRate);
  const moves: Change[] = [];
  let collided = 0;
  const strands = new Set([...claims.keys()].map((id) => programme.cues[id]?.strand ?? ''));
  for (const strand of strands) {
    const free = programme.strands[strand]?.overlapAllowed ?? false;
    const row = cuesInOrder(programme, strand).map((cue): Placed => {
      const own = claims.get(cue.id) ?? {};
      // An edge that would leave its cue no frame stays with the other.
      const start = earlier(own.start ?? cue.start, subtract(own.end ?? cue.end, shortest));
      const end = later(own.end ?? cue.end, add(later(start, ZERO), shortest));
      return { cue, claims: own, start: later(start, ZERO), end };
    });
    row.forEach((place, at) => {
      const next = row[at + 1];
      if (!next || free) return;
      const mine = place.claims.end !== undefined;
      const theirs = next.claims.start !== undefined;
      if (!mine && !theirs) return;
      if (place.end > next.start) {
        if (mine && theirs) collided++;
        part(place, next, { mine, theirs, shortest }, programme);
      } else if (mine && next.start - place.end < gap && next.start > place.end) {
        const most = subtract(next.start, gap);
        const said = place.cue.words.at(-1)?.end ?? place.start;
        place.end = most >= said && most >= place.start + shortest ? most : next.start;
      }
    });
    if (
      row.some(
        ({ start, end }, at) =>
          !free && (end - start < shortest || end > (row[at + 1]?.start ?? Infinity)),
      )
    )
      continue;
    for (const { cue, start, end } of row) moves.push(...update('cue', cue, { start, end }));
  }
  return { moves, collided };
}

/** Has two cues part that lie over each other: between their words where both are tied, else where the other stands. */
function part(
  place: Placed,
  next: Placed,
  { mine, theirs, shortest }: { mine: boolean; theirs: boolean; shortest: Ticks },
  programme: Programme,
): void {
  const said = place.cue.words.at(-1)?.end ?? place.end;
  const says = next.cue.words[0]?.start ?? next.start;
  const middle = nearestFrame(((said + says) / 2) as Ticks, programme.facts.frameRate);
  const wanted = mine && theirs ? middle : mine ? next.start : place.end;
  const seam = later(add(place.start, shortest), earlier(wanted, subtract(next.end, shortest)));
  place.end = earlier(place.end, seam);
  next.start = later(next.start, seam);
}
