/**
 * What is thought of each beat: whether a bar begins with it, and how long its bar is.
 *
 * Two networks are asked, one that looks at what sounds on each beat, and the one that found the beats; their odds are
 * multiplied, each to the power of a half. That four beats are commoner than two is added, unless the beats divide in three.
 */
import { logistic, Network } from '../signal/network.ts';
import { BAR_INPUTS, barInputs } from './barInputs.ts';
import { BAR_LENGTHS, type BarOpinion } from './bars.ts';
import { BAR_WEIGHTS } from './barWeights.ts';
import type { PulseEvidence } from './pulseEvidence.ts';

/** How much each of the two counts. */
const COUNTS = 0.5;
/** The odds of four beats against two or three where they do not divide in three. */
const FOUR = 2;
/** No network is taken to be surer. */
const LEAST = 0.01;

const logOdds = (chance: number): number => {
  const kept = Math.min(1 - LEAST, Math.max(LEAST, chance));
  return Math.log(kept / (1 - kept));
};

/**
 * @param beats     times in seconds, in order
 * @param inThrees  whether they divide in three
 * @returns         one a beat
 */
export function barOpinions(
  evidence: PulseEvidence,
  beats: readonly number[],
  inThrees: boolean,
): BarOpinion[] {
  const network = new Network(BAR_WEIGHTS);
  const inputs = barInputs(evidence, beats);
  const first = network.push(inputs);
  const sums = [...first, ...network.end()];
  const width = 1 + BAR_LENGTHS.length;
  return beats.map((_, beat) => {
    const [begins = 0, ...rest] = sums.slice(beat * width, (beat + 1) * width);
    const powers = rest.map(
      (value, at) =>
        Math.exp(value - Math.max(...rest)) * (BAR_LENGTHS[at] === 4 && !inThrees ? FOUR : 1),
    );
    const all = powers.reduce((sum, value) => sum + value, 0);
    // The opinion of the network that found the beats is the first input.
    const other = logOdds(inputs[beat * BAR_INPUTS] as number);
    return {
      begins: logistic(COUNTS * (logOdds(logistic(begins)) + other)),
      lengths: powers.map((value) => value / all),
    };
  });
}
