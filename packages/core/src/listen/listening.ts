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

/** Listens for everything at once while sound is pushed through it. */
export class Listener {
  readonly peaks: PeakBuilder;
  readonly #decimator: Decimator;
  readonly #speech: SpeechListener;
  readonly #pulse: PulseListener;
  readonly #hits: HitLevelListener;
  readonly #level: LoudnessMeter;
  readonly #wanted: ReadonlySet<Analysis>;

  /**
   * @param sampleRate  of the sound, in samples a second
   * @param wanted      what to listen for; the evidence of all else stays empty
   */
  constructor(sampleRate: number, wanted: readonly Analysis[] = ANALYSES) {
    this.peaks = new PeakBuilder(sampleRate);
    this.#decimator = new Decimator(sampleRate);
    const { rate } = this.#decimator;
    this.#speech = new SpeechListener(rate);
    this.#pulse = new PulseListener(rate);
    this.#hits = new HitLevelListener(rate);
    this.#level = new LoudnessMeter(sampleRate);
    this.#wanted = new Set(wanted);
  }

  /** @param channels  one array a channel, all of one length, full scale ±1 */
  push(channels: readonly Float32Array[]): void {
    const mono = mix(channels);
    this.peaks.push(mono);
    this.#level.push(channels);
    const fewer = this.#decimator.push(mono);
    if (this.#wanted.has('speech')) this.#speech.push(fewer);
    if (this.#wanted.has('pulse')) this.#pulse.push(fewer);
    if (this.#wanted.has('hits')) this.#hits.push(fewer);
  }

  /** Call once, when all sound has been pushed. */
  finish(): Heard {
    const levels = this.#hits.levels();
    const hits = findHits(levels);
    return {
      peaks: this.peaks.finish(),
      speech: this.#speech.evidence(),
      pulse: this.#pulse.evidence(),
      hits,
      hitShare: shareInHits(levels, hits),
      level: this.#level.level(),
    };
  }
}
