import { heardBeats } from '../programme/heard.ts';
import { cuesInOrder, marksInOrder } from '../programme/order.ts';
import type { Id, Programme } from '../programme/programme.ts';
import type { TapFor } from '../programme/edits/words/taps.ts';
import { instantsWithin, within, type Range } from '../time/range.ts';
import type { Ticks } from '../time/ticks.ts';
import type { Hand } from './things.ts';

/** What is worked on while the programme plays. */
export interface WorkedOn {
  readonly hand: Hand;
  readonly tapFor: TapFor;
  readonly strand: Id;
}

/** The instants of a stretch that click while it plays: beats, cues or words where they are worked on, else marks. */
export function clicksIn(
  programme: Programme,
  stretch: Range,
  { hand, tapFor, strand }: WorkedOn,
): readonly { readonly at: Ticks; readonly strong: boolean }[] {
  if (hand === 'beats' || tapFor === 'beats')
    return instantsWithin(heardBeats(programme), stretch).map(({ at, bar }) => ({
      at,
      strong: bar !== null,
    }));
  const cues = within(cuesInOrder(programme, strand), stretch);
  if (hand === 'cues' && tapFor === 'cues')
    return cues.map(({ start }) => ({ at: start, strong: false }));
  if (tapFor === 'words' || tapFor === 'lines')
    return cues.flatMap((cue) =>
      cue.words.map(({ start, source }) => ({ at: start, strong: source === 'tapped' })),
    );
  return instantsWithin(marksInOrder(programme), stretch).map(({ at }) => ({ at, strong: false }));
}
