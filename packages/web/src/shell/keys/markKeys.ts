/** The keys of marks, taps and the pulse. */
import { tapping } from '../../timing/tapping.ts';
import { act, hold } from '../../desk/actions.ts';
import { showWindow } from '../../desk/windows.ts';
import { inGroup, type Key } from './key.ts';

export const MARK_KEYS: readonly Key[] = [
  ...inGroup('Marks and taps', [
    {
      keys: "'",
      does: 'Drop a mark at the playhead, playing or not',
      run: hold.dropMark,
    },
    {
      keys: ';',
      does: 'Tap the next mark, cue, word, line or beat; hold for its length',
    },
    {
      keys: 'U',
      does: 'Undo the last tap while tapping',
      run: tapping.takeBack,
    },
    { keys: 'T', does: 'Change what is tapped', run: tapping.nextKind },
    {
      keys: 'Shift T',
      does: 'Play the last taps with clicks',
      run: tapping.playBack,
    },
    {
      keys: 'C',
      does: 'Turn clicks on marks, beats or starts on or off',
      run: act.toggleClicks,
    },
    {
      keys: 'M',
      does: 'Open the table of marks',
      run: () => showWindow('marks'),
    },
    {
      keys: 'Shift M',
      does: 'Make marks from beats, pieces or hits',
      run: () => showWindow('makeMarks'),
    },
    {
      keys: 'Q',
      does: 'Pull the edge nearest to the playhead to the nearest mark',
      run: act.edgeToMark,
    },
    {
      keys: 'Shift Q',
      does: 'Pull all starts to the nearest beats or marks',
      run: () => showWindow('pull'),
    },
  ]),
  ...inGroup('The pulse', [
    { keys: 'H', does: 'Halve the beats', place: 'timing', run: hold.halve },
    { keys: 'D', does: 'Double the beats', place: 'timing', run: hold.double },
    {
      keys: 'B',
      does: 'Start a bar at the picked beat or the one nearest the playhead; again takes it back',
      place: 'timing',
      run: hold.firstBar,
    },
    {
      keys: 'Shift B',
      does: 'Move bars a beat later',
      place: 'timing',
      run: () => hold.shiftBars(1),
    },
    { keys: 'Shift H', does: 'Move beats half a beat later', place: 'timing', run: hold.shiftHalf },
    {
      keys: 'R',
      does: 'Change the metre from the picked beat on, or of all bars',
      place: 'timing',
      run: hold.nextMetre,
    },
    { keys: 'X', does: 'Fix the picked beats, or release them', place: 'timing', run: hold.fix },
  ]),
];
