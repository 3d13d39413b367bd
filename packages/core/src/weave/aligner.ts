/** Aligns stretches of a voice: with the model as it came, and as it knows that voice. */
import type { AcousticModel } from './acousticModel.ts';
import { Adaptation } from './adapt.ts';
import { fitAround } from './confidence.ts';
import { align, shortfall, shortHeard, type Aligned, type Stretch, type Voice } from './fine.ts';
import type { Token } from './lattice.ts';
import { Likelihoods } from './likelihoods.ts';
import { placesOf, type Places } from './placed.ts';

/** Words whose surroundings fit worse are not learnt from. */
const FITS = 4;

export class Aligner {
  readonly model: AcousticModel;
  /** The model as it came. */
  readonly plain: Likelihoods;
  readonly #own: Likelihoods;
  /** The means of the voice; undefined until it was learnt. */
  #means: Float32Array | undefined;

  constructor(model: AcousticModel) {
    this.model = model;
    this.plain = new Likelihoods(model);
    this.#own = new Likelihoods(model);
  }

  get means(): Float32Array | undefined {
    return this.#means;
  }

  /** @param means  of a voice, or undefined for the model as it came */
  adapt(means: Float32Array | undefined): void {
    if (means === this.#means) return;
    this.#means = means;
    this.#own.adapt(means ?? this.model.means);
  }

  /** Where the words of a stretch lie, counted from its first. */
  places(voice: Voice, tokens: readonly Token[], stretch: Stretch): Places {
    return this.#judged(voice, stretch, this.#align(this.#own, voice, tokens, stretch));
  }

  /**
   * The means of a voice, from words that fit it as it came; undefined where none do.
   *
   * @param most  frames of speech that are learnt from
   */
  learn(
    voice: Voice,
    tokens: readonly Token[],
    stretches: readonly Stretch[],
    most: number,
  ): { means: Float32Array; learnt: number } | undefined {
    const adaptation = new Adaptation(this.model);
    let learnt = 0;
    for (const stretch of spreadOut(stretches, most)) {
      if (learnt >= most) break;
      const aligned = this.#align(this.plain, voice, tokens, stretch);
      const around = fitAround(this.#judged(voice, stretch, aligned));
      const fits = (frame: number): boolean => {
        const token = aligned.tokenOf[frame] as number;
        return token < 0 || (around[token] as number) < FITS;
      };
      if (!around.some((fit) => fit < FITS)) continue;
      adaptation.add(
        this.plain,
        aligned.vectors,
        aligned.senoneOf.map((senone, frame) => (fits(frame) ? senone : -1)),
      );
      learnt += stretch.to - stretch.from;
    }
    return learnt > 0 ? { means: adaptation.means(), learnt } : undefined;
  }

  #align(
    likelihoods: Likelihoods,
    voice: Voice,
    tokens: readonly Token[],
    stretch: Stretch,
  ): Aligned {
    return align(likelihoods, voice, tokens.slice(stretch.first, stretch.last), stretch);
  }

  #judged(voice: Voice, { from, first, last }: Stretch, aligned: Aligned): Places {
    const short = shortfall(this.plain, voice, from, aligned);
    const shortOwn = this.#means ? shortfall(this.#own, voice, from, aligned) : short;
    const { tokenOf, phoneOf, senoneOf } = aligned;
    return placesOf(
      {
        ...{ from, tokenOf, phoneOf, senoneOf, short, shortOwn },
        silence: this.model.silence,
        shortHeard: shortHeard(voice, from, phoneOf, this.model.phones.length),
      },
      last - first,
    );
  }
}

/** Stretches from all over a recording up to a number of frames, then the rest: there may be several voices. */
function spreadOut(stretches: readonly Stretch[], most: number): readonly Stretch[] {
  const frames = stretches.reduce((sum, { from, to }) => sum + to - from, 0);
  const step = Math.max(1, Math.floor(frames / most));
  return stretches
    .map((stretch, at) => ({ stretch, turn: at % step }))
    .sort((a, b) => a.turn - b.turn)
    .map(({ stretch }) => stretch);
}
