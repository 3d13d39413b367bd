/** The keys that are answered where something is typed: listed with the others. */
import { inGroup, type Key } from './key.ts';

export const TYPING_KEYS: readonly Key[] = [
  ...inGroup('While typing in Words', [
    {
      keys: 'Enter',
      does: 'Keep the line, go on to the next and play it',
    },
    { keys: 'Tab', does: 'Play it again' },
    { keys: 'Shift Enter', does: 'New line in the text' },
    { keys: '\\', does: 'Split at the playhead' },
    {
      keys: 'Backspace',
      does: 'At the start of a line: join it to the one above',
    },
    { keys: 'Alt [', does: 'Start it at the playhead' },
    { keys: 'Alt ]', does: 'End it at the playhead' },
    { keys: 'Ctrl Space', does: 'Play or stop' },
    {
      keys: 'Up',
      does: 'From the first line of a text: to the one above',
    },
    {
      keys: 'Down',
      does: 'From the last line of a text: to the one below',
    },
    { keys: 'Esc', does: 'Leave the text' },
  ]),
  ...inGroup('In Words as text', [
    { keys: 'Ctrl F', does: 'Find and replace' },
    { keys: 'Enter', does: 'A new cue begins at the caret' },
    { keys: 'Shift Enter', does: 'A new line within the cue' },
    {
      keys: 'Backspace',
      does: 'At the start of a cue: join it to the one above',
    },
    { keys: 'Tab', does: 'Play the cue' },
    { keys: 'Ctrl Space', does: 'Play or stop' },
    { keys: 'Ctrl .', does: 'Mend the word at the caret' },
    { keys: 'Ctrl I', does: 'Italics; Ctrl B bold, Ctrl U underlined' },
    { keys: 'Alt C', does: 'Comment to yourself' },
    { keys: 'Alt Enter', does: 'To the cue in Timing' },
    { keys: 'Esc', does: 'Leave the text' },
  ]),
  ...inGroup('On a sheet in Travel', [
    { keys: '[', does: 'What a line is: marks are offered' },
    { keys: 'Tab', does: 'A tab, between a role and a name' },
    { keys: 'Ctrl Enter', does: 'Play the lines that are selected' },
    { keys: 'Ctrl /', does: 'Leave lines out, or take them in again' },
    { keys: 'Ctrl Space', does: 'Play or stop' },
    { keys: 'Esc', does: 'Leave the sheet' },
  ]),
];
