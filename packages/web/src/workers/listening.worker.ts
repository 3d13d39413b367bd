/** Works on what was heard, which for hours of sound takes longer than a screen frame. */
import { expose, transfer } from 'comlink';
import { hitsIn, unpackHeard, type KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { findPulse, type FoundPulse } from '@cadence/core/listen/pulse.ts';
import type { PulseEvidence } from '@cadence/core/listen/pulseEvidence.ts';
import { DEFAULT_SPEECH, findPieces, type SpeechSettings } from '@cadence/core/listen/speech.ts';
import type { SpeechEvidence } from '@cadence/core/listen/speechEvidence.ts';
import { keepFound } from '@cadence/core/programme/edits/keepFound.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { Range } from '@cadence/core/time/range.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';

/**
 * What was heard in a new material, and what the programme keeps of it: changes as JSON, which the page
 * reads faster than thousands of objects are copied.
 */
export interface Taken {
  readonly heard: KeptHeard;
  readonly changes: string;
}

/** The memory of all arrays in what was heard, which goes over instead of being copied. */
const memoryOf = ({ peaks, speech, pulse, hitFigures, level }: KeptHeard) =>
  [
    ...peaks.levels.map(({ pairs }) => pairs),
    speech.voice,
    pulse.opinions,
    pulse.onsets,
    hitFigures,
    level.momentary,
  ].map(({ buffer }) => buffer as ArrayBuffer);

const listening = {
  unpack(bytes: Uint8Array): KeptHeard | undefined {
    const heard = unpackHeard(bytes);
    return heard && transfer(heard, memoryOf(heard));
  },
  /** @param length  of the material */
  take(bytes: Uint8Array, material: Id, length: Ticks): Taken | undefined {
    const heard = unpackHeard(bytes);
    if (!heard) return undefined;
    const found = {
      pieces: findPieces(heard.speech, DEFAULT_SPEECH),
      pulse: findPulse(heard.pulse),
      hits: hitsIn(heard.hitFigures),
      hitShare: heard.hitShare,
      length,
    };
    const changes = JSON.stringify(keepFound(material, found, () => crypto.randomUUID()));
    return transfer({ heard, changes }, memoryOf(heard));
  },
  find: (evidence: SpeechEvidence, settings: SpeechSettings): Range[] =>
    findPieces(evidence, settings),
  pulse: (evidence: PulseEvidence): FoundPulse => findPulse(evidence),
};
export type Listening = typeof listening;
expose(listening);
