/** Listening to sound whose rate was lowered to about 16 kHz, for voice, pulse and hits. */
import { HitLevelListener } from './hits/hitLevels.ts';
import { findHits, shareInHits, type FoundHit } from './hits/hits.ts';
import { PulseListener, type PulseEvidence } from './pulse/pulseEvidence.ts';
import { SpeechListener, type SpeechEvidence } from './speech/speechEvidence.ts';

/** What to listen for besides outline and level. */
export type Analysis = 'speech' | 'pulse' | 'hits';
export const ANALYSES: readonly Analysis[] = ['speech', 'pulse', 'hits'];

/** What is heard in the sound at its lowered rate. */
export interface HeardLowered {
  readonly speech: SpeechEvidence;
  readonly pulse: PulseEvidence;
  readonly hits: readonly FoundHit[];
  /** The share of the energy that lies in the hits. */
  readonly hitShare: number;
}

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
    this.#hits = new HitLevelListener(rate);
    this.#pulse = new PulseListener(rate, this.#hits);
    this.#wanted = new Set(wanted);
  }

  /**
   * @param samples  one channel, full scale ±1
   * @param high     what `HighLevels` makes of the same stretch at its own rate
   */
  push(samples: Float32Array, high: Uint8Array): void {
    if (this.#wanted.has('speech')) this.#speech.push(samples);
    // The pulse is told of the hits too.
    if (this.#wanted.has('hits') || this.#wanted.has('pulse')) this.#hits.push(samples);
    if (this.#wanted.has('pulse')) this.#pulse.push(samples, high);
  }

  /** Call once, when all sound has been pushed. */
  finish(): HeardLowered {
    const levels = this.#hits.levels();
    const hits = this.#wanted.has('hits') ? findHits(levels) : [];
    return {
      speech: this.#speech.evidence(),
      pulse: this.#pulse.evidence(),
      hits,
      hitShare: shareInHits(levels, hits),
    };
  }
}
