/** Works on what was heard, which for hours of sound takes longer than a screen frame. */
import { expose } from 'comlink';
import { unpackHeard, type Heard } from '@cadence/core/listen/listening.ts';
import {
  findPieces,
  type SpeechEvidence,
  type SpeechSettings,
} from '@cadence/core/listen/speech.ts';
import type { Range } from '@cadence/core/time/range.ts';

const listening = {
  unpack: (bytes: Uint8Array): Heard | undefined => unpackHeard(bytes),
  find: (evidence: SpeechEvidence, settings: SpeechSettings): Range[] =>
    findPieces(evidence, settings),
};
export type Listening = typeof listening;
expose(listening);
