/** What was heard in a material, as workers hand it on. */
import { hitsIn, type KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { findStrokes } from '@cadence/core/listen/pulse/strokes.ts';
import { findSections } from '@cadence/core/listen/structure/sections.ts';
import { findPulse, type FoundPulse } from '@cadence/core/listen/pulse/pulse.ts';
import { DEFAULT_SPEECH, findPieces } from '@cadence/core/listen/speech/speech.ts';
import type { Change } from '@cadence/core/programme/record/change.ts';
import { energyOf, packEnergy } from '@cadence/core/listen/signal/energy.ts';
import { keepFound, sectionsOf } from '@cadence/core/programme/edits/found/keepFound.ts';
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

/** The bar lines of a pulse, in seconds. */
const linesOf = ({ beats }: FoundPulse): number[] =>
  beats.filter(({ bar }) => bar).map(({ at }) => at);

/** The pulse that was heard, and what is kept with the material: the sections of the song by it, and its energy. */
export function pulseIn({ pulse, level }: Pick<KeptHeard, 'pulse' | 'level'>) {
  const found = findPulse(pulse);
  const sections = sectionsOf(findSections(pulse, level, linesOf(found))) ?? null;
  return { pulse: found, song: { sections, energy: packEnergy(energyOf(level)) } };
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
