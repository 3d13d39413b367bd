/** The actions of this window's desk. */
import { player } from '../playback/player.ts';
import { cueActions } from './cueActions.ts';
import { make, newId, redo, undo } from './desk.ts';
import { handActions } from './handActions.ts';
import type { DeskPorts } from './ports.ts';
import { say } from './say.ts';
import { openNow, store } from './store.ts';
import { write } from './writing.ts';
import { strandActions } from './strandActions.ts';

export const ports: DeskPorts = {
  programme: () => openNow().programme,
  view: () => store.getState().view,
  dispatch: store.dispatch,
  player,
  make,
  undo,
  redo,
  newId,
  write,
  note: say.note,
};

export const act = cueActions(ports);
export const { hold, pickedNow, pickedStretch, pulseMaterial } = handActions(ports);
export const strands = strandActions(ports);
