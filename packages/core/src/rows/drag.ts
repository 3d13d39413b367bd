/** The edit that a drag on the page of rows makes. */
import type { Edit } from '../programme/record/change.ts';
import { addCue } from '../programme/edits/cues/addCue.ts';
import { moveCues } from '../programme/edits/cues/moveCues.ts';
import { moveSlope } from '../programme/edits/patterns/slopes.ts';
import { moveSeam } from '../programme/edits/cues/moveSeam.ts';
import { trimCue } from '../programme/edits/cues/trimCue.ts';
import { trimHit } from '../programme/edits/found/hits.ts';
import { moveMarks } from '../programme/edits/found/marks.ts';
import { trimPiece } from '../programme/edits/found/pieces.ts';
import { moveBeat } from '../programme/edits/found/pulse.ts';
import { moveWordEdge } from '../programme/edits/words/weaveCues.ts';
import { materialTime } from '../programme/heard.ts';
import type { Id, Programme } from '../programme/programme.ts';
import type { Range } from '../time/range.ts';
import { subtract, type Ticks } from '../time/ticks.ts';
import { ticksOf, type Page } from './page.ts';
import type { Target } from './target.ts';

/** What moves with a target: left out of what it may snap to. */
export function draggedWith(target: Target, selection: readonly Id[], picked: readonly Id[]): Id[] {
  switch (target.kind) {
    case 'cue':
      return [...selection];
    case 'edge':
    case 'slope':
    case 'word':
      return [target.cue];
    case 'seam':
      return [target.before, target.after];
    case 'mark':
      return picked.includes(target.id) ? [...picked] : [target.id];
    case 'beat':
    case 'thingEdge':
      return [target.id];
    default:
      return [];
  }
}

/** The edit that dragging `target` from one instant to another comes to; null where it makes none. */
export function dragEdit(
  programme: Programme,
  target: Target,
  [from, to]: readonly [from: Ticks, to: Ticks],
  { selection, picked }: { readonly selection: readonly Id[]; readonly picked: readonly Id[] },
  newId: () => Id,
): Edit | null {
  switch (target.kind) {
    case 'edge':
      return trimCue(programme, target.cue, target.edge, to);
    case 'slope':
      return moveSlope(programme, target.cue, target.edge, to);
    case 'seam':
      return moveSeam(programme, target.before, target.after, to);
    case 'cue': {
      const ids = selection.includes(target.cue) ? selection : [target.cue];
      return moveCues(programme, ids, subtract(to, from));
    }
    case 'word':
      return moveWordEdge(programme, target.cue, target.at, target.edge, to);
    case 'lane':
      return addCue(
        programme,
        target.strand,
        { start: to < from ? to : from, end: to < from ? from : to },
        '',
        newId,
      );
    case 'mark':
      return moveMarks(programme, draggedWith(target, selection, picked), subtract(to, from));
    case 'beat': {
      const beat = programme.beats[target.id];
      return beat ? moveBeat(programme, beat.id, materialTime(programme, beat.material, to)) : null;
    }
    case 'thingEdge': {
      const thing = target.hits ? programme.hits[target.id] : programme.pieces[target.id];
      if (!thing) return null;
      const trim = target.hits ? trimHit : trimPiece;
      return trim(programme, thing.id, target.edge, materialTime(programme, thing.material, to));
    }
    case 'wave':
      return null;
  }
}

/** The times whose places a drag moves: those that may snap. */
export function movingTimes(
  programme: Programme,
  target: Target,
  from: Ticks,
  picked: readonly Id[],
): readonly Ticks[] {
  if (target.kind === 'cue') {
    const cue = programme.cues[target.cue];
    return cue ? [cue.start, cue.end] : [from];
  }
  if (target.kind !== 'mark') return [from];
  const marks = draggedWith(target, [], picked).map((id) => programme.marks[id]?.at);
  return marks.filter((at) => at !== undefined);
}

/** The stretch in which a drag looks for what to snap to. */
export function around(
  page: Page,
  moving: readonly Ticks[],
  [from, to]: readonly [Ticks, Ticks],
  reach: Ticks,
): Range {
  const wide = ticksOf(page, 400);
  const there = moving.map((time) => time + to - from);
  return {
    start: Math.min(to - wide, ...there.map((time) => time - reach)) as Ticks,
    end: Math.max(to + wide, ...there.map((time) => time + reach)) as Ticks,
  };
}
