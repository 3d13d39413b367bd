/** The keys that a place answers itself: listed with the others. */
import { inGroup, type Key } from './key.ts';

export const PLACES_OWN_KEYS: readonly Key[] = [
  ...inGroup('While typing in Words', [
    {
      keys: 'Enter',
      does: 'Keep the line, then play the next',
    },
    { keys: 'Tab', does: 'Play the line again' },
    { keys: 'Shift Enter', does: 'New line in the text' },
    { keys: '\\', does: 'Split at the playhead' },
    {
      keys: 'Backspace',
      does: 'At the start of a line: join it to the line above',
    },
    { keys: 'Alt [', does: 'Start the cue at the playhead' },
    { keys: 'Alt ]', does: 'End the cue at the playhead' },
    { keys: 'Ctrl Space', does: 'Play or stop' },
    {
      keys: 'Up',
      does: 'From its first line: go to the cue above',
    },
    {
      keys: 'Down',
      does: 'From its last line: go to the cue below',
    },
    { keys: 'Esc', does: 'Leave the text' },
  ]),
  ...inGroup('In Words as text', [
    { keys: 'Ctrl F', does: 'Find and replace' },
    { keys: 'Enter', does: 'New cue at the caret' },
    { keys: 'Shift Enter', does: 'New line within the cue' },
    {
      keys: 'Backspace',
      does: 'At the start of a cue: join it to the cue above',
    },
    { keys: 'Tab', does: 'Play the cue' },
    { keys: 'Ctrl Space', does: 'Play or stop' },
    { keys: 'Ctrl .', does: 'Correct the word at the caret' },
    { keys: 'Ctrl I', does: 'Italics; Ctrl B bold, Ctrl U underlined' },
    { keys: 'Alt C', does: 'Comment on the cue' },
    { keys: 'Alt Enter', does: 'Go to the cue in Timing' },
    { keys: 'Esc', does: 'Leave the text' },
  ]),
  ...inGroup('On a sheet in Travel', [
    { keys: '[', does: 'List the marks for a line' },
    { keys: 'Tab', does: 'Tab between a role and a name' },
    { keys: 'Ctrl Enter', does: 'Play the selected lines' },
    { keys: 'Ctrl /', does: 'Leave lines out, or restore them' },
    { keys: 'Ctrl Space', does: 'Play or stop' },
    { keys: 'Esc', does: 'Leave the sheet' },
  ]),
  ...inGroup('In Patterns', [
    { keys: 'Alt P', does: 'Apply the pattern to the strand' },
    { keys: 'Alt ,', does: 'Everything comes in a frame earlier' },
    { keys: 'Alt .', does: 'Everything comes in a frame later' },
    { keys: 'Left', does: 'On a thread: its word is said a frame earlier; Right later' },
    { keys: 'Space', does: 'On a thread: move it together with others, or not' },
  ]),
  ...inGroup('On the picture, in Patterns and Timing', [
    { keys: 'Left', does: 'On a text: move it by a pixel; Right, Up and Down too' },
    { keys: 'Shift Left', does: 'On a text: move it by ten pixels' },
    { keys: 'Esc', does: 'Let go of a text that is dragged, where it was' },
  ]),
  ...inGroup('In Handover', [
    { keys: 'F', does: 'Go to the next finding; Enter fixes it' },
    { keys: 'Shift F', does: 'Go to the finding before' },
    { keys: 'Ctrl Enter', does: 'Write the chosen files' },
  ]),
];
