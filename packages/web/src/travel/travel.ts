/** The actions on the passages of the open programme. */
import { ports } from '../desk/actions.ts';
import { draft } from '../desk/desk.ts';
import { preparePassage, shelf } from '../picture/studio.ts';
import { travelActions } from './travelActions.ts';

export const travel = travelActions({ ...ports, draft, shaper: shelf, prepare: preparePassage });
