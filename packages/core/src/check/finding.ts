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
  | 'cut off'
  | 'missing glyph'
  | 'flashes'
  | 'doubled word'
  | 'spaces'
  | 'unmatched mark'
  | 'cut short'
  | 'spelling'
  | 'name';

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
  /** The text that would mend it, where it is known; or the family that has its characters. */
  readonly mend?: string;
  /** The plain text of the cue in which it was found, which `mend` and `place` speak of; it may be another by now. */
  readonly foundIn?: string;
  readonly font?: string;
  /** Where in the plain text of the cue it is, in UTF-16 units. */
  readonly place?: { readonly from: number; readonly to: number };
  /** What it is about, where that is a word or the like. */
  readonly subject?: string;
}

/** That no font has some characters. */
export const noFont = (missing: readonly string[]): Omit<Finding, 'at' | 'cue'> => ({
  kind: 'missing glyph',
  severity: 'wrong',
  figure: missing.length,
  limit: 0,
  unit: 'characters',
  message: `No font has ${missing.join(' ')}`,
  subject: missing.join(''),
});

/** The name by which a finding is passed over in one place. */
export const nameHere = ({ kind, cue, subject = '' }: Finding): string =>
  `${kind}|${cue}|${subject}`.slice(0, 500);

/** The name by which findings of its kind, about the same thing where there is one, are passed over everywhere. */
export const nameEverywhere = ({ kind, subject = '' }: Finding): string =>
  `${kind}||${subject}`.slice(0, 500);

/** The findings that the editor has not passed over. */
export function notPassedOver(
  findings: readonly Finding[],
  passedOver: readonly string[] | null | undefined,
): Finding[] {
  if (!passedOver || passedOver.length === 0) return [...findings];
  const passed = new Set(passedOver);
  return findings.filter(
    (finding) => !passed.has(nameHere(finding)) && !passed.has(nameEverywhere(finding)),
  );
}
