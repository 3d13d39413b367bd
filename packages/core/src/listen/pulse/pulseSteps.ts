/** What the pulse is found from: activations on every 20 ms, and how strongly something begins every 10 ms. */
import { MUSIC_BANDS, MusicBands } from '../signal/musicBands.ts';

/** Inputs of a step: the mean level of every band over it, then how much of each is new. */
export const PULSE_INPUTS = 2 * MUSIC_BANDS;

/** Puts frames of levels and rises together into steps. */
export class PulseInputs {
  readonly #bands: MusicBands;
  readonly #levels = new Float32Array(MUSIC_BANDS);
  readonly #rises = new Float32Array(MUSIC_BANDS);
  #frame = 0;

  /** @param rate  of the sound, in samples a second, about 16 kHz */
  constructor(rate: number) {
    this.#bands = new MusicBands(rate);
  }

  /** Time of the middle of frame 0, in seconds; step n is about frames 2n and 2n + 1. */
  get firstMiddle(): number {
    return this.#bands.firstMiddle;
  }

  /**
   * @param samples  one channel, full scale ±1
   * @param frame    is told how strongly something begins, every 10 ms
   * @param step     is given a function that writes the inputs of a step
   */
  push(
    samples: Float32Array,
    frame: (strength: number) => void,
    step: (fill: (into: Float32Array, from: number) => void) => void,
  ): void {
    const [held, risen] = [this.#levels, this.#rises];
    this.#bands.push(samples, (levels, rises) => {
      let strength = 0;
      const second = this.#frame++ % 2 === 1;
      for (let band = 0; band < MUSIC_BANDS; band++) {
        const [level, rise] = [levels[band] as number, rises[band] as number];
        strength += rise;
        held[band] = second ? ((held[band] as number) + level) / 2 : level;
        risen[band] = second ? (risen[band] as number) + rise : rise;
      }
      frame(strength / MUSIC_BANDS);
      if (second)
        step((into, from) => {
          into.set(held, from);
          into.set(risen, from + MUSIC_BANDS);
        });
    });
  }
}
