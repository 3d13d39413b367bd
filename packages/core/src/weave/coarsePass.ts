/**
 * The coarse pass: every third frame, phones alone, one state each. It tells about where each word lies, and
 * what the sound is like where nothing is asked of it.
 */
import { STATES, WIDTH } from './acousticModel.ts';
import { bestPath, type Path } from './bestPath.ts';
import { latticeOf, type Token } from './lattice.ts';
import type { Likelihoods } from './likelihoods.ts';
import { observe } from './observations.ts';
import { sharedFloats } from './shared.ts';
import { COARSE_COSTS, STRIDE, withinBeam } from './settings.ts';
import { TRUST, type HeardSong } from './song.ts';
import { stepOf } from './songBands.ts';

/** How likely each phone is at each coarse frame, and how likely any is. */
export interface CoarseScores {
  readonly count: number;
  readonly phones: number;
  /** By coarse frame and phone: of the state that fits best. */
  readonly scores: Float32Array;
  /** By coarse frame: of the best phone of speech. */
  readonly free: Float32Array;
}

/** The noises of a model: its phones that are neither speech nor silence. */
export const noisesOf = (phones: readonly string[]): number[] =>
  phones.flatMap((name, phone) => (name.startsWith('+') ? [phone] : []));

/** Coarse frames that have one mean. */
export const AT_ONCE = 400;

/** How many coarse frames there are in some frames. */
export const coarseFramesIn = (frames: Float32Array): number =>
  Math.ceil(frames.length / WIDTH / STRIDE);

/**
 * The coarse pass over a sound, or over some of it. Calls `onProgress` now and then with the progress, from 0 to 1.
 *
 * @param range  the first, and the one after the last
 */
export function coarseScores(
  likelihoods: Likelihoods,
  { frames, song }: { readonly frames: Float32Array; readonly song?: HeardSong | undefined },
  meanAt: (frame: number) => Float32Array,
  onProgress: (share: number) => void,
  range: { readonly from: number; readonly to: number } = { from: 0, to: coarseFramesIn(frames) },
): CoarseScores {
  const { model } = likelihoods;
  const phones = model.phones.length;
  const count = range.to - range.from;
  const scores = sharedFloats(count * phones);
  const free = sharedFloats(count);
  const all = Int32Array.from(model.own);
  const speech = model.phones.map(
    (name, phone) => phone !== model.silence && !name.startsWith('+'),
  );
  for (let from = 0; from < count; from += AT_ONCE) {
    const some = Math.min(AT_ONCE, count - from);
    const first = (range.from + from) * STRIDE;
    likelihoods.load(observe(frames, meanAt(first), first, some, STRIDE));
    for (let at = 0; at < some; at++) {
      const judged = likelihoods.of(at, all, all.length);
      let best = -Infinity;
      for (let phone = 0; phone < phones; phone++) {
        let own = -Infinity;
        for (let state = 0; state < STATES; state++)
          own = Math.max(own, judged[phone * STATES + state] as number);
        const heard = song?.likelier[stepOf(first + at * STRIDE) * phones + phone] ?? 0;
        const news = song?.news[stepOf(first + at * STRIDE)] ?? 1;
        scores[(from + at) * phones + phone] = (song ? TRUST.coarse : 1) * news * own + heard;
        const fine = (song ? TRUST.fine : 1) * news * own + heard;
        if (speech[phone] && fine > best) best = fine;
      }
      free[from + at] = best;
    }
    onProgress((from + some) / count);
  }
  return { count, phones, scores, free };
}

/** The scores of coarse frames that follow each other. */
export function joinedScores(before: CoarseScores, after: CoarseScores): CoarseScores {
  const join = (a: Float32Array, b: Float32Array) => {
    const all = sharedFloats(a.length + b.length);
    all.set(a);
    all.set(b, a.length);
    return all;
  };
  return {
    count: before.count + after.count,
    phones: before.phones,
    scores: join(before.scores, after.scores),
    free: join(before.free, after.free),
  };
}

/** Which token, or none, each coarse frame belongs to. */
export function coarsePath(
  likelihoods: Likelihoods,
  coarse: CoarseScores,
  tokens: readonly Token[],
  from: number,
  to: number,
): { path: Path; tokenOf: Int32Array } | undefined {
  const { model } = likelihoods;
  const lattice = latticeOf(model, tokens, {
    coarse: true,
    costs: COARSE_COSTS,
    noises: noisesOf(model.phones),
  });
  const { phones, scores, free } = coarse;
  const found = new Float32Array(lattice.senones.length);
  const path = withinBeam((beam) =>
    bestPath(
      lattice,
      {
        count: to - from,
        scores: (frame, senones, count) => {
          for (let at = 0; at < count; at++)
            found[at] = scores[
              (from + frame) * phones + (model.baseOf[senones[at] as number] as number)
            ] as number;
          return found;
        },
        filler: (frame) => (free[from + frame] as number) - COARSE_COSTS.worse,
        soundFrame: (frame) => (from + frame) * STRIDE,
      },
      beam,
    ),
  );
  return (
    path && {
      path,
      tokenOf: Int32Array.from(path.states, (state) => lattice.token[state] as number),
    }
  );
}
