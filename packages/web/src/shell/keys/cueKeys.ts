/** The keys that work on cues, and on whatever else is in hand. */
import { nextDoubtful, nextUnsure } from '../../timing/nextDoubtful.ts';
import { acceptDoubtful, playDoubtful } from '../../weaving/weaving.ts';
import { passageInHand } from '../../desk/passageInHand.ts';
import { act, hold, pickedNow } from '../../desk/actions.ts';
import { isIn } from '../../desk/places.ts';
import { say } from '../../desk/say.ts';
import { openNow, store } from '../../desk/store.ts';
import { showWindow } from '../../desk/windows.ts';
import { inGroup, inHand, type Key } from './key.ts';

const notPicked = () => say.note('Take pieces in hand in Timing, then pick those to find again.');

const findAgain = () =>
  store.getState().view.hand === 'pieces' && pickedNow().length > 0
    ? showWindow('findAgain')
    : notPicked();

/** Whether a sheet is what letters are changed in: where one is in hand in Travel. */
const sheetInHand = (): boolean =>
  isIn('travel') && passageInHand(openNow().programme, store.getState().view) !== undefined;

export const CUE_KEYS: readonly Key[] = [
  ...inGroup('Cues, or what is in hand', [
    {
      keys: 'Shift Up',
      does: 'Add the cue before to the selection',
      ...inHand(act.extendBefore, hold.extendBefore),
    },
    {
      keys: 'Shift Down',
      does: 'Add the next cue to the selection',
      ...inHand(act.extendNext, hold.extendNext),
    },
    {
      keys: 'Ctrl A',
      does: 'Select every cue',
      ...inHand(act.selectAll, hold.all),
    },
    {
      keys: 'Esc',
      does: 'Clear the selection; cancel a drag',
      ...inHand(act.selectNone, hold.none),
    },
    {
      keys: 'N',
      does: 'New cue at the playhead; what is typed then is its text',
      ...inHand(act.addCue, hold.add),
    },
    { keys: 'E', does: 'Edit the text of the cue' },
    {
      keys: '[',
      does: 'Start the cue at the playhead; at a seam both cues move',
      ...inHand(
        () => act.trim('start'),
        () => hold.trim('start'),
      ),
    },
    {
      keys: ']',
      does: 'End the cue at the playhead; at a seam both cues move',
      ...inHand(
        () => act.trim('end'),
        () => hold.trim('end'),
      ),
    },
    {
      keys: '\\',
      does: 'Split the cue at the playhead',
      ...inHand(() => act.split(), hold.split),
    },
    {
      keys: 'J',
      does: 'Join to the next cue, or join the selected ones',
      ...inHand(act.join, hold.join),
    },
    {
      keys: 'Alt Left',
      does: 'Move the selected cues a frame earlier',
      ...inHand(
        () => act.nudge(-1),
        () => hold.nudge(-1),
      ),
    },
    {
      keys: 'Alt Right',
      does: 'Move the selected cues a frame later',
      ...inHand(
        () => act.nudge(1),
        () => hold.nudge(1),
      ),
    },
    {
      keys: 'Alt Shift Left',
      does: 'Move the selected cues ten frames earlier',
      ...inHand(
        () => act.nudge(-10),
        () => hold.nudge(-10),
      ),
    },
    {
      keys: 'Alt Shift Right',
      does: 'Move the selected cues ten frames later',
      ...inHand(
        () => act.nudge(10),
        () => hold.nudge(10),
      ),
    },
    {
      keys: 'Shift End',
      does: 'Select this cue and all after it',
      ofCue: true,
      run: () => act.selectFromHere('end'),
    },
    {
      keys: 'Shift Home',
      does: 'Select this cue and all before it',
      ofCue: true,
      run: () => act.selectFromHere('start'),
    },
    {
      keys: 'Shift [',
      does: 'Stretch the selected cues to start at the playhead',
      ofCue: true,
      run: () => act.stretch('start'),
    },
    {
      keys: 'Shift ]',
      does: 'Stretch the selected cues to end at the playhead',
      ofCue: true,
      run: () => act.stretch('end'),
    },
    { keys: 'G', does: 'Close small gaps', run: act.closeGaps },
    {
      keys: 'Shift G',
      does: 'Hold each selected cue until the next begins',
      ofCue: true,
      run: act.holdCues,
    },
    {
      keys: 'Alt G',
      does: 'Hold each selected cue until its sentence ends',
      ofCue: true,
      run: act.holdSentence,
    },
    {
      keys: 'Alt Shift G',
      does: 'Group the selected cues: they stand below each other and go as one',
      ofCue: true,
      run: () => act.group('below'),
    },
    {
      keys: 'Alt V',
      does: 'End the selected cues with the voice',
      run: act.trimToVoice,
    },
    {
      keys: 'Alt T',
      does: 'Tie the selected cues to their words, or untie them',
      ofCue: true,
      run: act.tieOrFree,
    },
    {
      keys: 'Alt B',
      does: 'Set words on beats, bar lines, marks or hits, or evenly by syllables',
      run: () => showWindow('ontoBeat'),
    },
    {
      keys: 'Z',
      does: 'Weave words on the sound: find the time of each word',
      run: () => showWindow('weave'),
    },
    {
      keys: 'Shift Z',
      does: 'Go to the next doubtful word and play it',
      run: nextDoubtful,
    },
    {
      keys: 'Alt ;',
      does: 'Play where the next line can be that is not placed for sure; tap ; where it begins',
      run: nextUnsure,
    },
    {
      keys: 'Alt D',
      does: 'Play the doubtful words only, one after the other',
      run: playDoubtful,
    },
    {
      keys: 'Shift V',
      does: 'Accept the doubtful words of the selected cues: they become pins',
      ofCue: true,
      run: acceptDoubtful,
    },
    {
      keys: 'Alt Z',
      does: 'Weave report: confidence, speed, where text and sound disagree',
      run: () => showWindow('woven'),
    },
    {
      keys: 'Shift C',
      does: 'Cut cues by sense and pauses, or by word count',
      run: () => showWindow('cutCues'),
    },
    {
      keys: 'W',
      does: 'Fit lines: break them by sense, split cues that are too long',
      run: () => showWindow('fitLines'),
    },
    {
      keys: 'Shift W',
      does: 'Merge short cues',
      run: () => showWindow('mergeCues'),
    },
    {
      keys: 'Y',
      does: 'Capitals and punctuation of the text; in Travel, capitals of the sheet',
      run: () => showWindow(sheetInHand() ? 'sheetLetters' : 'letters'),
    },
    {
      keys: 'I',
      does: 'Turn italics on or off',
      ofCue: true,
      run: act.toggleItalic,
    },
    {
      keys: 'Delete',
      does: 'Delete the selected cues',
      ...inHand(act.remove, hold.remove),
    },
    {
      keys: 'K',
      does: 'Take the next kind in hand: cues, pieces, beats, hits, marks',
      run: hold.nextHand,
    },
    {
      keys: 'P',
      does: 'Find speech again in the stretch of the picked pieces',
      ...inHand(notPicked, findAgain),
    },
    {
      keys: 'V',
      does: 'Accept the picked hits',
      run: hold.acceptHits,
    },
  ]),
];
