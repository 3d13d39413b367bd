/** What was heard in a material that was just brought in, as entities of the programme. */
import type { FoundHit } from '../../../listen/hits/hits.ts';
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
  /** Share of the energy that lies in the hits. */
  readonly hitShare: number;
  /** Of the sound. */
  readonly length: Ticks;
}

/** Beats as found, as they are kept: each bar line with the metre. */
export const beatsOf = ({ beats, metre }: FoundPulse): NewBeat[] =>
  beats.map(({ at, bar }) => ({ at: fromSeconds(at), bar: bar ? metre : null }));

/** Hits as found, as they are kept. */
export const hitsOf = (hits: readonly FoundHit[]): NewHit[] =>
  hits.map(({ start, end, levelDb, band }) => ({
    start: fromSeconds(start),
    end: fromSeconds(end),
    level: levelDb,
    band,
  }));

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
  const { pieces, pulse, hits } = found;
  return [
    ...(isSeparate(found)
      ? newHits(material, hitsOf(hits), newId)
      : newPieces(material, pieces, newId)),
    ...newBeats(material, beatsOf(pulse), newId),
  ];
}
