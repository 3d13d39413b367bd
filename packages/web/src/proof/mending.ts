/** What can be done about a finding. */
import type { Finding } from '@cadence/core/check/finding.ts';
import { fitLines } from '@cadence/core/programme/edits/fitLines.ts';
import { replaceText } from '@cadence/core/programme/edits/replaceText.ts';
import { setStyle, setText } from '@cadence/core/programme/edits/reword.ts';
import { languageOf } from '@cadence/core/programme/edits/proof.ts';
import { make, newId } from '../desk/desk.ts';
import { say } from '../desk/say.ts';
import { openNow } from '../desk/store.ts';
import { proofWorker } from './proofWorker.ts';

/** What is mended by breaking its lines anew. */
const broken: ReadonlySet<Finding['kind']> = new Set(['long line', 'too many lines']);

/** What one press would do; undefined where nothing is known. */
export function mendingOf({ kind, mend, font }: Finding): string | undefined {
  if (font !== undefined) return `Set in ${font}`;
  return mend !== undefined || broken.has(kind) ? 'Mend it' : undefined;
}

/** Mends a finding, as an edit of its own. */
export function mendFinding({ kind, cue, mend, font }: Finding): void {
  const { programme } = openNow();
  const edit =
    font !== undefined
      ? setStyle(programme, [cue], { family: font })
      : broken.has(kind)
        ? fitLines(programme, [cue], newId)
        : setText(programme, cue, mend ?? '');
  const made = make({ ...edit, name: `Mend: ${kind}` });
  if (!made) say.note('One of its words is wider than a line and cannot be broken.');
}

/** Puts another word in the place of a finding. */
export function putInstead({ cue, place }: Finding, by: string): void {
  if (place) make(replaceText(openNow().programme, [{ cue, ...place, by }], `Write “${by}”`));
}

/** What may have been meant by the word of a finding. */
export const suggestionsFor = ({ subject = '' }: Finding): Promise<readonly string[]> =>
  proofWorker().suggest(subject, languageOf(openNow().programme));

/** The figure of a finding with its unit and the limit. */
export function figureOf({ figure, limit, unit = '' }: Finding): string {
  if (figure === undefined) return '';
  // Units are kept in the plural; one of something is said as one.
  const said = figure === 1 ? unit.replace(/s$/, '') : unit;
  return `${figure} ${said}${limit ? `, limit ${limit}` : ''}`;
}
