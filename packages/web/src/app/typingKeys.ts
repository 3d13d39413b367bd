/** The keys that Words answers itself, while something is typed: listed with the others. */
import type { ListedKey } from './KeysHelp.tsx';

export type TypingGroup = 'While typing in Words' | 'In Words as text' | 'On a sheet in Travel';

export const TYPING_KEYS: readonly (ListedKey & { readonly group: TypingGroup })[] = [
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

  { keys: 'Ctrl F', does: 'Find and replace', group: 'In Words as text' },
  { keys: 'Enter', does: 'A new cue begins at the caret', group: 'In Words as text' },
  { keys: 'Shift Enter', does: 'A new line within the cue', group: 'In Words as text' },
  {
    keys: 'Backspace',
    does: 'At the start of a cue: join it to the one above',
    group: 'In Words as text',
  },
  { keys: 'Tab', does: 'Play the cue', group: 'In Words as text' },
  { keys: 'Ctrl Space', does: 'Play or stop', group: 'In Words as text' },
  { keys: 'Ctrl .', does: 'Mend the word at the caret', group: 'In Words as text' },
  { keys: 'Ctrl I', does: 'Italics; Ctrl B bold, Ctrl U underlined', group: 'In Words as text' },
  { keys: 'Alt C', does: 'Comment to yourself', group: 'In Words as text' },
  { keys: 'Alt Enter', does: 'To the cue in Timing', group: 'In Words as text' },
  { keys: 'Esc', does: 'Leave the text', group: 'In Words as text' },

  { keys: '[', does: 'What a line is: marks are offered', group: 'On a sheet in Travel' },
  { keys: 'Tab', does: 'A tab, between a role and a name', group: 'On a sheet in Travel' },
  { keys: 'Ctrl /', does: 'Leave lines out, or take them in again', group: 'On a sheet in Travel' },
  { keys: 'Ctrl Space', does: 'Play or stop', group: 'On a sheet in Travel' },
  { keys: 'Esc', does: 'Leave the sheet', group: 'On a sheet in Travel' },
];
