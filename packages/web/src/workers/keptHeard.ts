/** What was heard in a material, as workers hand it on. */
import { hitsIn, type KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { findPulse } from '@cadence/core/listen/pulse/pulse.ts';
import { DEFAULT_SPEECH, findPieces } from '@cadence/core/listen/speech/speech.ts';
import type { Change } from '@cadence/core/programme/record/change.ts';
import { keepFound } from '@cadence/core/programme/edits/found/keepFound.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';

/** The memory of all arrays in what was heard, which goes over instead of being copied. */
export const memoryOf = ({ peaks, speech, pulse, hitFigures, level }: KeptHeard): ArrayBuffer[] =>
  [
    ...peaks.levels.map(({ pairs }) => pairs),
    speech.voice,
    pulse.activations,
    pulse.onsets,
    hitFigures,
    level.momentary,
  ].map(({ buffer }) => buffer as ArrayBuffer);

/**
 * What the programme keeps of what was heard in a new material: pieces, beats and hits.
 *
 * @param length  of the material
 */
export const foundIn = (heard: KeptHeard, material: Id, length: Ticks): readonly Change[] =>
  keepFound(
    material,
    {
      pieces: findPieces(heard.speech, DEFAULT_SPEECH),
      pulse: findPulse(heard.pulse),
      hits: hitsIn(heard.hitFigures),
      hitShare: heard.hitShare,
      length,
    },
    () => crypto.randomUUID(),
  );
