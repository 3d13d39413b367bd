/** The keys of strands, and of what travels on them. */
import { strands } from '../../desk/actions.ts';
import type { travel as TravelActionsNow } from '../../travel/travel.ts';
import { showWindow } from '../../desk/windows.ts';
import { inGroup, isIn, type Key } from './key.ts';

type TravelActions = typeof TravelActionsNow;

/** What Travel does is loaded with it. */
const inTravel = (run: (travel: TravelActions) => void) => () => {
  if (isIn('travel')) void import('../../travel/travel.ts').then(({ travel }) => run(travel));
};

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
      does: 'Only the strand in hand, the others out of the way; or all of them',
      run: strands.toggleOnly,
    },
    {
      keys: 'Alt M',
      does: 'The strand in hand in the picture, or left out',
      run: strands.toggleMuted,
    },
    {
      keys: 'Alt K',
      does: 'All strands: new ones, names, what is shown',
      run: () => showWindow('strands'),
    },
  ]),
  ...inGroup('Travel', [
    {
      keys: 'Alt R',
      does: 'A new roll, at the end of the programme',
      run: inTravel((travel) => void travel.add('roll')),
    },
    {
      keys: 'Alt L',
      does: 'A new crawl, from the playhead on',
      run: inTravel((travel) => void travel.add('crawl')),
    },
    {
      keys: 'Alt A',
      does: 'Cards of a list',
      run: () => showWindow('cards'),
    },
    {
      keys: 'Alt Page Up',
      does: 'The passage before',
      run: inTravel((travel) => travel.step(-1)),
    },
    {
      keys: 'Alt Page Down',
      does: 'The next passage',
      run: inTravel((travel) => travel.step(1)),
    },
    {
      keys: 'Alt E',
      does: 'The next of size, time and speed follows from the other two',
      run: inTravel((travel) => travel.followNext()),
    },
    {
      keys: 'Alt +',
      does: 'The next faster even speed',
      run: inTravel((travel) => travel.evenSpeed(1)),
    },
    {
      keys: 'Alt -',
      does: 'The next slower even speed',
      run: inTravel((travel) => travel.evenSpeed(-1)),
    },
  ]),
];
