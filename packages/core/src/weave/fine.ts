/** The true alignment of a stretch: every frame, three states a phone in the company of its neighbours. */
import { WIDTH } from './acousticModel.ts';
import { bestPath } from './bestPath.ts';
import { latticeOf, type LatticeOptions, type Token } from './lattice.ts';
import type { Likelihoods } from './likelihoods.ts';
import { observe, VECTOR } from './observations.ts';
import { noisesOf, type CoarseScores } from './coarsePass.ts';
import { FINE_COSTS, STRIDE, withinBeam } from './settings.ts';
import { TRUST, type HeardSong } from './song.ts';
import { stepOf } from './songBands.ts';

/** What was heard of a voice, ready to be aligned. */
export interface Voice {
  /** Cepstra, {@link WIDTH} numbers a frame. */
  readonly frames: Float32Array;
  readonly meanAt: (frame: number) => Float32Array;
  /** Time of the middle of frame 0, in seconds; each next one is 10 ms later. */
  readonly firstMiddle: number;
  readonly coarse: CoarseScores;
  /** As in the bands. */
  readonly loudness: Float32Array;
  /** What the network heard that hears singing through music. */
  readonly song?: HeardSong | undefined;
}

/** The log-likelihoods of states at a frame, and what a network adds to them. The array is reused. */
function scoresOf(
  likelihoods: Likelihoods,
  { song }: Voice,
  from: number,
): (frame: number, senones: Int32Array, count: number) => Float32Array {
  const { baseOf, phones } = likelihoods.model;
  return (frame, senones, count) => {
    const scores = likelihoods.of(frame, senones, count);
    if (!song) return scores;
    const row = stepOf(from + frame) * phones.length;
    const trust = TRUST.fine * (song.news[stepOf(from + frame)] ?? 1);
    for (let at = 0; at < count; at++) {
      const phone = baseOf[senones[at] as number] as number;
      scores[at] = trust * (scores[at] as number) + (song.likelier[row + phone] ?? 0);
    }
    return scores;
  };
}

/** Some tokens and the frames they lie in. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly first: number;
  readonly last: number;
  readonly tight?: LatticeOptions['tight'];
}

/** What each frame of a stretch is. */
export interface Aligned {
  /** The token, counted from the first of the stretch, or below 0. */
  readonly tokenOf: Int32Array;
  readonly phoneOf: Uint8Array;
  /** The state, or below 0 where it is none of the model's. */
  readonly senoneOf: Int32Array;
  readonly vectors: Float32Array;
}

/** The best sound of speech at a frame, as the coarse pass heard it. */
export function freeAt({ coarse }: Voice, frame: number): number {
  const at = frame / STRIDE;
  const whole = Math.max(0, Math.min(coarse.count - 1, Math.floor(at)));
  const next = Math.min(coarse.count - 1, whole + 1);
  const share = at - whole;
  return (1 - share) * (coarse.free[whole] as number) + share * (coarse.free[next] as number);
}

/**
 * @param likelihoods  of the model as it knows this voice
 * @param tokens       those of the stretch
 */
export function align(
  likelihoods: Likelihoods,
  voice: Voice,
  tokens: readonly Token[],
  { from, to, tight }: Stretch,
): Aligned {
  const { model } = likelihoods;
  const count = to - from;
  const vectors = new Float32Array(count * VECTOR);
  // The mean changes slowly: looked up once a second.
  for (let at = 0; at < count; at += 100)
    vectors.set(
      observe(voice.frames, voice.meanAt(from + at), from + at, Math.min(100, count - at)),
      at * VECTOR,
    );
  likelihoods.load(vectors);
  const lattice = latticeOf(model, tokens, {
    coarse: false,
    costs: FINE_COSTS,
    noises: noisesOf(model.phones),
    ...(tight && { tight }),
  });
  const scores = scoresOf(likelihoods, voice, from);
  const path = withinBeam((beam) =>
    bestPath(
      lattice,
      {
        count,
        scores,
        filler: (frame) => freeAt(voice, from + frame) - FINE_COSTS.worse,
        soundFrame: (frame) => from + frame,
      },
      beam,
    ),
  );
  const states = path?.states ?? new Int32Array(count).fill(-1);
  const of = (values: ArrayLike<number>) => (state: number) =>
    state < 0 ? -1 : (values[state] as number);
  const emits = of(lattice.emits);
  const senoneOf = Int32Array.from(states, (state) => {
    const emitted = emits(state);
    return emitted < 0 ? emitted : (lattice.senones[emitted] as number);
  });
  return {
    tokenOf: Int32Array.from(states, of(lattice.token)),
    phoneOf: Uint8Array.from(states, of(lattice.phone)),
    senoneOf,
    vectors,
  };
}

/**
 * Of each frame of a stretch, how much less likely its state is than the best sound of speech there is.
 *
 * @param likelihoods  of the model as it came: to one that learnt this voice from a wrong script, that script fits
 */
export function shortfall(
  likelihoods: Likelihoods,
  voice: Voice,
  from: number,
  { senoneOf, vectors }: Aligned,
): Float32Array {
  likelihoods.load(vectors);
  const scores = scoresOf(likelihoods, voice, from);
  const one = new Int32Array(1);
  return Float32Array.from(senoneOf, (senone, frame) => {
    if (senone < 0) return 0;
    one[0] = senone;
    return freeAt(voice, from + frame) - (scores(frame, one, 1)[0] as number);
  });
}

/** The same by what the network heard: how much less likely the phone of each frame is than the likeliest there. */
export function shortHeard(
  { song }: Voice,
  from: number,
  phoneOf: Uint8Array,
  phones: number,
): Float32Array {
  const short = new Float32Array(phoneOf.length);
  if (!song) return short;
  phoneOf.forEach((phone, frame) => {
    const row = stepOf(from + frame) * phones;
    let best = -Infinity;
    for (let at = row; at < row + phones; at++) best = Math.max(best, song.likelier[at] ?? 0);
    short[frame] = best - (song.likelier[row + phone] ?? 0);
  });
  return short;
}

export const framesIn = (frames: Float32Array): number => frames.length / WIDTH;
