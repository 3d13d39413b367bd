/** The keys of what is seen, and of the programme as a whole. */
import { act } from '../../desk/actions.ts';
import { inGroup, type Key } from './key.ts';

export const VIEW_KEYS: readonly Key[] = [
  ...inGroup('Rows and view', [
    { keys: '+', does: 'Fewer seconds a row', run: () => act.widerRow(-1) },
    { keys: '-', does: 'More seconds a row', run: () => act.widerRow(1) },
    {
      keys: 'S',
      does: 'Turn snapping on or off (hold Alt to suspend it)',
      run: act.toggleSnap,
    },
    {
      keys: 'O',
      does: 'Turn sound while dragging on or off',
      run: act.toggleScrub,
    },
    {
      keys: 'Shift L',
      does: 'Highlight the spoken word, on or off',
      run: act.toggleLight,
    },
    { keys: 'A', does: 'Show or hide the safe area', run: act.toggleSafeArea },
    {
      keys: 'Shift A',
      does: 'Show or hide the text of the frames before and after',
      run: act.toggleBeside,
    },
  ]),
  ...inGroup('Programme', [
    { keys: 'Ctrl Z', does: 'Undo', run: act.undo },
    { keys: 'Ctrl Shift Z', does: 'Redo', run: act.redo },
  ]),
];
