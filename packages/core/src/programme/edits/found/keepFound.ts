/** What was heard in a material that was just brought in, as entities of the programme. */
import type { FoundHit } from '../../../listen/hits/hits.ts';
import { DRUMS, type Drum } from '../../../listen/pulse/drums.ts';
import type { FoundStroke } from '../../../listen/pulse/strokes.ts';
import type { FoundPulse } from '../../../listen/pulse/pulse.ts';
import type { Range } from '../../../time/range.ts';
import { fromSeconds, type Ticks } from '../../../time/ticks.ts';
import type { Change } from '../../record/change.ts';
import type { Id } from '../../programme.ts';
import { newHits, type NewHit } from './hits.ts';
import { newPieces } from './pieces.ts';
import { newBeats, type NewBeat } from './pulse.ts';

export interface Found {
  readonly pieces: readonly Range[];
  readonly pulse: FoundPulse;
  readonly hits: readonly FoundHit[];
  readonly strokes: readonly FoundStroke[];
  /** Share of the energy that lies in the hits. */
  readonly hitShare: number;
  /** Of the sound. */
  readonly length: Ticks;
}

/** Beats as found, as they are kept: each bar line with the metre. */
export const beatsOf = ({ beats }: FoundPulse): NewBeat[] =>
  beats.map(({ at, bar, metre, opinion: { begins, lengths } }) => ({
    at: fromSeconds(at),
    bar: bar ? metre : null,
    opinion: [begins, ...lengths].map((value) => Math.round(100 * value)),
  }));

/** Strokes that lie so near each other, or to a hit, are one sound, in seconds. */
const TOGETHER = 0.03;
/** The length of a stroke, in seconds, where the next does not come before. */
const STROKE = 0.08;

/** Hits as found, as they are kept: each with the drums that are struck with it. */
export const hitsOf = (
  hits: readonly FoundHit[],
  strokes: readonly FoundStroke[] = [],
): NewHit[] => {
  let next = 0;
  return hits.map(({ start, end, levelDb, band }) => {
    while (next < strokes.length && (strokes[next]?.at ?? 0) < start - TOGETHER) next++;
    const near = strokes
      .slice(next, next + 2 * DRUMS.length)
      .filter(({ at }) => at <= start + TOGETHER);
    const drums = DRUMS.filter((drum) => near.some((stroke) => stroke.drum === drum));
    return {
      start: fromSeconds(start),
      end: fromSeconds(end),
      level: levelDb,
      band,
      ...(drums.length > 0 && { drums }),
    };
  });
};

/** Strokes of some drums as hits: what is struck at once is one. Their level is not known. */
export function hitsOfStrokes(strokes: readonly FoundStroke[], wanted: readonly Drum[]): NewHit[] {
  const groups: { at: number; drums: Drum[] }[] = [];
  for (const { at, drum } of strokes) {
    if (!wanted.includes(drum)) continue;
    const last = groups.at(-1);
    if (last && at - last.at < TOGETHER && !last.drums.includes(drum)) last.drums.push(drum);
    else groups.push({ at, drums: [drum] });
  }
  return groups.map(({ at, drums }, place) => ({
    start: fromSeconds(at),
    end: fromSeconds(Math.min(at + STROKE, groups[place + 1]?.at ?? Infinity)),
    level: 0,
    drums,
  }));
}

/**
 * In a track of separate sounds at least this share of the energy lies in them; where somebody seems to speak for
 * more than a fifth of it, nearly all of it does, since the syllables of dry speech are sharp too.
 */
const LEAST_SHARE = 0.75;
const LEAST_SHARE_SPOKEN = 0.93;
const SPOKEN = 0.2;
const FEWEST_HITS = 3;

function isSeparate({ pieces, hits, hitShare, length }: Found): boolean {
  const spoken = pieces.reduce((sum, piece) => sum + piece.end - piece.start, 0);
  const least = spoken > SPOKEN * length ? LEAST_SHARE_SPOKEN : LEAST_SHARE;
  return hits.length >= FEWEST_HITS && hitShare >= least;
}

/**
 * Pieces and pulse, where there are any; of a track of separate sounds its hits instead of pieces. Music and
 * speech are full of hits too, and keep none until they are asked for.
 *
 * @param material  need not be in the programme yet
 */
export function keepFound(material: Id, found: Found, newId: () => Id): Change[] {
  const { pieces, pulse, hits, strokes } = found;
  // What is struck without a pulse is keys or steps, which at times sound like a drum.
  const isMusic = pulse.beats.length > 0;
  return [
    ...(isSeparate(found)
      ? newHits(material, hitsOf(hits, isMusic ? strokes : []), newId)
      : newPieces(material, pieces, newId)),
    ...newBeats(material, beatsOf(pulse), newId),
  ];
}
