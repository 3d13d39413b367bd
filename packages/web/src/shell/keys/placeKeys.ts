/** The keys that go to places. */
import { goTo, PLACES } from '../../desk/places.ts';
import { goToPart } from '../../desk/parts.ts';
import { inGroup, type Key } from './key.ts';

export const PLACE_KEYS: readonly Key[] = inGroup('Places', [
  ...PLACES.map(({ path, name }, at) => ({
    keys: `Alt ${at + 1}`,
    does: `Go to ${name}`,
    everywhere: true,
    run: () => goTo(path),
  })),
  {
    keys: 'F6',
    does: 'Go to the next part of the place',
    everywhere: true,
    run: () => goToPart(1),
  },
  {
    keys: 'Shift F6',
    does: 'Go to the part of the place before',
    everywhere: true,
    run: () => goToPart(-1),
  },
]);
