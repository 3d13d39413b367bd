/** What has words that are not sure settle by themselves: a pin that was set, a text that was changed. */
import type { Cue, WordTime } from '../programme.ts';
import type { Change } from '../record/change.ts';
import { wordsIn } from './wordsIn.ts';
import { timesOf } from './reworded.ts';
import { fixed, stateOf } from './wordState.ts';

/** Whether a change fixed the time of a word, or changed the text of a cue. */
export function unsettles(change: Change): change is Change & { entity: 'cue' } {
  if (change.entity !== 'cue' || !change.was || !change.becomes) return false;
  if (change.becomes.text) return true;
  const before = change.was.words ?? [];
  return (change.becomes.words ?? []).some(
    (word) => fixed(word) && !before.some((had) => fixed(had) && had.start === word.start),
  );
}

/** Whether a cue was woven, or has words that are fixed, and has others that are doubtful or not heard. */
export function isUnsettled(cue: Cue): boolean {
  const times = timesOf(cue.words, wordsIn(cue));
  const open = (time: WordTime | undefined) => ['doubtful', 'not heard'].includes(stateOf(time));
  return (
    times.some((time) => time?.source === 'woven' || (time && fixed(time))) && times.some(open)
  );
}
