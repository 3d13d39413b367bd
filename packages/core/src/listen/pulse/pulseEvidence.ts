/** What the pulse is found from: a network's activations, how strongly something begins, and which pitches sound. */
import { GrowingBytes } from '../signal/growing.ts';
import type { HitLevelListener } from '../hits/hitLevels.ts';
import { fillDrumLevels } from './drumInputs.ts';
import { DRUM_WEIGHTS } from './drumWeights.ts';
import { HarmonyListener } from './harmony.ts';
import { ONSET_STEP } from './onsets.ts';
import { PULSE_INPUTS, PulseInputs } from './pulseSteps.ts';
import { PULSE_WEIGHTS } from './pulseWeights.ts';
import { StepJudge } from '../signal/steps.ts';

/** Opinions in each step of 20 ms: here is a beat; here a bar begins. */
export const ACTIVATIONS = 2;

/** Kept of a sound, so that its pulse can be found again. */
export interface PulseEvidence {
  /** {@link ACTIVATIONS} opinions, 0 to 255, a step. */
  readonly activations: Uint8Array;
  /** Opinions, 0 to 255, a step: here a kick, a snare, a closed hat, an open hat is struck. */
  readonly strokes: Uint8Array;
  /** How strongly something begins, in steps of `ONSET_STEP`, one every 10 ms. */
  readonly onsets: Uint8Array;
  /** Which pitches sound, as `HarmonyListener` gives it. */
  readonly harmony: Uint8Array;
  /** Time of the first onset strength, in seconds. */
  readonly firstMiddle: number;
}

/** A step is about two frames of 10 ms: its middle lies 5 ms after that of the first. */
export const STEP_MIDDLE = 0.005;

/** One of so many opinions in each step, by step, 0 to 1. */
export function oneOf(opinions: Uint8Array, which: number, count: number): Float32Array {
  const of = new Float32Array(Math.floor(opinions.length / count));
  for (let step = 0; step < of.length; step++)
    of[step] = (opinions[step * count + which] as number) / 255;
  return of;
}

/** One of the opinions about the pulse, by step, 0 to 1. */
export const opinionOf = (
  { activations }: Pick<PulseEvidence, 'activations'>,
  which: number,
): Float32Array => oneOf(activations, which, ACTIVATIONS);

/** Collects evidence of the pulse while sound is pushed through it. */
export class PulseListener {
  readonly #inputs: PulseInputs;
  readonly #levels: HitLevelListener;
  readonly #high = new GrowingBytes();
  readonly #drums = new StepJudge(DRUM_WEIGHTS);
  #step = 0;
  readonly #judge = new StepJudge(PULSE_WEIGHTS);
  readonly #onsets = new GrowingBytes();
  readonly #harmony: HarmonyListener;

  /**
   * @param rate    of the sound, in samples a second, about 16 kHz
   * @param levels  is pushed each stretch of the sound before
   */
  constructor(rate: number, levels: HitLevelListener) {
    this.#levels = levels;
    this.#inputs = new PulseInputs(rate);
    this.#harmony = new HarmonyListener(rate);
  }

  /**
   * @param samples  one channel, full scale ±1
   * @param high     what `HighLevels` makes of the same stretch at its own rate
   */
  push(samples: Float32Array, high: Uint8Array): void {
    for (const level of high) this.#high.push(level);
    this.#harmony.push(samples);
    this.#inputs.push(
      samples,
      (strength) => this.#onsets.push(strength / ONSET_STEP),
      (fill) => {
        this.#judge.put(fill);
        const step = this.#step++;
        this.#drums.put((into, from) => {
          fill(into, from);
          fillDrumLevels(into, from + PULSE_INPUTS, step, this.#levels, this.#high);
        });
      },
    );
  }

  /** Call once, when all sound has been pushed. */
  evidence(): PulseEvidence {
    return {
      activations: this.#judge.end(),
      strokes: this.#drums.end(),
      onsets: this.#onsets.all(),
      harmony: this.#harmony.all(),
      firstMiddle: this.#inputs.firstMiddle,
    };
  }
}
