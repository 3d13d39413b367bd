/** What is found in a programme. */
import type { Id } from '../programme/programme.ts';
import type { Ticks } from '../time/ticks.ts';

export type FindingKind =
  | 'empty'
  | 'overlap'
  | 'too fast'
  | 'too short'
  | 'too long'
  | 'long line'
  | 'too many lines'
  | 'small gap'
  | 'out of frame'
  | 'beyond the end'
  | 'missing glyph'
  | 'doubled word'
  | 'spaces'
  | 'unmatched mark';

/** `wrong` has to be mended before handover; `doubtful` is for the editor to judge. */
export interface Finding {
  readonly kind: FindingKind;
  readonly severity: 'wrong' | 'doubtful';
  readonly at: Ticks;
  readonly cue: Id;
  /** What was measured and the limit it breaks, both in `unit`. */
  readonly figure?: number;
  readonly limit?: number;
  readonly unit?: string;
  /** What is wrong, in a few words, to stand before the text of the cue. */
  readonly message: string;
  /** The text that would mend it, where it is known. */
  readonly mend?: string;
}
