/**
 * The keys, what each does, and where it counts. One table serves the keyboard and the list of keys.
 *
 * A key is named as it is read aloud: modifiers first, then the key as it is printed.
 */
import { act } from './actions.ts';
import { hold, pickedNow } from './handActions.ts';
import { showWindow } from './windows.ts';
import { tapping } from '../timing/tapping.ts';
import { strands } from '../strands/strandActions.ts';
import { acceptDoubtful, nextDoubtful, playDoubtful } from '../weaving/weaving.ts';
import { say } from './say.ts';
import { isTaken, nameOfStroke } from './strokes.ts';
import { openHelp, type ListedKey } from './KeysHelp.tsx';
import { TYPING_KEYS, type TypingGroup } from './typingKeys.ts';
import { store } from './store.ts';
import type { travel as TravelActionsNow } from '../travel/travelActions.ts';

type TravelActions = typeof TravelActionsNow;

export interface Key extends ListedKey {
  readonly group:
    | 'Play'
    | 'Move about'
    | 'Cues, or what is in hand'
    | 'Marks and taps'
    | 'The pulse'
    | 'Strands'
    | 'Travel'
    | 'Rows and view'
    | 'Programme'
    | TypingGroup;
  /** Undefined where another part of the interface answers the key itself. */
  readonly run?: () => void;
  /** Whether it works on cues or on what else is in hand. */
  readonly ofHand?: boolean;
}

const isIn = (place: string): boolean => window.location.pathname.endsWith(`/${place}`);

/** One key for cues and for whatever else is in hand, which is seen only in Timing. */
const inHand = (cues: () => void, others: () => void): Pick<Key, 'run' | 'ofHand'> => ({
  run: () => (store.getState().view.hand === 'cues' || !isIn('timing') ? cues() : others()),
  ofHand: true,
});

/** What Travel does is loaded with it. */
const inTravel = (run: (travel: TravelActions) => void) => () => {
  if (isIn('travel')) void import('../travel/travelActions.ts').then(({ travel }) => run(travel));
};

const notPicked = () => say.note('Take pieces in hand in Timing, and pick those to find again.');

const findAgain = () =>
  store.getState().view.hand === 'pieces' && pickedNow().length > 0
    ? showWindow('findAgain')
    : notPicked();

/** Whether what a key works on can be seen: nothing else is changed by it. */
const isSeen = ({ group, ofHand }: Key): boolean => {
  if (group === 'The pulse') return isIn('timing');
  return !isIn('material') || !(ofHand ?? group === 'Cues, or what is in hand');
};

