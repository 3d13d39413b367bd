/**
 * A helper thread for weaving: it takes half of the coarse pass over the sound, and every second stretch.
 *
 * It is started by whoever weaves (browser and Node do it differently), serves {@link weaveHelper}, and is reached
 * through promises.
 */
import { gunzipSync } from 'fflate';
import { acousticModelOf } from './acousticModel.ts';
import { Aligner } from './aligner.ts';
import type { Stretch, Voice } from './fine.ts';
import type { Token } from './lattice.ts';
import { meansOf } from './means.ts';
import type { Places } from './placed.ts';
import { AT_ONCE, coarseFramesIn, coarseScores, type CoarseScores } from './coarsePass.ts';

/** A voice before anything was looked for in it. */
export type PlainVoice = Pick<Voice, 'frames' | 'firstMiddle' | 'loudness' | 'song'>;

/** Stretches that are to be aligned. */
export interface PlaceOrder {
  readonly tokens: readonly Token[];
  readonly stretches: readonly Stretch[];
  readonly means: Float32Array | undefined;
}

/** The frame of the coarse pass from which on the helper takes it: both take whole blocks, as one thread does. */
export const halfOf = (frames: Float32Array): number =>
  Math.min(coarseFramesIn(frames), Math.ceil(coarseFramesIn(frames) / 2 / AT_ONCE) * AT_ONCE);

/** What the helper serves, one sound at a time. */
export function weaveHelper() {
  let aligner: Aligner | undefined;
  let voice: Omit<Voice, 'coarse'> | undefined;
  let coarse: CoarseScores | undefined;
  return {
    /** @param model  the packed model, as it lies in `acoustic/` */
    open(model: Uint8Array): void {
      aligner ??= new Aligner(acousticModelOf(gunzipSync(model)));
    },
    /** The scores of the second half. */
    hear(plain: PlainVoice): CoarseScores | undefined {
      if (!aligner) return undefined;
      voice = { ...plain, meanAt: meansOf(plain.frames) };
      const half = { from: halfOf(plain.frames), to: coarseFramesIn(plain.frames) };
      return coarseScores(aligner.plain, plain, voice.meanAt, () => undefined, half);
    },
    /** Takes the scores of the whole. */
    heard(whole: CoarseScores): void {
      coarse = whole;
    },
    /** Where the words of each stretch lie. */
    place({ tokens, stretches, means }: PlaceOrder): Places[] {
      if (!aligner || !voice || !coarse) return [];
      aligner.adapt(means);
      const known = { ...voice, coarse };
      return stretches.map((stretch) => (aligner as Aligner).places(known, tokens, stretch));
    },
  };
}
export type WeaveHelper = ReturnType<typeof weaveHelper>;
