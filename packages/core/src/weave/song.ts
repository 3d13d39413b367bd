/**
 * Singing heard through music: what share the voice has in each band, and which sound of speech is sung, by a network that
 * was taught on made-up songs (`training/README.md`).
 */
import { strFromU8 } from 'fflate';
import { logistic, Network, type Weights } from '../listen/signal/network.ts';
import type { AcousticModel } from './acousticModel.ts';
import { FILTERS, type Bands } from './cepstra.ts';
import { sharedFloats } from './shared.ts';
import { FRAMES_A_STEP, SONG_BANDS, songInputs, stepOf, type SongLevels } from './songBands.ts';
import { VOWELS } from './vowels.ts';

/** What was learned. */
export interface SongWeights extends Weights {
  /** The sounds of speech in the order of the outputs; after them comes none. */
  readonly phones: readonly string[];
  /** Of each sound and of none, the logarithm of how often it is sung at all. */
  readonly priors: readonly number[];
}

/** @param unpacked  the file as `training/song.py` wrote it, unpacked */
export const songWeightsOf = (unpacked: Uint8Array): SongWeights =>
  JSON.parse(strFromU8(unpacked)) as SongWeights;

/** No sound is less likely, as a logarithm. */
const LEAST = -8;
/** How much of how often a sound is sung at all is taken off it. If all were, rare sounds would be heard everywhere. */
const PRIOR = 0.3;
/** No band of the acoustic model is lowered to less than this share. */
const LEAST_SHARE = 0.15;

/** From how many steps of vowels on one is held, and after how many more it tells half as much. */
const HELD = 8;
/** How much less likely than the likeliest another vowel is where one begins to be held; less and less after. */
const OTHER_VOWEL = 0.5;

/** How much the acoustic model, which was taught on speech, says beside the network of singing, in each pass. */
export const TRUST = { coarse: 0.1, fine: 0.3 };
/** From what share of held vowels on somebody sings: who speaks holds next to none. */
const SINGING = 0.1;
/**
 * Who speaks is heard through music where the voice has less than this share of the bands, and where bands change by more
 * than this within a tenth of a second while nobody speaks. The noise of a room is steadier.
 */
const THROUGH = { share: 0.6, change: 0.44 };
/** A tenth of a second, in steps, and in how many of them nobody has to speak for music to be told from noise. */
const TENTH = 5;
const ENOUGH = 50;
/** It is sure that nobody speaks in a step where this is less likely. */
const UNSUNG = 0.2;

/** What the network heard of a sound. */
export interface HeardSong {
  /** By step and phone of the model, the logarithm of how much likelier it is than it is at all. */
  readonly likelier: Float32Array;
  /** By step, how likely it is that somebody speaks or sings. */
  readonly sung: Float32Array;
  /** By step, how much of what is heard is new: less and less while a vowel is held. */
  readonly news: Float32Array;
}

/** Whether somebody most likely speaks or sings at a frame. */
export const singsAt = ({ sung }: HeardSong, frame: number): boolean =>
  (sung[stepOf(frame)] ?? 0) > 0.5;

/** Steps that the network takes at once. */
const BLOCK = 500;
/** Of a longer sound, so many stretches of so many steps tell whether it is a song: half a minute each. */
const PROBES = 8;
const PROBE = 1500;

/** What the network says of a step. */
interface Opinion {
  /** The sums of the sounds and of none, and the logarithm of what all of them come to. */
  readonly own: Float32Array;
  readonly whole: number;
  /** How likely it is that somebody speaks or sings. */
  readonly sung: number;
  /** How much of what is heard is new. */
  readonly news: number;
  /** The sums of the shares of the voice. */
  readonly shares: Float32Array;
}

/** Follows what the network says, step by step. */
class Follower {
  readonly #sounds: number;
  readonly #isVowel: readonly boolean[];
  /** Steps in which vowels were sung without a break. */
  #run = 0;

  constructor({ phones }: SongWeights) {
    this.#sounds = phones.length;
    this.#isVowel = phones.map((name) => VOWELS.has(name));
  }

