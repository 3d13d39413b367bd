/**
 * Listening in two threads.
 *
 * The other thread is begun by whoever listens (browser and Node do it differently); it serves
 * {@link listenApart}, and this side reaches that through promises.
 */
import {
  Listener,
  LoweredListener,
  type Analysis,
  type Heard,
  type HeardLowered,
} from './listening.ts';
import type { PeakBuilder } from './peaks.ts';

/** What is listened for apart: it takes about as long as all else. */
const APART: readonly Analysis[] = ['pulse', 'hits'];

/** What the other thread serves, one sound at a time. */
export function listenApart() {
  let listener: LoweredListener | undefined;
  return {
    /** @param rate  of the sound that will come, in samples a second, about 16 kHz */
    begin(rate: number): void {
      listener = new LoweredListener(rate, APART);
    },
    push(samples: Float32Array): void {
      listener?.push(samples);
    },
    finish: (): HeardLowered | undefined => listener?.finish(),
  };
}
export type ListenApart = ReturnType<typeof listenApart>;

/** The other thread as it is reached from here. */
export type Reached<T> = {
  readonly [Name in keyof T]: T[Name] extends (...given: infer Given) => infer Answer
    ? (...given: Given) => PromiseLike<Answer>
    : never;
};

/** Samples that are sent at once, two seconds, and how many such blocks may lie unheard. */
const BLOCK = 32_000;
const AHEAD = 8;

/** As {@link Listener}, with pulse and hits listened for apart. */
export class ListenerWithApart {
  readonly #listener: Listener;
  readonly #apart: Reached<ListenApart>;
  #block = new Float32Array(BLOCK);
  #filled = 0;
  /** The answers that are waited for, oldest first. */
  readonly #unheard: PromiseLike<void>[];

  /**
   * @param sampleRate  of the sound, in samples a second
   * @param wanted      what to listen for besides what is listened for apart
   */
  constructor(sampleRate: number, wanted: readonly Analysis[], apart: Reached<ListenApart>) {
    this.#listener = new Listener(
      sampleRate,
      wanted.filter((analysis) => !APART.includes(analysis)),
      (lowered) => this.#send(lowered),
    );
    this.#apart = apart;
    this.#unheard = [apart.begin(this.#listener.loweredRate)];
  }

  get peaks(): PeakBuilder {
    return this.#listener.peaks;
  }

  /**
   * Resolves when more is wanted: the other thread never lags far behind.
   *
   * @param channels  one array a channel, all of one length, full scale ±1
   */
  async push(channels: readonly Float32Array[]): Promise<void> {
    this.#listener.push(channels);
    while (this.#unheard.length > AHEAD) await this.#unheard.shift();
  }

  /** Call once, when all sound has been pushed. */
  async finish(): Promise<Heard> {
    this.#unheard.push(this.#apart.push(this.#block.slice(0, this.#filled)));
    const there = Promise.all(this.#unheard).then(() => this.#apart.finish());
    const heard = this.#listener.finish();
    const { pulse, hits, hitShare } = (await there) ?? heard;
    return { ...heard, pulse, hits, hitShare };
  }

  #send(lowered: Float32Array): void {
    for (let at = 0; at < lowered.length;) {
      const part = lowered.subarray(at, at + BLOCK - this.#filled);
      this.#block.set(part, this.#filled);
      this.#filled += part.length;
      at += part.length;
      if (this.#filled < BLOCK) return;
      this.#unheard.push(this.#apart.push(this.#block));
      [this.#block, this.#filled] = [new Float32Array(BLOCK), 0];
    }
  }
}
