/**
 * What the drums are told apart by, in each step of 20 ms: what music does in each band, and levels of the whole, of the
 * lowest and of the highest part that follow each other faster than the bands do.
 */
import { HIGH_LEVELS, HIGH_LEVELS_A_SECOND } from '../signal/highLevels.ts';
import { STEPS_A_SECOND } from '../signal/steps.ts';
import { HIT_LEVELS_A_SECOND, type HitLevelListener } from '../hits/hitLevels.ts';
import { PULSE_INPUTS } from './pulseSteps.ts';

/** Instants in a step of which there are levels, and levels at each. */
const INSTANTS = HIGH_LEVELS_A_SECOND / STEPS_A_SECOND;
const LEVELS = 2 + HIGH_LEVELS;

/** Those of a step: the inputs of the pulse first. */
export const DRUM_INPUTS = PULSE_INPUTS + INSTANTS * LEVELS;

/** Bytes of levels are made about as large as the other inputs. */
const SCALE = 1 / 32;
/** The first instant of the first step, in seconds. */
const FIRST = 0.025;

/**
 * Writes the levels of a step after the inputs of the pulse.
 *
 * @param step  its number
 * @param hits  which has heard so far at least
 * @param high  bytes of `HighLevels`, so far at least; where they are missing there is nothing high
 */
export function fillDrumLevels(
  into: Float32Array,
  from: number,
  step: number,
  hits: Pick<HitLevelListener, 'levelAt'>,
  high: { at(place: number): number },
): void {
  const first = Math.round(FIRST * HIGH_LEVELS_A_SECOND) + step * INSTANTS;
  for (let instant = 0; instant < INSTANTS; instant++) {
    const place = first + instant;
    const hit = Math.round((place * HIT_LEVELS_A_SECOND) / HIGH_LEVELS_A_SECOND);
    const levels = [hits.levelAt('whole', hit), hits.levelAt('low', hit)];
    for (let part = 0; part < HIGH_LEVELS; part++) levels.push(high.at(HIGH_LEVELS * place + part));
    levels.forEach((level, which) => {
      into[from + LEVELS * instant + which] = level * SCALE;
    });
  }
}
