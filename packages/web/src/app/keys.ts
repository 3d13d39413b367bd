/**
 * The keys, what each does, and where it counts. One table serves the keyboard and the list of keys.
 *
 * A key is named as it is read aloud: modifiers first, then the key as it is printed.
 */
import { act } from './actions.ts';
import { isTaken, nameOfStroke } from './strokes.ts';
import { openHelp, type ListedKey } from './KeysHelp.tsx';

export interface Key extends ListedKey {
  readonly group:
    'Play' | 'Move about' | 'Cues' | 'Rows and view' | 'Programme' | 'While typing in Words';
  /** Undefined where another part of the interface answers the key itself. */
  readonly run?: () => void;
}

export const KEYS: readonly Key[] = [
  { keys: 'Space', does: 'Play or stop', group: 'Play', run: act.togglePlay },
  { keys: 'Tab', does: 'Play the cue again', group: 'Play', run: act.playCue },
  { keys: 'Enter', does: 'Go on to the next cue and play it', group: 'Play', run: act.goOn },
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
  { keys: 'Up', does: 'To the cue before', group: 'Move about', run: act.selectBefore },
  { keys: 'Down', does: 'To the next cue', group: 'Move about', run: act.selectNext },
  {
    keys: 'Page Up',
    does: 'To the start of the cue, or the one before',
    group: 'Move about',
    run: act.toCueBefore,
  },
  { keys: 'Page Down', does: 'To the next cue', group: 'Move about', run: act.toCueAfter },

  { keys: 'Shift Up', does: 'Select the cue before too', group: 'Cues', run: act.extendBefore },
  { keys: 'Shift Down', does: 'Select the next cue too', group: 'Cues', run: act.extendNext },
  { keys: 'Ctrl A', does: 'Select every cue', group: 'Cues', run: act.selectAll },
  {
    keys: 'Esc',
    does: 'Select nothing; put back what is being dragged',
    group: 'Cues',
    run: act.selectNone,
  },
  { keys: 'N', does: 'New cue at the playhead', group: 'Cues', run: act.addCue },
  { keys: 'E', does: 'Edit the text of the cue', group: 'Cues' },
  {
    keys: '[',
    does: 'Start the cue at the playhead; a seam takes both cues along',
    group: 'Cues',
    run: () => act.trim('start'),
  },
  {
    keys: ']',
    does: 'End the cue at the playhead; a seam takes both cues along',
    group: 'Cues',
    run: () => act.trim('end'),
  },
  { keys: '\\', does: 'Split the cue at the playhead', group: 'Cues', run: () => act.split() },
  {
    keys: 'J',
    does: 'Join to the next cue, or join the selected ones',
    group: 'Cues',
    run: act.join,
  },
  {
    keys: 'Alt Left',
    does: 'Move the selected cues back a frame',
    group: 'Cues',
    run: () => act.nudge(-1),
  },
  {
    keys: 'Alt Right',
    does: 'Move the selected cues on a frame',
    group: 'Cues',
    run: () => act.nudge(1),
  },
  {
    keys: 'Alt Shift Left',
    does: 'Move them back ten frames',
    group: 'Cues',
    run: () => act.nudge(-10),
  },
  {
    keys: 'Alt Shift Right',
    does: 'Move them on ten frames',
    group: 'Cues',
    run: () => act.nudge(10),
  },
  { keys: 'G', does: 'Close small gaps', group: 'Cues', run: act.closeGaps },
  { keys: 'I', does: 'Italics on or off', group: 'Cues', run: act.toggleItalic },
  { keys: 'Delete', does: 'Delete the selected cues', group: 'Cues', run: act.remove },

  { keys: '+', does: 'Fewer seconds a row', group: 'Rows and view', run: () => act.widerRow(-1) },
  { keys: '-', does: 'More seconds a row', group: 'Rows and view', run: () => act.widerRow(1) },
  {
    keys: 'S',
    does: 'Snap to edges on or off (Alt holds it off)',
    group: 'Rows and view',
    run: act.toggleSnap,
  },
  { keys: 'A', does: 'Safe area on or off', group: 'Rows and view', run: act.toggleSafeArea },

  { keys: 'Ctrl Z', does: 'Undo', group: 'Programme', run: act.undo },
  { keys: 'Ctrl Shift Z', does: 'Redo', group: 'Programme', run: act.redo },
  { keys: 'F', does: 'To the next finding, in Handover', group: 'Programme' },
  { keys: '?', does: 'This list', group: 'Programme', run: showKeys },

  {
    keys: 'Enter',
    does: 'Keep the line, go on to the next and play it',
    group: 'While typing in Words',
  },
  { keys: 'Tab', does: 'Play it again', group: 'While typing in Words' },
  { keys: 'Shift Enter', does: 'New line in the text', group: 'While typing in Words' },
  { keys: '\\', does: 'Split at the playhead', group: 'While typing in Words' },
  {
    keys: 'Backspace',
    does: 'At the start of a line: join it to the one above',
    group: 'While typing in Words',
  },
  { keys: 'Alt [', does: 'Start it at the playhead', group: 'While typing in Words' },
  { keys: 'Alt ]', does: 'End it at the playhead', group: 'While typing in Words' },
  { keys: 'Ctrl Space', does: 'Play or stop', group: 'While typing in Words' },
  {
    keys: 'Up',
    does: 'From the first line of a text: to the one above',
    group: 'While typing in Words',
  },
  {
    keys: 'Down',
    does: 'From the last line of a text: to the one below',
    group: 'While typing in Words',
  },
  { keys: 'Esc', does: 'Leave the text', group: 'While typing in Words' },
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
  if (!key?.run) return;
  event.preventDefault();
  key.run();
}
