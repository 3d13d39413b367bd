/**
 * What was heard in a sound, in one pass: outline, evidence of speech and of the pulse, hits and level.
 *
 * The sample rate is lowered once for all that listens to pitch and voice; each chunk goes to every
 * listener and is forgotten.
 */
import { Decimator } from './decimate.ts';
import { HitLevelListener } from './hitLevels.ts';
import { findHits, shareInHits, type FoundHit } from './hits.ts';
import { LoudnessMeter, type Level } from './loudness.ts';
import { mix } from './mix.ts';
import { PeakBuilder, type Peaks } from './peaks.ts';
import { PulseListener, type PulseEvidence } from './pulseEvidence.ts';
import { SpeechListener, type SpeechEvidence } from './speechEvidence.ts';

export interface Heard {
  readonly peaks: Peaks;
  readonly speech: SpeechEvidence;
  readonly pulse: PulseEvidence;
  readonly hits: readonly FoundHit[];
  /** The share of the energy that lies in the hits. */
  readonly hitShare: number;
  readonly level: Level;
}

/** What to listen for besides outline and level. */
export type Analysis = 'speech' | 'pulse' | 'hits';
export const ANALYSES: readonly Analysis[] = ['speech', 'pulse', 'hits'];

/**
 * Samples of which each is a number: one that is not, as damaged files of floating-point sound have,
 * would spoil all that comes after it.
 */
function undamaged(samples: Float32Array): Float32Array {
  let sum = 0;
  for (let at = 0; at < samples.length; at++) sum += 0 * (samples[at] as number);
  return sum === 0 ? samples : samples.map((sample) => (Number.isFinite(sample) ? sample : 0));
}

/** What is heard in the sound at its lowered rate. */
export type HeardLowered = Pick<Heard, 'speech' | 'pulse' | 'hits' | 'hitShare'>;

/** Listens to sound whose rate was lowered to about 16 kHz. */
export class LoweredListener {
  readonly #speech: SpeechListener;
  readonly #pulse: PulseListener;
  readonly #hits: HitLevelListener;
  readonly #wanted: ReadonlySet<Analysis>;

  /**
   * @param rate    of the sound, in samples a second
   * @param wanted  what to listen for; the evidence of all else stays empty
   */
  constructor(rate: number, wanted: readonly Analysis[]) {
    this.#speech = new SpeechListener(rate);
    this.#pulse = new PulseListener(rate);
    this.#hits = new HitLevelListener(rate);
    this.#wanted = new Set(wanted);
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    if (this.#wanted.has('speech')) this.#speech.push(samples);
    if (this.#wanted.has('pulse')) this.#pulse.push(samples);
    if (this.#wanted.has('hits')) this.#hits.push(samples);
  }

  /** Call once, when all sound has been pushed. */
  finish(): HeardLowered {
    const levels = this.#hits.levels();
    const hits = findHits(levels);
    return {
      speech: this.#speech.evidence(),
      pulse: this.#pulse.evidence(),
      hits,
      hitShare: shareInHits(levels, hits),
    };
  }
}

/** Listens for everything at once while sound is pushed through it. */
export class Listener {
  readonly peaks: PeakBuilder;
  readonly #decimator: Decimator;
  readonly #lowered: LoweredListener;
  readonly #level: LoudnessMeter;
  readonly #alsoTo: (lowered: Float32Array) => void;

  /**
   * @param sampleRate  of the sound, in samples a second
   * @param wanted      what to listen for; the evidence of all else stays empty
   * @param alsoTo      is given the sound at {@link loweredRate} too
   */
  constructor(
    sampleRate: number,
    wanted: readonly Analysis[] = ANALYSES,
    alsoTo: (lowered: Float32Array) => void = () => undefined,
  ) {
    this.peaks = new PeakBuilder(sampleRate);
    this.#decimator = new Decimator(sampleRate);
    this.#lowered = new LoweredListener(this.#decimator.rate, wanted);
    this.#level = new LoudnessMeter(sampleRate);
    this.#alsoTo = alsoTo;
  }

  /** The rate that all but outline and level listen at, in samples a second, about 16 kHz. */
  get loweredRate(): number {
    return this.#decimator.rate;
  }

  /** @param given  one array a channel, all of one length, full scale ±1 */
  push(given: readonly Float32Array[]): void {
    const channels = given.map(undamaged);
    const mono = mix(channels);
    this.peaks.push(mono);
    this.#level.push(channels);
    const lowered = this.#decimator.push(mono);
    this.#alsoTo(lowered);
    this.#lowered.push(lowered);
  }

  /** Call once, when all sound has been pushed. */
  finish(): Heard {
    return {
      peaks: this.peaks.finish(),
      ...this.#lowered.finish(),
      level: this.#level.level(),
    };
  }
}
