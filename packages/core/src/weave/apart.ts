/**
 * Weaving in two threads: the other one takes half of the looks at the sound, and every second stretch.
 *
 * It is begun by whoever weaves (browser and Node do it differently), serves {@link weaveApart}, and is reached through
 * promises.
 */
import { gunzipSync } from 'fflate';
import { acousticModelOf } from './acousticModel.ts';
import { Aligner } from './aligner.ts';
import type { Stretch, Voice } from './fine.ts';
import type { Token } from './lattice.ts';
import { meansOf } from './means.ts';
import type { Places } from './placed.ts';
import { AT_ONCE, looksIn, roughScores, type RoughScores } from './rough.ts';

/** A voice before anything was looked for in it. */
export type PlainVoice = Pick<Voice, 'frames' | 'firstMiddle' | 'loudness'>;

/** Stretches that are to be aligned. */
export interface PlaceOrder {
  readonly tokens: readonly Token[];
  readonly stretches: readonly Stretch[];
  readonly means: Float32Array | undefined;
}

/** The look from which on the other thread looks: both take whole blocks, as one thread does. */
export const halfOf = (frames: Float32Array): number =>
  Math.min(looksIn(frames), Math.ceil(looksIn(frames) / 2 / AT_ONCE) * AT_ONCE);

/** What the other thread serves, one sound at a time. */
export function weaveApart() {
  let aligner: Aligner | undefined;
  let voice: Omit<Voice, 'rough'> | undefined;
  let rough: RoughScores | undefined;
  return {
    /** @param model  the packed model, as it lies in `acoustic/` */
    open(model: Uint8Array): void {
      aligner ??= new Aligner(acousticModelOf(gunzipSync(model)));
    },
    /** The scores of the second half. */
    hear(plain: PlainVoice): RoughScores | undefined {
      if (!aligner) return undefined;
      voice = { ...plain, meanAt: meansOf(plain.frames) };
      return roughScores(aligner.plain, plain.frames, voice.meanAt, () => undefined, {
        from: halfOf(plain.frames),
        to: looksIn(plain.frames),
      });
    },
    /** Takes the scores of the whole. */
    heard(whole: RoughScores): void {
      rough = whole;
    },
    /** Where the words of each stretch lie. */
    place({ tokens, stretches, means }: PlaceOrder): Places[] {
      if (!aligner || !voice || !rough) return [];
      aligner.adapt(means);
      const known = { ...voice, rough };
      return stretches.map((stretch) => (aligner as Aligner).places(known, tokens, stretch));
    },
  };
}
export type WeaveApart = ReturnType<typeof weaveApart>;
