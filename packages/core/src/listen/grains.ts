/**
 * Sound under a moving hand, in short overlapped grains.
 *
 * Grains of 40 ms under a Hann window start every 20 ms, so that their windows sum to one: at the pace of
 * the sound itself they give it back unchanged, and at any other there is neither gap nor click (synchronous
 * overlap-add; Roads, "Microsound", 2001). A hand that goes backwards hears each grain backwards; one that
 * holds still hears the tenth of a second before it again and again, softly.
 */

/** Length of a grain and the time from one to the next, in seconds. */
const GRAIN = 0.04;
export const GRAIN_HOP = 0.02;
/** The time without a movement after which the hand holds still, in seconds. */
const STILL = 0.1;
/** What is repeated then, in seconds, and how loud. */
const REPEATED = 0.1;
const SOFTLY = 0.35;

/** What one grain is to sound like. */
export interface GrainAt {
  /** Its middle, in seconds of the sound. */
  readonly at: number;
  readonly backwards: boolean;
  readonly gain: number;
}

/** Follows a hand and says what each grain is. */
export class Hand {
  #at: number;
  #moved: number;
  #last: number;
  #repeated = 0;

  /**
   * @param at   where in the sound the hand is put down, in seconds
   * @param now  the time by the clock, in seconds
   */
  constructor(at: number, now: number) {
    this.#at = at;
    this.#last = at;
    this.#moved = now;
  }

  move(at: number, now: number): void {
    if (at === this.#at) return;
    this.#at = at;
    this.#moved = now;
    this.#repeated = 0;
  }

  /** The next grain, asked for every {@link GRAIN_HOP}. */
  next(now: number): GrainAt {
    if (now - this.#moved > STILL) {
      this.#repeated = (this.#repeated + GRAIN_HOP) % REPEATED;
      this.#last = this.#at;
      return { at: this.#at - REPEATED + this.#repeated, backwards: false, gain: SOFTLY };
    }
    const backwards = this.#at < this.#last;
    this.#last = this.#at;
    return { at: this.#at, backwards, gain: 1 };
  }
}

/** A stretch of one channel of sound. */
export interface Stretch {
  readonly samples: Float32Array;
  /** In samples a second. */
  readonly rate: number;
  /** Where the first sample lies, in seconds of the sound. */
  readonly from: number;
}

/** Adds a grain of `sound` to `into`, which is as long as a grain at the sound's rate. */
export function addGrain(into: Float32Array, sound: Stretch, grain: GrainAt): void {
  const { length } = into;
  const first = Math.round((grain.at - sound.from) * sound.rate) - (length >> 1);
  for (let at = 0; at < length; at++) {
    const sample = sound.samples[first + (grain.backwards ? length - 1 - at : at)];
    if (sample === undefined) continue;
    const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * at) / length);
    into[at] = (into[at] as number) + grain.gain * window * sample;
  }
}

export const grainLength = (rate: number): number => 2 * Math.round((GRAIN * rate) / 2);
