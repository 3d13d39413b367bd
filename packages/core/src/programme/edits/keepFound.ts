/** What was heard in a material that was just brought in, as entities of the programme. */
import type { FoundHit } from '../../listen/hits.ts';
import type { FoundPulse } from '../../listen/pulse.ts';
import type { Range } from '../../time/range.ts';
import { fromSeconds } from '../../time/ticks.ts';
import type { Change } from '../change.ts';
import type { Id, Programme } from '../programme.ts';
import { setHits, type NewHit } from './hits.ts';
import { setPieces } from './pieces.ts';
import { setPulse, type NewBeat } from './pulse.ts';

export interface Found {
  readonly pieces: readonly Range[];
  readonly pulse: FoundPulse;
  readonly hits: readonly FoundHit[];
}

/** Beats as found, as they are kept: each bar line with the metre. */
export const beatsOf = ({ beats, metre }: FoundPulse): NewBeat[] =>
  beats.map(({ at, bar }) => ({ at: fromSeconds(at), bar: bar ? metre : null }));

/** Hits as found, as they are kept. */
export const hitsOf = (hits: readonly FoundHit[]): NewHit[] =>
  hits.map(({ start, end, levelDb }) => ({
    start: fromSeconds(start),
    end: fromSeconds(end),
    level: levelDb,
  }));

/** In a track of separate sounds no more than this share is speech. */
const MOST_SPEECH = 0.2;

/**
 * Pieces and pulse, where there are any; hits only of a track of separate sounds, with neither a steady
 * pulse nor much speech in it, since both are full of them.
 *
 * @param material  with its length, which need not be in the programme yet
 */
export function keepFound(
  programme: Programme,
  material: { readonly id: Id; readonly length: number },
  { pieces, pulse, hits }: Found,
  newId: () => Id,
): Change[] {
  const spoken = pieces.reduce((sum, piece) => sum + piece.end - piece.start, 0);
  const separate = pulse.metre === null && spoken < MOST_SPEECH * material.length;
  return [
    ...setPieces(programme, material.id, separate ? [] : pieces, newId).changes,
    ...setPulse(programme, material.id, beatsOf(pulse), newId).changes,
    ...(separate ? setHits(programme, material.id, hitsOf(hits), newId).changes : []),
  ];
}
