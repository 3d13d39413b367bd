/** Hears of a sound what weaving needs, while it is pushed through in chunks. */
import { Decimator } from '../listen/decimate.ts';
import { mix } from '../listen/mix.ts';
import { BandsListener, type Bands } from './cepstra.ts';

export class VoiceListener {
  readonly #decimator: Decimator;
  readonly #bands: BandsListener;

  /** @param sampleRate  of the sound, in samples a second */
  constructor(sampleRate: number) {
    this.#decimator = new Decimator(sampleRate);
    this.#bands = new BandsListener(this.#decimator.rate);
  }

  /** @param channels  one array a channel, all of one length, full scale ±1 */
  push(channels: readonly Float32Array[]): void {
    this.#bands.push(this.#decimator.push(mix(channels)));
  }

  /** Call once, when all sound has been pushed. */
  finish(): Bands {
    return this.#bands.bands();
  }
}
