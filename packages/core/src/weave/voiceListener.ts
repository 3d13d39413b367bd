/** Hears of a sound what weaving needs, while it is pushed through in chunks. */
import { Decimator } from '../listen/signal/decimate.ts';
import { mix } from '../listen/signal/mix.ts';
import { BandsListener, SideListener, type Bands } from './cepstra.ts';

export class VoiceListener {
  readonly #decimator: Decimator;
  readonly #bands: BandsListener;
  readonly #sampleRate: number;
  /** Of the difference of two channels, from the first that are two. */
  #side: { readonly decimator: Decimator; readonly listener: SideListener } | undefined;

  /** @param sampleRate  of the sound, in samples a second */
  constructor(sampleRate: number) {
    this.#sampleRate = sampleRate;
    this.#decimator = new Decimator(sampleRate);
    this.#bands = new BandsListener(this.#decimator.rate);
  }

  /** The rate to which the sound is lowered, about 16 kHz. */
  get loweredRate(): number {
    return this.#decimator.rate;
  }

  /**
   * @param channels  one array a channel, all of one length, full scale ±1
   * @returns         the same sound as one channel at the lowered rate
   */
  push(channels: readonly Float32Array[]): Float32Array {
    const lowered = this.#decimator.push(mix(channels));
    this.#bands.push(lowered);
    const [left, right] = channels;
    if (left && right) this.#beside(left, right);
    return lowered;
  }

  #beside(left: Float32Array, right: Float32Array): void {
    if (!this.#side) {
      const decimator = new Decimator(this.#sampleRate);
      this.#side = { decimator, listener: new SideListener(decimator.rate) };
    }
    const { decimator, listener } = this.#side;
    const half = left.map((sample, at) => (sample - (right[at] as number)) / 2);
    listener.push(decimator.push(half));
  }

  /** Call once, when all sound has been pushed. */
  finish(): Bands {
    return this.#bands.bands(this.#side?.listener);
  }
}
