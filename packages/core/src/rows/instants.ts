/** Instants of the programme that something can be set or pulled to, by what they are of. */
import { heardBeats, heardHits, heardPieces } from '../programme/heard.ts';
import { marksInOrder } from '../programme/order.ts';
import type { Programme } from '../programme/programme.ts';
import type { Ticks } from '../time/ticks.ts';

export type InstantsOf = 'beats' | 'bars' | 'marks' | 'hits' | 'pieces';

export const INSTANTS: readonly { readonly value: InstantsOf; readonly label: string }[] = [
  { value: 'beats', label: 'Beats' },
  { value: 'bars', label: 'Bar lines' },
  { value: 'marks', label: 'Marks' },
  { value: 'hits', label: 'Hits' },
  { value: 'pieces', label: 'Starts of speech' },
];

/** In order. */
export function instantsOf(programme: Programme, of: InstantsOf): readonly Ticks[] {
  switch (of) {
    case 'beats':
      return heardBeats(programme).map(({ at }) => at);
    case 'bars':
      return heardBeats(programme)
        .filter(({ bar }) => bar !== null)
        .map(({ at }) => at);
    case 'marks':
      return marksInOrder(programme).map(({ at }) => at);
    case 'hits':
      return heardHits(programme).map(({ start }) => start);
    case 'pieces':
      return heardPieces(programme).map(({ start }) => start);
  }
}
