/** The actions on the passages of the open programme. */
import { ports } from '../desk/actions.ts';
import { draft } from '../desk/desk.ts';
import { shelf, stage } from '../picture/studio.ts';
import { travelActions } from './travelActions.ts';

export const travel = travelActions({
  ...ports,
  draft,
  shaper: shelf,
  prepare: (programme, passage) => stage.passage(programme, passage),
});
