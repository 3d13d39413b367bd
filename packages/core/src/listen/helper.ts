/**
 * A helper thread for listening.
 *
 * It is started by whoever listens (browser and Node do it differently), serves {@link listenHelper}, and is reached
 * through promises.
 */
import { LoweredListener, type Analysis, type HeardLowered } from './loweredListener.ts';

/** What the helper listens for: it takes about as long as all else. */
export const HELPED: readonly Analysis[] = ['pulse', 'hits'];

/** What the helper serves, one sound at a time. */
export function listenHelper() {
  let listener: LoweredListener | undefined;
  return {
    /** @param rate  of the sound that will come, in samples a second, about 16 kHz */
    begin(rate: number, wanted: readonly Analysis[]): void {
      listener = new LoweredListener(rate, wanted);
    },
    /** @param high  what `HighLevels` makes of the same stretch */
    push(samples: Float32Array, high: Uint8Array): void {
      listener?.push(samples, high);
    },
    finish: (): HeardLowered | undefined => listener?.finish(),
  };
}
export type ListenHelper = ReturnType<typeof listenHelper>;

/** What a thread serves, as it is called from another one. */
export type Remote<T> = {
  readonly [Name in keyof T]: T[Name] extends (...given: infer Given) => infer Answer
    ? (...given: Given) => PromiseLike<Answer>
    : never;
};
