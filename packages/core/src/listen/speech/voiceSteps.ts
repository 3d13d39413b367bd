/** What speech is found from: the levels of the speech bands, two frames of 10 ms a step. */
import { BANDS, SpeechBands } from '../signal/bands.ts';

/** Inputs of a step: the band levels of its first frame, then those of its second, in kept steps. */
export const VOICE_INPUTS = 2 * BANDS;

/** Puts the band levels of two frames together into steps. */
export class VoiceInputs {
  readonly #bands: SpeechBands;
  readonly #two = new Uint8Array(VOICE_INPUTS);
  #frame = 0;

  /** @param rate  of the sound, in samples a second, about 16 kHz */
  constructor(rate: number) {
    this.#bands = new SpeechBands(rate);
  }

  /** Time of the middle of frame 0, in seconds; step n is frames 2n and 2n + 1. */
  get firstMiddle(): number {
    return this.#bands.firstMiddle;
  }

  /**
   * @param samples  one channel, full scale ±1
   * @param step     is given a function that writes the inputs of a step
   */
  push(
    samples: Float32Array,
    step: (fill: (into: Float32Array, from: number) => void) => void,
  ): void {
    this.#bands.push(samples, (levels) => {
      const second = this.#frame++ % 2 === 1;
      this.#two.set(levels, second ? BANDS : 0);
      if (second) step((into, from) => into.set(this.#two, from));
    });
  }
}
