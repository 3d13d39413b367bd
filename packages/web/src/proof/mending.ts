/** Mending findings in the open programme. */
import type { Finding } from '@cadence/core/check/finding.ts';
import type { Grouped, MendableKind } from '@cadence/core/check/grouping.ts';
import { mend, mendAll, writeInstead } from '@cadence/core/check/mending.ts';
import { languageOf } from '@cadence/core/programme/edits/text/proof.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { make, newId } from '../desk/desk.ts';
import { openNow } from '../desk/store.ts';
import { proofWorker } from './proofWorker.ts';

/** Mends a finding wherever it is, as an edit of its own. */
export function mendGroup({ finding, places }: Grouped): void {
  const { programme } = openNow();
  const says = `${finding.kind} in ${plural(places.length, 'place')}`;
  make(
    places.length === 1 ? mend(programme, finding, newId) : mendAll(programme, places, says, newId),
  );
}

/** Mends all findings of a kind, in one step. */
export const mendKind = ({ findings, says }: MendableKind): void =>
  void make(mendAll(openNow().programme, findings, says, newId));

/** Puts another word in the place of a finding. */
export const putInstead = (finding: Finding, by: string): void =>
  void make(writeInstead(openNow().programme, finding, by));

/** What may have been meant by the word of a finding. */
export const suggestionsFor = ({ subject = '' }: Finding): Promise<readonly string[]> =>
  proofWorker().suggest(subject, languageOf(openNow().programme));
