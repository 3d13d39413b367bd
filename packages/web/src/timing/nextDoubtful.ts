/** Going to what weaving is not sure of. */
import { placeOf } from '@cadence/core/programme/order.ts';
import { doubtfulIn } from '@cadence/core/programme/edits/words/weaveCues.ts';
import type { Cue } from '@cadence/core/programme/programme.ts';
import { isUnsure } from '@cadence/core/programme/woven/unsure.ts';
import { say } from '../desk/say.ts';
import { currentCues, openNow, selectionNow, store } from '../desk/store.ts';
import { selected } from '../desk/view.ts';
import { playWord } from '../weaving/weaving.ts';
import { tapping } from './tapping.ts';

/** Selects the next cue of which something is true, after the one that is selected. */
function nextCue(isWanted: (cue: Cue) => boolean): Cue | undefined {
  const cues = currentCues(openNow().programme);
  const current = selectionNow().at(-1);
  const from = current ? placeOf(cues, current) + 1 : 0;
  const cue = [...cues.slice(from), ...cues.slice(0, from)].find(isWanted);
  if (cue) store.dispatch(selected([cue.id]));
  return cue;
}

/**
 * Selects the next cue with a word that is doubtful and plays that word; where the whole line is not sure, all of where it
 * can be, for a tap.
 */
export function nextDoubtful(): void {
  const cue = nextCue((each) => doubtfulIn(each).length > 0 || isUnsure(each));
  if (!cue) say.note('No word is doubtful.');
  else if (isUnsure(cue)) tapping.hearLine(cue.id);
  else playWord(cue, doubtfulIn(cue)[0] ?? 0);
}

/** Selects the next line that is not placed for sure, and plays all of where it can be, for a tap. */
export function nextUnsure(): void {
  const cue = nextCue(isUnsure);
  if (cue) tapping.hearLine(cue.id);
  else say.note('Every line is placed for sure.');
}
