/** What the view says is in hand, of a programme. */
import { cuesInOrder, strandsInOrder } from '@cadence/core/programme/order.ts';
import type { Cue, Id, Programme } from '@cadence/core/programme/programme.ts';
import type { View } from './view.ts';

/** The strand in hand: the first one where the programme has none of that id. */
export const strandInHand = (programme: Programme, { strand }: Pick<View, 'strand'>): Id =>
  strand in programme.strands ? strand : (strandsInOrder(programme)[0]?.id ?? '');

/** The cues of the strand in hand, in order. */
export const cuesInHand = (programme: Programme, view: Pick<View, 'strand'>): readonly Cue[] =>
  cuesInOrder(programme, strandInHand(programme, view));

/** The selected cues that still exist. */
export const selectedCues = (
  { cues }: Pick<Programme, 'cues'>,
  { selection }: Pick<View, 'selection'>,
): Cue[] => selection.map((id) => cues[id]).filter((cue) => cue !== undefined);
