/**
 * What was heard in a sound, in one pass: outline, evidence of speech and of the pulse, hits and level.
 *
 * The sample rate is lowered once for all that listens to pitch and voice; each chunk goes to every
 * listener and is forgotten.
 */
import { Decimator } from './signal/decimate.ts';
import { HELPED, type ListenHelper, type Remote } from './helper.ts';
import { GrowingBytes } from './signal/growing.ts';
import { HighLevels } from './signal/highLevels.ts';
import { LoudnessMeter, type Level } from './signal/loudness.ts';
import { ANALYSES, LoweredListener, type Analysis, type HeardLowered } from './loweredListener.ts';
import { mix } from './signal/mix.ts';
import { PeakBuilder, type Peaks } from './signal/peaks.ts';

export interface Heard extends HeardLowered {
  readonly peaks: Peaks;
  readonly level: Level;
}

/**
 * Samples of which each is a number: one that is not, as damaged files of floating-point sound have,
 * would spoil all that comes after it.
 */
function undamaged(samples: Float32Array): Float32Array {
  let sum = 0;
  for (let at = 0; at < samples.length; at++) sum += 0 * (samples[at] as number);
  return sum === 0 ? samples : samples.map((sample) => (Number.isFinite(sample) ? sample : 0));
}

/** Listens for everything at once while sound is pushed through it; with a helper thread, half of it there. */
export class Listener {
  readonly peaks: PeakBuilder;
  readonly #decimator: Decimator;
  readonly #lowered: LoweredListener;
  readonly #high: HighLevels;
  readonly #level: LoudnessMeter;
  readonly #helped: Helped | undefined;

  /**
   * @param sampleRate  of the sound, in samples a second
   * @param wanted      what to listen for; the evidence of all else stays empty
   * @param helper      a thread that takes its part
   */
  constructor(
    sampleRate: number,
    wanted: readonly Analysis[] = ANALYSES,
    helper?: Remote<ListenHelper>,
  ) {
    this.peaks = new PeakBuilder(sampleRate);
    this.#decimator = new Decimator(sampleRate);
    this.#high = new HighLevels(sampleRate);
    this.#level = new LoudnessMeter(sampleRate);
    const { rate } = this.#decimator;
    const there = helper ? wanted.filter((analysis) => HELPED.includes(analysis)) : [];
    const here = wanted.filter((analysis) => !there.includes(analysis));
    this.#lowered = new LoweredListener(rate, here);
    this.#helped = helper && there.length > 0 ? new Helped(helper, rate, there) : undefined;
  }

  /**
   * Resolves when more is wanted: a helper never lags far behind.
   *
   * @param given  one array a channel, all of one length, full scale ±1
   */
  async push(given: readonly Float32Array[]): Promise<void> {
    const channels = given.map(undamaged);
    const mono = mix(channels);
    this.peaks.push(mono);
    this.#level.push(channels);
    const lowered = this.#decimator.push(mono);
    const high = this.#high.push(mono);
    this.#lowered.push(lowered, high);
    await this.#helped?.push(lowered, high);
  }

  /** Call once, when all sound has been pushed. */
  async finish(): Promise<Heard> {
    const there = this.#helped?.finish();
    const heard = {
      peaks: this.peaks.finish(),
      ...this.#lowered.finish(),
      level: this.#level.level(),
    };
    const { pulse, hits, hitShare } = (await there) ?? heard;
    return { ...heard, pulse, hits, hitShare };
  }
}

/** Samples that are sent at once, two seconds, and how many such blocks may lie unheard. */
const BLOCK = 32_000;
const AHEAD = 8;

/** What goes to a helper, and waits for it. */
class Helped {
  readonly #helper: Remote<ListenHelper>;
  #block = new Float32Array(BLOCK);
  #filled = 0;
  #high = new GrowingBytes();
  /** The answers that are waited for, oldest first. */
  readonly #unheard: PromiseLike<void>[];

  constructor(helper: Remote<ListenHelper>, rate: number, wanted: readonly Analysis[]) {
    this.#helper = helper;
    this.#unheard = [helper.begin(rate, wanted)];
  }

  async push(lowered: Float32Array, high: Uint8Array): Promise<void> {
    for (const level of high) this.#high.push(level);
    for (let at = 0; at < lowered.length;) {
      const part = lowered.subarray(at, at + BLOCK - this.#filled);
      this.#block.set(part, this.#filled);
      this.#filled += part.length;
      at += part.length;
      if (this.#filled < BLOCK) break;
      this.#unheard.push(this.#helper.push(this.#block, this.#highSoFar()));
      [this.#block, this.#filled] = [new Float32Array(BLOCK), 0];
    }
    while (this.#unheard.length > AHEAD) await this.#unheard.shift();
  }

  #highSoFar(): Uint8Array {
    const high = this.#high.all();
    this.#high = new GrowingBytes();
    return high;
  }

  finish(): Promise<HeardLowered | undefined> {
    this.#unheard.push(this.#helper.push(this.#block.slice(0, this.#filled), this.#highSoFar()));
    return Promise.all(this.#unheard).then(() => this.#helper.finish());
  }
}
