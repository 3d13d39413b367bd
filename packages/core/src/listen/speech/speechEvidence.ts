/**
 * What speech is found from: a network's activation in every 10 ms.
 *
 * The network hears the levels of the speech bands over two and a half seconds. It was taught on made-up
 * speech between pauses, over room tone, hiss, hum, traffic and music (`training/README.md`).
 */
import { StepJudge } from '../signal/steps.ts';
import { VoiceInputs } from './voiceSteps.ts';
import { VOICE_WEIGHTS } from './voiceWeights.ts';

/** What finding pieces needs of a recording: a byte for every 10 ms. */
export interface SpeechEvidence {
  /** The activation that this is speech, 0 to 255, one a frame. */
  readonly voice: Uint8Array;
  /** Time of the middle of frame 0, in seconds. */
  readonly firstMiddle: number;
}

/** Collects evidence of speech while sound is pushed through it. */
export class SpeechListener {
  readonly #inputs: VoiceInputs;
  readonly #judge = new StepJudge(VOICE_WEIGHTS);

  /** @param rate  of the sound, in samples a second, about 16 kHz */
  constructor(rate: number) {
    this.#inputs = new VoiceInputs(rate);
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    this.#inputs.push(samples, (fill) => this.#judge.put(fill));
  }

  /** Call once, when all sound has been pushed. */
  evidence(): SpeechEvidence {
    return { voice: this.#judge.end(), firstMiddle: this.#inputs.firstMiddle };
  }
}
