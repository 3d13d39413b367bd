/** What was heard in a material, as workers hand it on. */
import { hitsIn, type KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { findStrokes } from '@cadence/core/listen/pulse/strokes.ts';
import { findPulse } from '@cadence/core/listen/pulse/pulse.ts';
import { DEFAULT_SPEECH, findPieces } from '@cadence/core/listen/speech/speech.ts';
import type { Change } from '@cadence/core/programme/record/change.ts';
import { keepFound } from '@cadence/core/programme/edits/found/keepFound.ts';
import { songOf } from '@cadence/core/programme/edits/found/songOf.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';

/** The memory of all arrays in what was heard, which goes over instead of being copied. */
export const memoryOf = ({ peaks, speech, pulse, hitFigures, level }: KeptHeard): ArrayBuffer[] =>
  [
    ...peaks.levels.map(({ pairs }) => pairs),
    speech.voice,
    pulse.activations,
    pulse.strokes,
    pulse.onsets,
    pulse.harmony,
    hitFigures,
    level.momentary,
  ].map(({ buffer }) => buffer as ArrayBuffer);

/** The pulse that was heard, and what is kept with the material. */
export function pulseIn(heard: Pick<KeptHeard, 'pulse' | 'level'>) {
  const pulse = findPulse(heard.pulse);
  return { pulse, song: songOf(heard, pulse) };
}
export type PulseIn = ReturnType<typeof pulseIn>;

/**
 * What the programme keeps of what was heard in a new material: pieces, beats and hits.
 *
 * @param length  of the material
 */
export const foundIn = (
  heard: KeptHeard,
  { pulse }: PulseIn,
  material: Id,
  length: Ticks,
): readonly Change[] =>
  keepFound(
    material,
    {
      pieces: findPieces(heard.speech, DEFAULT_SPEECH),
      pulse,
      hits: hitsIn(heard.hitFigures),
      strokes: findStrokes(heard.pulse),
      hitShare: heard.hitShare,
      length,
    },
    () => crypto.randomUUID(),
  );
