/** The keys of what is seen, and of the programme as a whole. */
import { act } from '../../desk/actions.ts';
import { inGroup, type Key } from './key.ts';

export const VIEW_KEYS: readonly Key[] = [
  ...inGroup('Rows and view', [
    { keys: '+', does: 'Fewer seconds a row', run: () => act.widerRow(-1) },
    { keys: '-', does: 'More seconds a row', run: () => act.widerRow(1) },
    {
      keys: 'S',
      does: 'Snap to edges on or off (Alt holds it off)',
      run: act.toggleSnap,
    },
    {
      keys: 'O',
      does: 'Hear the sound under what is dragged, on or off',
      run: act.toggleScrub,
    },
    {
      keys: 'Shift L',
      does: 'Light up the word that is said in the picture, on or off',
      run: act.toggleLight,
    },
    { keys: 'A', does: 'Safe area on or off', run: act.toggleSafeArea },
  ]),
  ...inGroup('Programme', [
    { keys: 'Ctrl Z', does: 'Undo', run: act.undo },
    { keys: 'Ctrl Shift Z', does: 'Redo', run: act.redo },
    { keys: 'F', does: 'To the next finding, in Handover' },
  ]),
];
