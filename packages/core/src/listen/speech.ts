/**
 * Pieces of speech between pauses.
 *
 * The evidence of a frame is the mean, over the speech bands, of how far each stands above its own
 * noise floor, in decibels and bounded: the sub-band signal-to-noise measure of 3GPP TS 26.094
 * (AMR voice activity detector, option 2), on floors from {@link noiseFloor}. Pieces are found by two
 * thresholds with hysteresis and their edges are drawn out to where the evidence leaves the spread of
 * the background itself, so that weak word ends are kept.
 */
import type { Range } from '../time/range.ts';
import { fromSeconds } from '../time/ticks.ts';
import { BANDS, BandListener, DECIBELS_A_STEP, FRAMES_A_SECOND, type BandLevels } from './bands.ts';
import { noiseFloor } from './noiseFloor.ts';

/** What finding pieces needs of a recording: two bytes for every 10 ms. */
export interface SpeechEvidence {
  /** Mean distance above the floor, in tenths of a decibel, one a frame. */
  readonly above: Uint8Array;
  /** Time of the middle of frame 0, in seconds. */
  readonly firstMiddle: number;
}

export interface SpeechSettings {
  /** Pauses shorter than this do not part two pieces, in seconds. */
  readonly shortestPause: number;
  /** Pieces shorter than this are left out, in seconds. */
  readonly shortestPiece: number;
  /** How far speech must stand above the background to start a piece, in decibels. */
  readonly strictness: number;
}

export const DEFAULT_SPEECH: SpeechSettings = {
  shortestPause: 0.25,
  shortestPiece: 0.12,
  strictness: 4,
};

/** Collects evidence of speech while sound is pushed through it. */
export class SpeechListener {
  readonly #bands: BandListener;

  /** @param sampleRate  of the sound, in samples a second */
  constructor(sampleRate: number) {
    this.#bands = new BandListener(sampleRate);
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    this.#bands.push(samples);
  }

  evidence(): SpeechEvidence {
    return evidenceOf(this.#bands.levels());
  }
}

/** The most that one band may add, so that a single loud one does not make speech, in steps. */
const MOST_A_BAND = 30 / DECIBELS_A_STEP;
/** How far under the loudest speech a sound can lie and still be heard as speech, in steps. */
const RANGE_OF_SPEECH = 50 / DECIBELS_A_STEP;
/** Lies between a low quantile of noise and what noise reaches most of the time, in steps. */
const SPREAD_OF_NOISE = 5 / DECIBELS_A_STEP;

export function evidenceOf({ steps, frames, firstMiddle }: BandLevels): SpeechEvidence {
  const sums = new Float32Array(frames);
  for (let band = 0; band < BANDS; band++) {
    const floor = noiseFloor(steps, frames, BANDS, band);
    const least = loudest(steps, frames, band) - RANGE_OF_SPEECH;
    for (let frame = 0; frame < frames; frame++) {
      const base = Math.max(floor[frame] as number, least) + SPREAD_OF_NOISE;
      const above = (steps[frame * BANDS + band] as number) - base;
      sums[frame] = (sums[frame] as number) + Math.max(0, Math.min(MOST_A_BAND, above));
    }
  }
  const scale = (DECIBELS_A_STEP * 10) / BANDS;
  const above = Uint8Array.from(sums, (sum) => Math.min(255, Math.round(sum * scale)));
  return { above, firstMiddle };
}

/** The level that a band passes in one frame of a hundred, in steps. */
function loudest(steps: Uint8Array, frames: number, band: number): number {
  const counts = new Uint32Array(256);
  for (let frame = 0; frame < frames; frame++) {
    const step = steps[frame * BANDS + band] as number;
    counts[step] = (counts[step] as number) + 1;
  }
  let [left, level] = [frames / 100, 255];
  while (level > 0 && (left -= counts[level] as number) > 0) level--;
  return level;
}

/**
 * The pieces of speech in a recording, by start.
 *
 * Starts and ends are in ticks from the start of the sound, to 10 ms.
 */
export function findPieces(evidence: SpeechEvidence, settings = DEFAULT_SPEECH): Range[] {
  const { above, firstMiddle } = evidence;
  const smooth = smoothed(above);
  const high = settings.strictness * 10;
  const low = high / 4;
  const runs: [number, number][] = [];
  for (let frame = 0; frame < smooth.length; frame++) {
    if ((smooth[frame] as number) < high) continue;
    let [first, last] = [frame, frame];
    const floor = runs.at(-1)?.[1] ?? -1;
    while (first - 1 > floor && (smooth[first - 1] as number) >= low) first--;
    while (last + 1 < smooth.length && (smooth[last + 1] as number) >= low) last++;
    const before = runs.at(-1);
    if (before && first - before[1] - 1 < settings.shortestPause * FRAMES_A_SECOND)
      before[1] = last;
    else runs.push([first, last]);
    frame = last;
  }
  const time = (frame: number) => fromSeconds(Math.max(0, firstMiddle + frame / FRAMES_A_SECOND));
  return runs
    .filter(([first, last]) => last - first + 1 >= settings.shortestPiece * FRAMES_A_SECOND)
    .map(([first, last]) => ({ start: time(first - 0.5), end: time(last + 0.5) }));
}

/** The mean over three frames. */
function smoothed(values: Uint8Array): Float32Array {
  return Float32Array.from(values, (value, at) => {
    const [before, after] = [values[at - 1] ?? value, values[at + 1] ?? value];
    return (before + value + after) / 3;
  });
}
