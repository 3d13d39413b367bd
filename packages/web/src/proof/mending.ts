/** Mending findings in the open programme. */
import type { Finding } from '@cadence/core/check/finding.ts';
import { mend, writeInstead } from '@cadence/core/check/mending.ts';
import { languageOf } from '@cadence/core/programme/edits/text/proof.ts';
import { make, newId } from '../desk/desk.ts';
import { openNow } from '../desk/store.ts';
import { proofWorker } from './proofWorker.ts';

/** Mends a finding, as an edit of its own. */
export const mendFinding = (finding: Finding): void =>
  void make(mend(openNow().programme, finding, newId));

/** Puts another word in the place of a finding. */
export const putInstead = (finding: Finding, by: string): void =>
  void make(writeInstead(openNow().programme, finding, by));

/** What may have been meant by the word of a finding. */
export const suggestionsFor = ({ subject = '' }: Finding): Promise<readonly string[]> =>
  proofWorker().suggest(subject, languageOf(openNow().programme));
