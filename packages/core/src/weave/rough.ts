/**
 * The first, cheap look: every third frame, phones alone, one state each. It tells roughly where each word lies, and
 * what the sound is like where nothing is asked of it.
 */
import { STATES, WIDTH } from './acousticModel.ts';
import { bestPath, type Path } from './bestPath.ts';
import { latticeOf, type Token } from './lattice.ts';
import type { Likelihoods } from './likelihoods.ts';
import { observe } from './observations.ts';
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

/** Looks at so many frames from one on. Calls `told` now and then with how far it has come, from 0 to 1. */
export function roughScores(
  likelihoods: Likelihoods,
  frames: Float32Array,
  meanAt: (frame: number) => Float32Array,
  told: (share: number) => void,
): RoughScores {
  const { model } = likelihoods;
  const phones = model.phones.length;
  const count = Math.ceil(frames.length / WIDTH / STRIDE);
  const scores = new Float32Array(count * phones);
  const free = new Float32Array(count);
  const all = Int32Array.from(model.own);
  const speech = model.phones.map(
    (name, phone) => phone !== model.silence && !name.startsWith('+'),
  );
  const AT_ONCE = 400;
  for (let from = 0; from < count; from += AT_ONCE) {
    const some = Math.min(AT_ONCE, count - from);
    likelihoods.load(observe(frames, meanAt(from * STRIDE), from * STRIDE, some, STRIDE));
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
