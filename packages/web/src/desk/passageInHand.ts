import { passagesInOrder } from '@cadence/core/programme/order.ts';
import type { Passage } from '@cadence/core/programme/passage.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import type { View } from './view.ts';

/** The passage in hand: the first one where the programme has none of that id. */
export const passageInHand = (
  programme: Programme,
  { passage }: Pick<View, 'passage'>,
): Passage | undefined => programme.passages[passage] ?? passagesInOrder(programme)[0];