export const KEYS: readonly Key[] = [
  { keys: 'Space', does: 'Play or stop', group: 'Play', run: act.togglePlay },
  { keys: 'Tab', does: 'Play the cue again', group: 'Play', ...inHand(act.playCue, hold.play) },
  {
    keys: 'Enter',
    does: 'Go on to the next cue and play it',
    group: 'Play',
    ...inHand(act.goOn, hold.goOn),
  },
  { keys: 'L', does: 'Go round in what is played', group: 'Play', run: act.toggleLoop },
  { keys: '1', does: 'Half speed', group: 'Play', run: () => act.setSpeed(0.5) },
  { keys: '2', does: 'Three quarters of the speed', group: 'Play', run: () => act.setSpeed(0.75) },
  { keys: '3', does: 'Full speed', group: 'Play', run: () => act.setSpeed(1) },

  { keys: 'Left', does: 'Back a frame', group: 'Move about', run: () => act.stepFrames(-1) },
  { keys: 'Right', does: 'On a frame', group: 'Move about', run: () => act.stepFrames(1) },
  {
    keys: 'Shift Left',
    does: 'Back ten frames',
    group: 'Move about',
    run: () => act.stepFrames(-10),
  },
  {
    keys: 'Shift Right',
    does: 'On ten frames',
    group: 'Move about',
    run: () => act.stepFrames(10),
  },
  { keys: 'Home', does: 'To the start of the cue', group: 'Move about', run: act.toCueStart },
  { keys: 'End', does: 'To the end of the cue', group: 'Move about', run: act.toCueEnd },
  {
    keys: 'Ctrl Home',
    does: 'To the start of the programme',
    group: 'Move about',
    run: act.toStart,
  },
  { keys: 'Ctrl End', does: 'To the end of the programme', group: 'Move about', run: act.toEnd },
  {
    keys: 'Up',
    does: 'To the cue before',
    group: 'Move about',
    ...inHand(act.selectBefore, hold.before),
  },
  {
    keys: 'Down',
    does: 'To the next cue',
    group: 'Move about',
    ...inHand(act.selectNext, hold.next),
  },
  {
    keys: 'Page Up',
    does: 'To the start of the cue, or the one before',
    group: 'Move about',
    run: act.toCueBefore,
  },
  { keys: 'Page Down', does: 'To the next cue', group: 'Move about', run: act.toCueAfter },

  {
    keys: 'Shift Up',
    does: 'Select the cue before too',
    group: 'Cues, or what is in hand',
    ...inHand(act.extendBefore, hold.extendBefore),
  },
  {
    keys: 'Shift Down',
    does: 'Select the next cue too',
    group: 'Cues, or what is in hand',
    ...inHand(act.extendNext, hold.extendNext),
  },
  {
    keys: 'Ctrl A',
    does: 'Select every cue',
    group: 'Cues, or what is in hand',
    ...inHand(act.selectAll, hold.all),
  },
  {
    keys: 'Esc',
    does: 'Select nothing; put back what is being dragged',
    group: 'Cues, or what is in hand',
    ...inHand(act.selectNone, hold.none),
  },
  {
    keys: 'N',
    does: 'New cue at the playhead',
    group: 'Cues, or what is in hand',
    ...inHand(act.addCue, hold.add),
  },
  { keys: 'E', does: 'Edit the text of the cue', group: 'Cues, or what is in hand' },
  {
    keys: '[',
    does: 'Start the cue at the playhead; a seam takes both cues along',
    group: 'Cues, or what is in hand',
    ...inHand(
      () => act.trim('start'),
      () => hold.trim('start'),
    ),
  },
  {
    keys: ']',
    does: 'End the cue at the playhead; a seam takes both cues along',
    group: 'Cues, or what is in hand',
    ...inHand(
      () => act.trim('end'),
      () => hold.trim('end'),
    ),
  },
  {
    keys: '\\',
    does: 'Split the cue at the playhead',
    group: 'Cues, or what is in hand',
    ...inHand(() => act.split(), hold.split),
  },
  {
    keys: 'J',
    does: 'Join to the next cue, or join the selected ones',
    group: 'Cues, or what is in hand',
    ...inHand(act.join, hold.join),
  },
  {
    keys: 'Alt Left',
    does: 'Move the selected cues back a frame',
    group: 'Cues, or what is in hand',
    ...inHand(
      () => act.nudge(-1),
      () => hold.nudge(-1),
    ),
  },
  {
    keys: 'Alt Right',
    does: 'Move the selected cues on a frame',
    group: 'Cues, or what is in hand',
    ...inHand(
      () => act.nudge(1),
      () => hold.nudge(1),
    ),
  },
  {
    keys: 'Alt Shift Left',
    does: 'Move them back ten frames',
    group: 'Cues, or what is in hand',
    ...inHand(
      () => act.nudge(-10),
      () => hold.nudge(-10),
    ),
  },
  {
    keys: 'Alt Shift Right',
    does: 'Move them on ten frames',
    group: 'Cues, or what is in hand',
    ...inHand(
      () => act.nudge(10),
      () => hold.nudge(10),
    ),
  },
  {
    keys: 'Shift End',
    does: 'Select this cue and all after it, to move or stretch them together',
    group: 'Cues, or what is in hand',
    run: () => act.selectFromHere('end'),
  },
  {
    keys: 'Shift Home',
    does: 'Select this cue and all before it',
    group: 'Cues, or what is in hand',
    run: () => act.selectFromHere('start'),
  },
  {
    keys: 'Shift [',
    does: 'Stretch the selected cues to begin at the playhead',
    group: 'Cues, or what is in hand',
    run: () => act.stretch('start'),
  },
  {
    keys: 'Shift ]',
    does: 'Stretch the selected cues to end at the playhead',
    group: 'Cues, or what is in hand',
    run: () => act.stretch('end'),
  },
  { keys: 'G', does: 'Close small gaps', group: 'Cues, or what is in hand', run: act.closeGaps },
  {
    keys: 'Shift G',
    does: 'Hold each selected cue until the next begins',
    group: 'Cues, or what is in hand',
    run: act.holdCues,
  },
  {
    keys: 'Alt V',
    does: 'End the selected cues with the voice',
    group: 'Cues, or what is in hand',
    run: act.trimToVoice,
  },
  {
    keys: 'Alt T',
    does: 'Tie the selected cues to their words as they stand, or set them free',
    group: 'Cues, or what is in hand',
    run: act.tieOrFree,
  },
  {
    keys: 'Alt B',
    does: 'Set words onto beats, bar lines, marks or hits, or evenly by syllables',
    group: 'Cues, or what is in hand',
    run: () => showWindow('ontoBeat'),
  },
  {
    keys: 'Z',
    does: 'Weave: give all words their times on the sound',
    group: 'Cues, or what is in hand',
    run: () => showWindow('weave'),
  },
  {
    keys: 'Shift Z',
    does: 'Go to the next doubtful word and play it',
    group: 'Cues, or what is in hand',
    run: nextDoubtful,
  },
  {
    keys: 'Alt D',
    does: 'Play the doubtful words only, one after the other',
    group: 'Cues, or what is in hand',
    run: playDoubtful,
  },
  {
    keys: 'Shift V',
    does: 'Accept the doubtful words of the selected cues: they become pins',
    group: 'Cues, or what is in hand',
    run: acceptDoubtful,
  },
  {
    keys: 'Alt Z',
    does: 'How the words are woven: what is sure, how fast, where text and sound disagree',
    group: 'Cues, or what is in hand',
    run: () => showWindow('woven'),
  },
  {
    keys: 'Shift C',
    does: 'Cut cues anew: by sense and pauses, or so many words each',
    group: 'Cues, or what is in hand',
    run: () => showWindow('cutCues'),
  },
  {
    keys: 'W',
    does: 'Fit the lines: break them by sense, split what is too long',
    group: 'Cues, or what is in hand',
    run: () => showWindow('fitLines'),
  },
  {
    keys: 'Shift W',
    does: 'Merge short cues',
    group: 'Cues, or what is in hand',
    run: () => showWindow('mergeCues'),
  },
  {
    keys: 'Y',
    does: 'Letters and marks: capitals, quotes, dashes, figures',
    group: 'Cues, or what is in hand',
    run: () => showWindow('letters'),
  },
  {
    keys: 'I',
    does: 'Italics on or off',
    group: 'Cues, or what is in hand',
    run: act.toggleItalic,
  },
  {
    keys: 'Delete',
    does: 'Delete the selected cues',
    group: 'Cues, or what is in hand',
    ...inHand(act.remove, hold.remove),
  },

  {
    keys: 'K',
    does: 'Take the next kind in hand: cues, pieces, beats, hits, marks',
    group: 'Cues, or what is in hand',
    run: hold.nextHand,
  },
  {
    keys: 'P',
    does: 'Find speech again in the stretch of the picked pieces',
    group: 'Cues, or what is in hand',
    ...inHand(notPicked, findAgain),
  },
  {
    keys: 'V',
    does: 'Accept the picked hits',
    group: 'Cues, or what is in hand',
    run: hold.acceptHits,
  },

  {
    keys: "'",
    does: 'Drop a mark at the playhead, playing or not',
    group: 'Marks and taps',
    run: hold.dropMark,
  },
  {
    keys: ';',
    does: 'Tap the next mark, cue, word, line or beat; hold for its length',
    group: 'Marks and taps',
  },
  {
    keys: 'U',
    does: 'Take the last tap back while tapping',
    group: 'Marks and taps',
    run: tapping.takeBack,
  },
  { keys: 'T', does: 'Tap for the next kind', group: 'Marks and taps', run: tapping.nextKind },
  {
    keys: 'Shift T',
    does: 'Play what was tapped last, with clicks',
    group: 'Marks and taps',
    run: tapping.playBack,
  },
  {
    keys: 'C',
    does: 'Clicks on marks, beats or starts on or off',
    group: 'Marks and taps',
    run: act.toggleClicks,
  },
  {
    keys: 'M',
    does: 'The table of marks',
    group: 'Marks and taps',
    run: () => showWindow('marks'),
  },
  {
    keys: 'Shift M',
    does: 'Make marks from beats, pieces or hits',
    group: 'Marks and taps',
    run: () => showWindow('makeMarks'),
  },
  {
    keys: 'Q',
    does: 'Pull the edge nearest to the playhead to the nearest mark',
    group: 'Marks and taps',
    run: act.edgeToMark,
  },
  {
    keys: 'Shift Q',
    does: 'Pull all starts to the nearest beats or marks',
    group: 'Marks and taps',
    run: () => showWindow('pull'),
  },

  { keys: 'H', does: 'Halve the beats', group: 'The pulse', run: hold.halve },
  { keys: 'D', does: 'Double the beats', group: 'The pulse', run: hold.double },
  {
    keys: 'B',
    does: 'A bar begins at the picked beat, or the one nearest the playhead',
    group: 'The pulse',
    run: hold.firstBar,
  },
  { keys: 'Shift B', does: 'Bars a beat later', group: 'The pulse', run: () => hold.shiftBars(1) },
  { keys: 'Shift H', does: 'Beats half a beat on', group: 'The pulse', run: hold.shiftHalf },
  { keys: 'R', does: 'The next metre', group: 'The pulse', run: hold.nextMetre },
  { keys: 'X', does: 'Fix the picked beats, or set them free', group: 'The pulse', run: hold.fix },

  {
    keys: 'Alt Up',
    does: 'Take the strand above in hand',
    group: 'Strands',
    run: () => strands.step(-1),
  },
  {
    keys: 'Alt Down',
    does: 'Take the strand below in hand',
    group: 'Strands',
    run: () => strands.step(1),
  },
  {
    keys: 'Alt S',
    does: 'Only the strand in hand, the others out of the way; or all of them',
    group: 'Strands',
    run: strands.toggleOnly,
  },
  {
    keys: 'Alt M',
    does: 'The strand in hand in the picture, or left out',
    group: 'Strands',
    run: strands.toggleMuted,
  },
  {
    keys: 'Alt K',
    does: 'All strands: new ones, names, what is shown',
    group: 'Strands',
    run: () => showWindow('strands'),
  },

  {
    keys: 'Alt R',
    does: 'A new roll, at the end of the programme',
    group: 'Travel',
    run: inTravel((travel) => void travel.add('roll')),
  },
  {
    keys: 'Alt L',
    does: 'A new crawl, from the playhead on',
    group: 'Travel',
    run: inTravel((travel) => void travel.add('crawl')),
  },
  {
    keys: 'Alt A',
    does: 'Cards of a list',
    group: 'Travel',
    run: () => showWindow('cards'),
  },
  {
    keys: 'Alt Page Up',
    does: 'The passage before',
    group: 'Travel',
    run: inTravel((travel) => travel.step(-1)),
  },
  {
    keys: 'Alt Page Down',
    does: 'The next passage',
    group: 'Travel',
    run: inTravel((travel) => travel.step(1)),
  },
  {
    keys: 'Alt E',
    does: 'The next of size, time and speed follows from the other two',
    group: 'Travel',
    run: inTravel((travel) => travel.followNext()),
  },
  {
    keys: 'Alt +',
    does: 'The next faster even speed',
    group: 'Travel',
    run: inTravel((travel) => travel.evenSpeed(1)),
  },
  {
    keys: 'Alt -',
    does: 'The next slower even speed',
    group: 'Travel',
    run: inTravel((travel) => travel.evenSpeed(-1)),
  },

  { keys: '+', does: 'Fewer seconds a row', group: 'Rows and view', run: () => act.widerRow(-1) },
  { keys: '-', does: 'More seconds a row', group: 'Rows and view', run: () => act.widerRow(1) },
  {
    keys: 'S',
    does: 'Snap to edges on or off (Alt holds it off)',
    group: 'Rows and view',
    run: act.toggleSnap,
  },
  {
    keys: 'O',
    does: 'Hear the sound under what is dragged, on or off',
    group: 'Rows and view',
    run: act.toggleScrub,
  },
  {
    keys: 'Shift L',
    does: 'Light up the word that is said in the picture, on or off',
    group: 'Rows and view',
    run: act.toggleLight,
  },
  { keys: 'A', does: 'Safe area on or off', group: 'Rows and view', run: act.toggleSafeArea },

  { keys: 'Ctrl Z', does: 'Undo', group: 'Programme', run: act.undo },
  { keys: 'Ctrl Shift Z', does: 'Redo', group: 'Programme', run: act.redo },
  { keys: 'F', does: 'To the next finding, in Handover', group: 'Programme' },
  { keys: '?', does: 'This list', group: 'Programme', run: showKeys },

  ...TYPING_KEYS,
];

/** Shows the list of keys. */
export function showKeys(): void {
  openHelp(KEYS);
}

const byName = new Map(KEYS.filter((key) => key.run).map((key) => [key.keys, key]));

/** Runs what a key stroke stands for. */
export function answerKey(event: KeyboardEvent): void {
  if (event.defaultPrevented || isTaken(event)) return;
  const key = byName.get(nameOfStroke(event));
  if (!key?.run || !isSeen(key)) return;
  event.preventDefault();
  key.run();
}