  next(sums: Float32Array): Opinion {
    const own = sums.subarray(0, this.#sounds + 1);
    const most = own.reduce((best, sum) => Math.max(best, sum), -Infinity);
    const whole = most + Math.log(own.reduce((total, sum) => total + Math.exp(sum - most), 0));
    const vowels = own.reduce(
      (total, sum, at) => (this.#isVowel[at] ? total + Math.exp(sum - whole) : total),
      0,
    );
    this.#run = vowels > 0.6 ? this.#run + 1 : 0;
    return {
      own,
      whole,
      sung: 1 - Math.exp((own[this.#sounds] as number) - whole),
      news: 1 / (1 + Math.max(0, this.#run - HELD) / HELD),
      shares: sums.subarray(this.#sounds + 1),
    };
  }

  /** How much likelier each sound, and none, is than it is at all, as a logarithm. */
  ratios({ own, whole, news }: Opinion, priors: readonly number[]): Float32Array {
    const ratios = own.map(
      (sum, at) => Math.max(LEAST, sum - whole) - PRIOR * (priors[at] as number),
    );
    if (news === 1) return ratios;
    // Which vowel is held is heard where it begins: what it turns into tells little.
    const best = ratios.reduce(
      (likeliest, ratio, at) => (this.#isVowel[at] ? Math.max(likeliest, ratio) : likeliest),
      LEAST,
    );
    return ratios.map((ratio, at) =>
      this.#isVowel[at] ? Math.max(ratio, best - OTHER_VOWEL * news) : ratio,
    );
  }
}

/** Runs a network over the inputs of some steps, and gives what it says of each in turn. */
function opinions(
  weights: SongWeights,
  inputs: Float32Array,
  each: (opinion: Opinion, follower: Follower) => void,
  onProgress: (share: number) => void = () => undefined,
): void {
  const network = new Network(weights);
  const follower = new Follower(weights);
  const take = (sums: Float32Array) => {
    for (let from = 0; from < sums.length; from += weights.outputs)
      each(follower.next(sums.subarray(from, from + weights.outputs)), follower);
  };
  for (let from = 0; from < inputs.length; from += BLOCK * weights.inputs) {
    take(network.push(inputs.subarray(from, from + BLOCK * weights.inputs)));
    onProgress(from / inputs.length);
  }
  take(network.end());
}

/** A mean of what is added to it. */
class Mean {
  #sum = 0;
  count = 0;
  add(value: number): void {
    this.#sum += value;
    this.count++;
  }
  get value(): number {
    return this.count > 0 ? this.#sum / this.count : 0;
  }
}

/** Whether somebody sings, or speaks through music, by some stretches of a sound. */
function isSong(weights: SongWeights, inputs: Float32Array): boolean {
  const steps = inputs.length / weights.inputs;
  const isLong = steps > PROBES * PROBE;
  const starts = isLong
    ? Array.from({ length: PROBES }, (_, at) => Math.floor((at * (steps - PROBE)) / (PROBES - 1)))
    : [0];
  const length = isLong ? PROBE : steps;
  const [held, share, change] = [new Mean(), new Mean(), new Mean()];
  for (const start of starts) {
    let step = start;
    opinions(
      weights,
      inputs.subarray(start * weights.inputs, (start + length) * weights.inputs),
      ({ sung, news, shares }) => {
        if (sung > 0.5) {
          held.add(Number(news < 1));
          for (const sum of shares) share.add(logistic(sum));
        } else if (sung < UNSUNG && step >= start + TENTH) {
          const [now, before] = [step * weights.inputs, (step - TENTH) * weights.inputs];
          for (let band = 0; band < SONG_BANDS; band++)
            change.add(Math.abs((inputs[now + band] ?? 0) - (inputs[before + band] ?? 0)));
        }
        step++;
      },
    );
  }
  const isMusic = change.count >= ENOUGH * SONG_BANDS && change.value > THROUGH.change;
  return held.value > SINGING || (isMusic && share.count > 0 && share.value < THROUGH.share);
}

/**
 * Listens to a song.
 *
 * @returns  what was heard, and the bands with the voice brought forward; undefined where somebody speaks without music:
 *           the acoustic model hears that alone, which was taught on speech
 */
export function hearSong(
  weights: SongWeights,
  model: AcousticModel,
  bands: Bands & { readonly song: SongLevels },
  onProgress: (share: number) => void = () => undefined,
): { readonly song: HeardSong; readonly bands: Bands } | undefined {
  const inputs = songInputs(bands.song);
  if (!isSong(weights, inputs)) return undefined;
  const steps = inputs.length / weights.inputs;
  const phones = model.phones.length;
  const place = new Map(weights.phones.map((name, at) => [name, at]));
  /** The output of each phone of the model: that of none for silence and noise. */
  const outputOf = model.phones.map((name) => place.get(name) ?? weights.phones.length);
  const likelier = sharedFloats(steps * phones);
  const sung = sharedFloats(steps);
  const news = sharedFloats(steps);
  const levels = bands.levels.slice();
  let step = 0;
  opinions(
    weights,
    inputs,
    (opinion, follower) => {
      sung[step] = opinion.sung;
      news[step] = opinion.news;
      const ratios = follower.ratios(opinion, weights.priors);
      for (let phone = 0; phone < phones; phone++)
        likelier[step * phones + phone] = ratios[outputOf[phone] as number] as number;
      for (let band = 0; band < FILTERS; band++) {
        const less = Math.log(Math.max(LEAST_SHARE, logistic(opinion.shares[band] as number)));
        for (let frame = step * FRAMES_A_STEP; frame < (step + 1) * FRAMES_A_STEP; frame++) {
          const at = frame * FILTERS + band;
          levels[at] = (levels[at] as number) + less;
        }
      }
      step++;
    },
    onProgress,
  );
  return { song: { likelier, sung, news }, bands: { ...bands, levels } };
}
