/** The keys of strands, and of what travels on them. */
import { strands } from '../../desk/actions.ts';
import type { travel as TravelActionsNow } from '../../travel/travel.ts';
import { showWindow } from '../../desk/windows.ts';
import { isIn } from '../../desk/places.ts';
import { inGroup, type Key } from './key.ts';

export type TravelActions = typeof TravelActionsNow;

/** What Travel does is loaded with it. */
export const inTravel = (
  run: (travel: TravelActions) => void,
): Required<Pick<Key, 'run' | 'place'>> => ({
  place: 'travel',
  run: () => {
    if (isIn('travel')) void import('../../travel/travel.ts').then(({ travel }) => run(travel));
  },
});

export const STRAND_KEYS: readonly Key[] = [
  ...inGroup('Strands', [
    {
      keys: 'Alt Up',
      does: 'Take the strand above in hand',
      run: () => strands.step(-1),
    },
    {
      keys: 'Alt Down',
      does: 'Take the strand below in hand',
      run: () => strands.step(1),
    },
    {
      keys: 'Alt S',
      does: 'Show only the strand in hand, or all strands',
      run: strands.toggleOnly,
    },
    {
      keys: 'Alt M',
      does: 'Show or hide the strand in the picture',
      run: strands.toggleMuted,
    },
    {
      keys: 'Alt K',
      does: 'Open the table of strands',
      run: () => showWindow('strands'),
    },
  ]),
  ...inGroup('Travel', [
    {
      keys: 'Alt R',
      does: 'New roll at the end of the programme',
      ...inTravel((travel) => void travel.add('roll')),
    },
    {
      keys: 'Alt L',
      does: 'New crawl from the playhead',
      ...inTravel((travel) => void travel.add('crawl')),
    },
    {
      keys: 'Alt A',
      does: 'Make cards from a list',
      run: () => showWindow('cards'),
    },
    {
      keys: 'Alt Page Up',
      does: 'Go to the passage before',
      ...inTravel((travel) => travel.step(-1)),
    },
    {
      keys: 'Alt Page Down',
      does: 'Go to the next passage',
      ...inTravel((travel) => travel.step(1)),
    },
    {
      keys: 'Alt E',
      does: 'Choose which of size, time and speed follows',
      ...inTravel((travel) => travel.followNext()),
    },
    {
      keys: 'Alt +',
      does: 'Next faster even speed',
      ...inTravel((travel) => travel.evenSpeed(1)),
    },
    {
      keys: 'Alt -',
      does: 'Next slower even speed',
      ...inTravel((travel) => travel.evenSpeed(-1)),
    },
  ]),
];
