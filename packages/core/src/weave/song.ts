/**
 * Singing heard through music: what share the voice has in each band, and which sound of speech is sung, by a network that
 * was taught on made-up songs (`training/README.md`).
 */
import { strFromU8 } from 'fflate';
import { logistic, Network, type Weights } from '../listen/signal/network.ts';
import type { AcousticModel } from './acousticModel.ts';
import { FILTERS, type Bands } from './cepstra.ts';
import { sharedFloats } from './shared.ts';
import { FRAMES_A_STEP, songInputs, type SongLevels } from './songBands.ts';

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
/** How far the likelihood of a sound is taken against how often it is sung at all: wholly, rare ones would be heard everywhere. */
const PRIOR = 0.3;
/** No band of the acoustic model is lowered to less than this share. */
const LEAST_SHARE = 0.15;

/** The vowels among the sounds. */
const VOWELS = new Set('AA AE AH AO AW AY EH ER EY IH IY OW OY UH UW'.split(' '));
/** From how many steps of vowels on one is held, and after how many more it tells half as much. */
const HELD = 8;
/** How much less likely than the likeliest another vowel is where one begins to be held; less and less after. */
const OTHER_VOWEL = 0.5;

/** How much the acoustic model, which was taught on speech, says beside the network of singing, in each pass. */
export const TRUST = { coarse: 0.1, fine: 0.3 };
/** From what share of held vowels on somebody sings: who speaks holds next to none. */
const SINGING = 0.1;

/** What the network heard of a sound. */
export interface HeardSong {
  /** By step and phone of the model, the logarithm of how much likelier it is than it is at all. */
  readonly likelier: Float32Array;
  /** By step, how likely it is that somebody speaks or sings. */
  readonly sung: Float32Array;
  /** By step, how much of what is heard is new: less and less while a vowel is held. */
  readonly news: Float32Array;
}

/** Steps that the network takes at once. */
const BLOCK = 500;

/**
 * Listens to a song.
 *
 * @returns  what was heard, and the bands with the voice brought forward; undefined where nobody sings
 */
export function hearSong(
  weights: SongWeights,
  model: AcousticModel,
  bands: Bands & { readonly song: SongLevels },
  onProgress: (share: number) => void = () => undefined,
): { readonly song: HeardSong; readonly bands: Bands } | undefined {
  const network = new Network(weights);
  const inputs = songInputs(bands.song);
  const steps = inputs.length / weights.inputs;
  const sounds = weights.phones.length;
  const phones = model.phones.length;
  const place = new Map(weights.phones.map((name, at) => [name, at]));
  /** The output of each phone of the model. */
  const outputOf = model.phones.map((name) => place.get(name) ?? sounds);
  const likelier = sharedFloats(steps * phones);
  const sung = sharedFloats(steps);
  const news = sharedFloats(steps);
  const isVowel = weights.phones.map((name) => VOWELS.has(name));
  /** Steps in which vowels were sung without a break. */
  let run = 0;
  const levels = bands.levels.slice();
  let step = 0;
  const take = (sums: Float32Array) => {
    for (let from = 0; from < sums.length; from += weights.outputs, step++) {
      const own = sums.subarray(from, from + sounds + 1);
      const most = own.reduce((best, sum) => Math.max(best, sum), -Infinity);
      const whole = most + Math.log(own.reduce((total, sum) => total + Math.exp(sum - most), 0));
      const vowels = own.reduce(
        (total, sum, at) => (isVowel[at] ? total + Math.exp(sum - whole) : total),
        0,
      );
      sung[step] = 1 - Math.exp((own[sounds] as number) - whole);
      run = vowels > 0.6 ? run + 1 : 0;
      const isNew = 1 / (1 + Math.max(0, run - HELD) / HELD);
      news[step] = isNew;
      const ratios = own.map(
        (sum, at) => Math.max(LEAST, sum - whole) - PRIOR * (weights.priors[at] as number),
      );
      // Which vowel is held is heard where it begins: what it turns into tells little.
      if (run > HELD) {
        const best = ratios.reduce(
          (likeliest, ratio, at) => (isVowel[at] ? Math.max(likeliest, ratio) : likeliest),
          LEAST,
        );
        ratios.forEach((ratio, at) => {
          if (isVowel[at]) ratios[at] = Math.max(ratio, best - OTHER_VOWEL * isNew);
        });
      }
      for (let phone = 0; phone < phones; phone++)
        likelier[step * phones + phone] = ratios[outputOf[phone] as number] as number;
      for (let band = 0; band < FILTERS; band++) {
        const share = logistic(sums[from + sounds + 1 + band] as number);
        const less = Math.log(Math.max(LEAST_SHARE, share));
        for (let frame = step * FRAMES_A_STEP; frame < (step + 1) * FRAMES_A_STEP; frame++) {
          const at = frame * FILTERS + band;
          levels[at] = (levels[at] as number) + less;
        }
      }
    }
  };
  for (let from = 0; from < inputs.length; from += BLOCK * weights.inputs) {
    take(network.push(inputs.subarray(from, from + BLOCK * weights.inputs)));
    onProgress(step / steps);
  }
  take(network.end());
  // Who speaks is heard by the acoustic model alone, which was taught on speech.
  if (heldShare(sung, news) <= SINGING) return undefined;
  return { song: { likelier, sung, news }, bands: { ...bands, levels } };
}

/** What share of what is spoken or sung are held vowels. */
function heldShare(sung: Float32Array, news: Float32Array): number {
  let [all, held] = [0, 0];
  sung.forEach((likely, step) => {
    if (likely <= 0.5) return;
    all++;
    if ((news[step] as number) < 1) held++;
  });
  return all > 0 ? held / all : 0;
}
