/** Weaving on Node: texts onto the sound of a file. */
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { Remote } from '@cadence/core/listen/helper.ts';
import { findPieces } from '@cadence/core/listen/speech/speech.ts';
import { SpeechListener } from '@cadence/core/listen/speech/speechEvidence.ts';
import type { Range } from '@cadence/core/time/range.ts';
import { openWeaver, weavingFiles } from '@cadence/core/weave/openWeaver.ts';
import type { WeaveHelper } from '@cadence/core/weave/helper.ts';
import { VoiceListener } from '@cadence/core/weave/voiceListener.ts';
import type { Pin, Repeat, Tap, Woven } from '@cadence/core/weave/woven.ts';
import { LONG, withHelper } from './helperThread.ts';
import { openSound } from './sound.ts';

/** The length from which the memory of a helper costs more than the time it saves, in seconds. */
const VERY_LONG = 2400;

const acoustic = (name: string): Promise<Uint8Array> =>
  readFile(fileURLToPath(import.meta.resolve(`@cadence/core/acoustic/${name}`)));

/** A text to be woven; times are those of the sound. */
export interface WeaveOrder {
  readonly words: readonly string[];
  readonly pins?: readonly Pin[];
  readonly taps?: readonly Tap[];
  readonly within?: Range;
  /** The words that begin a line or a sentence. */
  readonly lines?: readonly number[];
}

export interface WovenSound {
  /** The words of each order. */
  readonly woven: readonly (readonly Woven[])[];
  /** Of each order that knows its lines, those that are heard again where nothing is written. */
  readonly repeats: readonly (readonly Repeat[])[];
  readonly pieces: readonly Range[];
}

/**
 * When each word of some texts is said, and the pieces of speech in the sound; with a helper thread where it is long.
 *
 * @param path      of the sound, or of a film
 * @param language  BCP 47, such as "en-GB" or "it"
 * @throws PinsCross; Unusable as {@link openSound}
 */
export async function weaveSound(
  path: string,
  language: string,
  orders: readonly WeaveOrder[],
): Promise<WovenSound> {
  const sound = await openSound(path);
  const voice = new VoiceListener(sound.sampleRate);
  const speech = new SpeechListener(voice.loweredRate);
  for await (const channels of sound.chunks()) speech.push(voice.push(channels));
  const files = await weavingFiles(acoustic);
  const weaver = openWeaver(files, language);
  const pieces = findPieces(speech.evidence());
  const weave = async (helper?: Remote<WeaveHelper>) => {
    await helper?.open(files.model);
    await weaver.hear(voice.finish(), { helper });
    const woven: Woven[][] = [];
    const repeats: Repeat[][] = [];
    for (const { words, ...order } of orders) {
      const shared = sound.duration < VERY_LONG ? helper : undefined;
      const found = await weaver.weave(words, { ...order, helper: shared });
      woven.push(found);
      repeats.push(weaver.repeats(words, found, order));
    }
    return { woven, repeats };
  };
  const found = await (sound.duration < LONG ? weave() : withHelper('weave', weave));
  return { ...found, pieces };
}
