/**
 * Flashes that may harm: more than three within a second (WCAG 2.2, success criterion 2.3.1). What flashes here is all of
 * the frame, and so more than the quarter of it that the criterion lets pass; how bright the picture is behind it is not
 * known, so that a flash counts from the tenth of full brightness on that the criterion names.
 */
import { flashesOf, FLASH } from '../movement/flashes.ts';
import type { Movement } from '../movement/movement.ts';
import { timeOfCue } from '../programme/cueTime.ts';
import { strandsShown } from '../programme/order.ts';
import { movementOf } from '../programme/patterns.ts';
import type { Cue, Programme } from '../programme/programme.ts';
import { apply } from '../programme/record/apply.ts';
import { update, type Change, type Edit } from '../programme/record/change.ts';
import { isBlank } from '../text/lines.ts';
import { countFrames, nominalRate } from '../time/frameRate.ts';
import type { Finding } from './finding.ts';

/** Flashes within a second, at most; and how opaque one is at least. */
export const MOST_FLASHES = 3;
const LEAST_SEEN = 0.1;

/** The frames of a cue in which flashes that count begin, from its start. */
function countedIn(programme: Programme, cue: Cue, { stays }: Movement): number[] {
  const time = timeOfCue(programme, cue);
  return stays.flatMap((stay) =>
    stay.what === 'flashes' && (stay.amount ?? FLASH.amount) >= LEAST_SEEN
      ? flashesOf(stay, time)
      : [],
  );
}

/** The most instants that lie within a second of each other, one of them at least being among some. */
function mostWith(own: ReadonlySet<number>, sorted: readonly number[], second: number): number {
  let [most, from, lastOwn] = [0, 0, -1];
  sorted.forEach((frame, at) => {
    while (frame - (sorted[from] ?? 0) >= second) from++;
    if (own.has(frame)) lastOwn = at;
    if (lastOwn >= from) most = Math.max(most, at - from + 1);
  });
  return most;
}

/** The cues that flash too often, with those of other strands that flash meanwhile. */
export function flashFindings(programme: Programme): Finding[] {
  const { frameRate } = programme.facts;
  const second = nominalRate(frameRate);
  const shown = new Set(strandsShown(programme).map(({ id }) => id));
  const flashing = Object.values(programme.cues).flatMap((cue) => {
    const movement =
      shown.has(cue.strand) && !isBlank(cue.text) ? movementOf(programme, cue, 0) : undefined;
    if (!movement?.stays.some(({ what }) => what === 'flashes')) return [];
    const start = countFrames(cue.start, frameRate);
    return [{ cue, at: countedIn(programme, cue, movement).map((frame) => frame + start) }];
  });
  const all = [...new Set(flashing.flatMap(({ at }) => at))].sort((a, b) => a - b);
  return flashing.flatMap(({ cue, at }): Finding[] => {
    const most = mostWith(new Set(at), all, second);
    if (most <= MOST_FLASHES) return [];
    return [
      {
        kind: 'flashes',
        severity: 'wrong',
        at: cue.start,
        cue: cue.id,
        figure: most,
        limit: MOST_FLASHES,
        unit: 'flashes within a second',
        message: 'Flashes too often: that can bring on seizures',
      },
    ];
  });
}

/**
 * Has a cue flash on every second, third … instant, as few of them as it takes to be let pass with what else flashes
 * meanwhile; where none are few enough, those that leave the fewest within a second.
 */
export function calmFlashes(programme: Programme, cue: Cue): Edit {
  const name = 'Flash less often';
  const movement = movementOf(programme, cue, 0);
  if (!movement) return { name, changes: [] };
  const second = nominalRate(programme.facts.frameRate);
  const calmer = (every: number) =>
    movement.stays.map((stay) =>
      stay.what === 'flashes' ? { ...stay, every: (stay.every ?? 1) * every } : stay,
    );
  const figureOf = (now: Programme) =>
    flashFindings(now).find((finding) => finding.cue === cue.id)?.figure ?? 0;
  let best: { changes: readonly Change[]; figure: number } = {
    changes: [],
    figure: figureOf(programme),
  };
  for (let every = 2; every <= second && best.figure > 0; every++) {
    const own = { movement: { ...cue.movement, stays: calmer(every) } };
    const changes = update('cue', cue, own);
    const figure = figureOf(apply(programme, changes));
    if (figure < best.figure) best = { changes, figure };
  }
  const { changes, figure } = best;
  const note = 'What else flashes beside it is too much with it. Have that flash less often too.';
  return { name, changes, ...(figure > 0 && { note }) };
}
