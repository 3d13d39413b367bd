/**
 * Carries times from one sound to another that was cut, moved, shortened or recorded anew.
 *
 * What is the same sound is found by its fingerprints and followed frame by frame; what lies between is looked for as
 * the same words said again.
 */
import { fromSeconds, ticks, type Ticks } from '../time/ticks.ts';
import { cepstraOf, FILTERS, type Bands } from '../weave/cepstra.ts';
import { samePieces, shiftInSeconds, type SamePiece } from './sameSound.ts';
import { spokenAgain, type Path } from './spokenAgain.ts';

/** A stretch of the old sound and where it is in the new one, in the time of each. Between its ends, time is even. */
export interface Carried {
  readonly from: Ticks;
  readonly to: Ticks;
  readonly at: Ticks;
  readonly until: Ticks;
  /** Whether it is the same sound, or the same words recorded again. */
  readonly how: 'same' | 'again';
}

/** Shorter stretches are not looked for as said again, in frames. */
const SHORT = 50;
/** Frames from one point of a kept path to the next. */
const POINT = 10;

/**
 * What of the old sound is in the new one, in the order of the old; what is missing was not found.
 *
 * @param onProgress  called now and then with the progress, from 0 to 1
 */
export function carrying(
  old: Bands,
  fresh: Bands,
  onProgress: (share: number) => void = () => undefined,
): Carried[] {
  const same = samePieces(old, fresh);
  onProgress(0.6);
  const carried = same.map((piece): Carried => {
    const shift = shiftInSeconds(old, fresh, piece);
    const from = Math.max(0, timeOf(old, piece.from));
    const to = timeOf(old, piece.to);
    return {
      from: fromSeconds(from),
      to: fromSeconds(to),
      at: fromSeconds(from + shift),
      until: fromSeconds(to + shift),
      how: 'same',
    };
  });
  const gaps = unmatched(same, framesIn(old), framesIn(fresh));
  const [before, after] = gaps.length > 0 ? [cepstraOf(old), cepstraOf(fresh)] : [];
  const again = gaps.flatMap((gap) => {
    const path =
      before &&
      after &&
      spokenAgain(
        { cepstra: before, from: gap.from, to: gap.to },
        { cepstra: after, from: gap.at, to: gap.until },
      );
    return path ? alongPath(path, old, fresh) : [];
  });
  onProgress(1);
  return [...carried, ...again].sort((a, b) => a.from - b.from);
}

const framesIn = ({ levels }: Bands): number => levels.length / FILTERS;

/** When a frame takes over from the one before, in seconds. */
const timeOf = ({ firstMiddle }: Bands, frame: number): number =>
  firstMiddle + (frame - 0.5) * 0.01;

interface Gap {
  readonly from: number;
  readonly to: number;
  readonly at: number;
  readonly until: number;
}

/** Stretches of the old sound that were not found, with those of the new that stand in their place. */
function unmatched(same: readonly SamePiece[], count: number, most: number): Gap[] {
  const taken = same
    .map(({ from, to, shift }) => ({ at: from + shift, until: to + shift }))
    .sort((a, b) => a.at - b.at);
  const gaps: Gap[] = [];
  for (let place = 0; place <= same.length; place++) {
    const [before, after] = [same[place - 1], same[place]];
    const gap = { from: before?.to ?? 0, to: after?.from ?? count };
    const at = before ? before.to + before.shift : 0;
    const next = taken.find((piece) => piece.at >= at)?.at ?? most;
    const until = after ? after.from + after.shift : most;
    // Where the pieces on either side no longer follow each other, nothing stands between them.
    if (next !== until || gap.to - gap.from < SHORT || until - at < SHORT) continue;
    gaps.push({ ...gap, at, until });
  }
  return gaps;
}

/** A path as stretches between points. */
function alongPath(path: Path, old: Bands, fresh: Bands): Carried[] {
  const points = path.filter(
    ([i], place) => place === path.length - 1 || (i % POINT === 0 && path[place - 1]?.[0] !== i),
  );
  return points.slice(1).flatMap(([to, until], place): Carried[] => {
    const [from, at] = points[place] as readonly [number, number];
    if (to <= from) return [];
    const time = (bands: Bands, frame: number) => fromSeconds(Math.max(0, timeOf(bands, frame)));
    return [
      {
        from: time(old, from),
        to: time(old, to),
        at: time(fresh, at),
        until: time(fresh, until),
        how: 'again',
      },
    ];
  });
}

/**
 * A time of the old sound in the new one; undefined where it was not found.
 *
 * @param side  of which stretch an instant is that lies between two
 */
export function carried(
  map: readonly Carried[],
  time: Ticks,
  side: 'start' | 'end',
): { readonly time: Ticks; readonly how: Carried['how'] } | undefined {
  let [low, high] = [0, map.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    const { from } = map[middle] as Carried;
    if (side === 'start' ? from <= time : from < time) low = middle + 1;
    else high = middle;
  }
  const piece = map[low - 1];
  if (!piece || time > piece.to || (side === 'start' && time === piece.to)) return undefined;
  const share = (time - piece.from) / (piece.to - piece.from);
  return { time: ticks(piece.at + share * (piece.until - piece.at)), how: piece.how };
}
