/**
 * What the network that hears singing through music is shown: the levels of narrow bands in the middle of a stereo sound and
 * beside it, where a voice is not, a hundred times a second.
 */
import { hertzOf, mel } from '../listen/signal/mel.ts';
import { Spectra } from '../listen/signal/spectra.ts';
import { GrowingBytes } from '../listen/signal/growing.ts';

export const SONG_BANDS = 40;
const [LOWEST, HIGHEST] = [100, 6800];
/** Steps of a level in a decibel. */
const STEPS = 2;
/** How far below the loud frames of a sound its levels are told apart, in decibels. */
const DEEPEST = 60;
/** Makes the levels that go into the network about as great as one. */
const UNIT = 10;

/** Levels by frame and band, in steps of half a decibel over an unknown level. */
export interface SongLevels {
  /** What is common to both channels, or all there is. */
  readonly middle: Uint8Array;
  /** What differs between the channels; undefined of one channel. */
  readonly side: Uint8Array | undefined;
}

/** Collects the levels of the bands of power spectra. */
export class LevelsOfBands {
  readonly #edges: readonly number[];
  readonly #levels = new GrowingBytes();

  /** @param binWidth  of the spectra, in hertz */
  constructor(binWidth: number) {
    const step = (mel(HIGHEST) - mel(LOWEST)) / SONG_BANDS;
    this.#edges = Array.from({ length: SONG_BANDS + 1 }, (_, band) =>
      Math.round(hertzOf(mel(LOWEST) + band * step) / binWidth),
    );
  }

  /** @param power  a spectrum, full scale as 16-bit numbers */
  push(power: Float32Array): void {
    for (let band = 0; band < SONG_BANDS; band++) {
      const [low, high] = [this.#edges[band] as number, this.#edges[band + 1] as number];
      let sum = 0;
      const end = Math.max(high, low + 1);
      for (let bin = low; bin < end; bin++) sum += power[bin] ?? 0;
      this.#levels.push(STEPS * 10 * Math.log10(sum / (end - low) + 1));
    }
  }

  all(): Uint8Array {
    return this.#levels.all();
  }
}

/** The spectra of a voice: the frames that the acoustic model was trained with. */
export const spectraAt = (rate: number): Spectra =>
  new Spectra(rate, { length: 0.0256, window: 'hamming', highest: HIGHEST });

/** Frames in a step of the network. */
export const FRAMES_A_STEP = 2;
/** The step that a frame lies in. */
export const stepOf = (frame: number): number => Math.floor(frame / FRAMES_A_STEP);
/** Of a step: the levels of its first frame, middle and side, then those of its second. */
export const SONG_INPUTS = 2 * SONG_BANDS * FRAMES_A_STEP;

/**
 * The inputs of all steps, {@link SONG_INPUTS} numbers each: levels against the loud frames of the sound, so that the same
 * song sounds the same at any level.
 */
export function songInputs({ middle, side }: SongLevels): Float32Array {
  const frames = middle.length / SONG_BANDS;
  const steps = Math.floor(frames / FRAMES_A_STEP);
  const loud = loudest(middle);
  const inputs = new Float32Array(steps * SONG_INPUTS);
  let at = 0;
  const put = (levels: Uint8Array | undefined, frame: number) => {
    for (let band = 0; band < SONG_BANDS; band++) {
      const level = levels
        ? ((levels[frame * SONG_BANDS + band] as number) - loud) / STEPS
        : -DEEPEST;
      inputs[at++] = Math.max(-DEEPEST, level) / UNIT;
    }
  };
  for (let frame = 0; frame < steps * FRAMES_A_STEP; frame++) {
    put(middle, frame);
    put(side, frame);
  }
  return inputs;
}

/** The mean level that a twentieth of the frames is over, in steps. */
function loudest(levels: Uint8Array): number {
  const means = new Float32Array(levels.length / SONG_BANDS);
  for (let at = 0; at < means.length; at++) {
    let sum = 0;
    for (let band = 0; band < SONG_BANDS; band++) sum += levels[at * SONG_BANDS + band] as number;
    means[at] = sum / SONG_BANDS;
  }
  means.sort();
  return means[Math.floor(0.95 * (means.length - 1))] ?? 0;
}
