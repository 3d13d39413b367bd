/**
 * The first, cheap look: every third frame, phones alone, one state each. It tells roughly where each word lies, and
 * what the sound is like where nothing is asked of it.
 */
import { STATES, WIDTH } from './acousticModel.ts';
import { bestPath, type Path } from './bestPath.ts';
import { latticeOf, type Token } from './lattice.ts';
import type { Likelihoods } from './likelihoods.ts';
import { observe } from './observations.ts';
import { sharedFloats } from './shared.ts';
import { ROUGH_COSTS, withinBeam } from './settings.ts';

/** Frames from one look to the next. */
export const STRIDE = 3;

/** How likely each phone is at each look, and how likely any is. */
export interface RoughScores {
  readonly count: number;
  readonly phones: number;
  /** By look and phone: of the state that fits best. */
  readonly scores: Float32Array;
  /** By look: of the best phone of speech. */
  readonly free: Float32Array;
}

/** The noises of a model: its phones that are neither speech nor silence. */
export const noisesOf = (phones: readonly string[]): number[] =>
  phones.flatMap((name, phone) => (name.startsWith('+') ? [phone] : []));

/** Looks that have one mean. */
export const AT_ONCE = 400;

/** How many looks there are at some frames. */
export const looksIn = (frames: Float32Array): number => Math.ceil(frames.length / WIDTH / STRIDE);

/**
 * Looks at a sound, or at some of it. Calls `told` now and then with how far it has come, from 0 to 1.
 *
 * @param looks  the first, and the one after the last
 */
export function roughScores(
  likelihoods: Likelihoods,
  frames: Float32Array,
  meanAt: (frame: number) => Float32Array,
  told: (share: number) => void,
  looks: { readonly from: number; readonly to: number } = { from: 0, to: looksIn(frames) },
): RoughScores {
  const { model } = likelihoods;
  const phones = model.phones.length;
  const count = looks.to - looks.from;
  const scores = sharedFloats(count * phones);
  const free = sharedFloats(count);
  const all = Int32Array.from(model.own);
  const speech = model.phones.map(
    (name, phone) => phone !== model.silence && !name.startsWith('+'),
  );
  for (let from = 0; from < count; from += AT_ONCE) {
    const some = Math.min(AT_ONCE, count - from);
    const first = (looks.from + from) * STRIDE;
    likelihoods.load(observe(frames, meanAt(first), first, some, STRIDE));
    for (let at = 0; at < some; at++) {
      const judged = likelihoods.of(at, all, all.length);
      let best = -Infinity;
      for (let phone = 0; phone < phones; phone++) {
        let own = -Infinity;
        for (let state = 0; state < STATES; state++)
          own = Math.max(own, judged[phone * STATES + state] as number);
        scores[(from + at) * phones + phone] = own;
        if (speech[phone] && own > best) best = own;
      }
      free[from + at] = best;
    }
    told((from + some) / count);
  }
  return { count, phones, scores, free };
}

/** The scores of looks that follow each other. */
export function joinedScores(before: RoughScores, after: RoughScores): RoughScores {
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

/** Which token, or none, each look belongs to. */
export function roughPath(
  likelihoods: Likelihoods,
  rough: RoughScores,
  tokens: readonly Token[],
  from: number,
  to: number,
): { path: Path; tokenOf: Int32Array } | undefined {
  const { model } = likelihoods;
  const lattice = latticeOf(model, tokens, {
    rough: true,
    costs: ROUGH_COSTS,
    noises: noisesOf(model.phones),
  });
  const { phones, scores, free } = rough;
  const found = new Float32Array(lattice.senones.length);
  const path = withinBeam((beam) =>
    bestPath(
      lattice,
      {
        count: to - from,
        scores: (look, senones, count) => {
          for (let at = 0; at < count; at++)
            found[at] = scores[
              (from + look) * phones + (model.baseOf[senones[at] as number] as number)
            ] as number;
          return found;
        },
        filler: (look) => (free[from + look] as number) - ROUGH_COSTS.worse,
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
