/** In what the values of moves are told. */
import type { MoveKind } from '@cadence/core/movement/movement.ts';

interface Measure {
  readonly unit: string;
  /** How much of what is kept is one of what is told. */
  readonly scale: number;
}

const PER_CENT: Measure = { unit: '%', scale: 0.01 };
const EMS: Measure = { unit: 'em', scale: 1 };
const NONE: Measure = { unit: '', scale: 1 };

export const MEASURES: Readonly<Record<MoveKind, Measure>> = {
  opacity: PER_CENT,
  scale: PER_CENT,
  width: PER_CENT,
  height: PER_CENT,
  place: EMS,
  turn: { unit: '°', scale: 1 },
  blur: { unit: 'px', scale: 1 },
  spacing: EMS,
  colour: NONE,
  wipe: NONE,
};
