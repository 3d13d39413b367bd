/**
 * Pieces of speech between pauses.
 *
 * The evidence of a frame is a network's activation that somebody speaks (`speechEvidence.ts`). Pieces are found
 * by two thresholds with hysteresis, and their edges lie where the activation passes the lower one, to a part of a
 * frame; what stands clear of the background right at an edge is kept, so that weak word ends are not eaten.
 */
import type { Range } from '../../time/range.ts';
import { fromSeconds } from '../../time/ticks.ts';
import { FRAMES_A_SECOND } from '../signal/spectra.ts';
import type { SpeechEvidence } from './speechEvidence.ts';

export interface SpeechSettings {
  /** Pauses shorter than this do not part two pieces, in seconds. */
  readonly shortestPause: number;
  /** Pieces shorter than this are left out, in seconds. */
  readonly shortestPiece: number;
  /** How sure it must be that somebody speaks, from 0 to 1. */
  readonly strictness: number;
}

export const DEFAULT_SPEECH: SpeechSettings = {
  shortestPause: 0.25,
  shortestPiece: 0.12,
  strictness: 0.5,
};

/**
 * The pieces of speech in a recording, by start.
 *
 * Starts and ends are in ticks from the start of the sound, to 10 ms.
 */
export function findPieces(evidence: SpeechEvidence, settings = DEFAULT_SPEECH): Range[] {
  const { voice, firstMiddle } = evidence;
  const smooth = smoothed(voice);
  const high = settings.strictness * 255;
  const low = high * LOWER;
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

/** The lower threshold, as a part of the higher one. */
const LOWER = 0.5;

/** The mean over three frames. */
function smoothed(values: Uint8Array): Float32Array {
  return Float32Array.from(values, (value, at) => {
    const [before, after] = [values[at - 1] ?? value, values[at + 1] ?? value];
    return (before + value + after) / 3;
  });
}
