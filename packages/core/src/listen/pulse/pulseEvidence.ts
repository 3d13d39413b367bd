/** What the pulse is found from: a network's activations, and how strongly something begins. */
import { GrowingBytes } from '../signal/growing.ts';
import { ONSET_STEP } from './onsets.ts';
import { PulseInputs } from './pulseSteps.ts';
import { PULSE_WEIGHTS } from './pulseWeights.ts';
import { StepJudge } from '../signal/steps.ts';

/** Kept of a sound, so that its pulse can be found again: three bytes every 20 ms, one every 10 ms. */
export interface PulseEvidence {
  /** Opinions, 0 to 255, a step: here is a beat; here a bar begins; the beat divides in three. */
  readonly activations: Uint8Array;
  /** How strongly something begins, in steps of `ONSET_STEP`, one every 10 ms. */
  readonly onsets: Uint8Array;
  /** Time of the first onset strength, in seconds. */
  readonly firstMiddle: number;
}

/** Collects evidence of the pulse while sound is pushed through it. */
export class PulseListener {
  readonly #inputs: PulseInputs;
  readonly #judge = new StepJudge(PULSE_WEIGHTS);
  readonly #onsets = new GrowingBytes();

  /** @param rate  of the sound, in samples a second, about 16 kHz */
  constructor(rate: number) {
    this.#inputs = new PulseInputs(rate);
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    this.#inputs.push(
      samples,
      (strength) => this.#onsets.push(strength / ONSET_STEP),
      (fill) => this.#judge.put(fill),
    );
  }

  /** Call once, when all sound has been pushed. */
  evidence(): PulseEvidence {
    return {
      activations: this.#judge.end(),
      onsets: this.#onsets.all(),
      firstMiddle: this.#inputs.firstMiddle,
    };
  }
}
