/** Going to what weaving is not sure of. */
import { placeOf } from '@cadence/core/programme/order.ts';
import { doubtfulIn } from '@cadence/core/programme/edits/words/weaveCues.ts';
import { isUnsure } from '@cadence/core/programme/woven/unsure.ts';
import { say } from '../desk/say.ts';
import { currentCues, openNow, selectionNow, store } from '../desk/store.ts';
import { selected } from '../desk/view.ts';
import { playWord } from '../weaving/weaving.ts';
import { tapping } from './tapping.ts';

/**
 * Selects the next cue with a word that is doubtful and plays that word; where the whole line is not sure, all of where it
 * can be, for a tap.
 */
export function nextDoubtful(): void {
  const cues = currentCues(openNow().programme);
  const current = selectionNow().at(-1);
  const from = current ? placeOf(cues, current) + 1 : 0;
  const order = [...cues.slice(from), ...cues.slice(0, from)];
  const cue = order.find((each) => doubtfulIn(each).length > 0 || isUnsure(each));
  if (!cue) {
    say.note('No word is doubtful.');
    return;
  }
  store.dispatch(selected([cue.id]));
  if (isUnsure(cue)) tapping.hearLine(cue.id);
  else playWord(cue, doubtfulIn(cue)[0] ?? 0);
}
