/** The keys that go to places. */
import { goTo, PLACES } from '../../desk/places.ts';
import { inGroup, type Key } from './key.ts';

export const PLACE_KEYS: readonly Key[] = inGroup(
  'Places',
  PLACES.map(({ path, name }, at) => ({
    keys: `Alt ${at + 1}`,
    does: `Go to ${name}`,
    everywhere: true,
    run: () => goTo(path),
  })),
);
