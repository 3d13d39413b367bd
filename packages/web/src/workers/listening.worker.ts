/** Works on what was heard, which for hours of sound takes longer than a screen frame. */
import { expose, transfer } from 'comlink';
import { unpackHeard, type KeptHeard } from '@cadence/core/listen/heardFile.ts';
import type { PulseEvidence } from '@cadence/core/listen/pulse/pulseEvidence.ts';
import { findStrokes, type FoundStroke } from '@cadence/core/listen/pulse/strokes.ts';
import { sectionsOn } from '@cadence/core/programme/edits/found/songOf.ts';
import { findPieces, type SpeechSettings } from '@cadence/core/listen/speech/speech.ts';
import type { SpeechEvidence } from '@cadence/core/listen/speech/speechEvidence.ts';
import type { Range } from '@cadence/core/time/range.ts';
import { memoryOf, pulseIn, type PulseIn } from './keptHeard.ts';

const listening = {
  unpack(bytes: Uint8Array): KeptHeard | undefined {
    const heard = unpackHeard(bytes);
    return heard && transfer(heard, memoryOf(heard));
  },
  find: (evidence: SpeechEvidence, settings: SpeechSettings): Range[] =>
    findPieces(evidence, settings),
  strokes: (evidence: PulseEvidence): FoundStroke[] => findStrokes(evidence),
  sections: sectionsOn,
  pulse: (heard: Pick<KeptHeard, 'pulse' | 'level'>): PulseIn => pulseIn(heard),
};
export type Listening = typeof listening;
expose(listening);
