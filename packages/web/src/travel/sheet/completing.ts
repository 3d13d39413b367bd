/** Marks that are offered while one is typed, each with what it says. */
import {
  autocompletion,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete';

/** A mark of a sheet, and what it is for. */
export const MARKS = [
  { mark: 'title', says: 'title' },
  { mark: 'heading', says: 'heading' },
  { mark: '2 columns', says: 'names in two columns, balanced' },
  { mark: '3 columns', says: 'names in three columns, balanced' },
  { mark: '4 columns', says: 'names in four columns, balanced' },
  { mark: 'beside', says: 'beside the block above' },
  { mark: 'larger', says: 'larger, until a blank line' },
  { mark: 'smaller', says: 'smaller, until a blank line' },
  { mark: 'left', says: 'on the left, until a blank line' },
  { mark: 'right', says: 'on the right, until a blank line' },
  { mark: 'rule', says: 'rule' },
  { mark: 'picture ', says: 'picture, by its name' },
  { mark: 'keep together', says: 'kept or left out as one' },
  { mark: 'stays', says: 'always kept when lines are left out' },
] as const;

/** @param pictures  the names of the pictures that there are */
function offer(
  context: CompletionContext,
  pictures: () => readonly string[],
): CompletionResult | null {
  const typed = context.matchBefore(/^\s*(?:\[[^\]]*\]\s*)*\[[^\]]*$/);
  if (!typed) return null;
  const from = typed.from + typed.text.lastIndexOf('[');
  const named = pictures().map((name) => ({ mark: `picture ${name}`, says: 'this picture' }));
  return {
    from,
    options: [
      ...MARKS.filter(({ mark }) => mark !== 'picture ' || named.length === 0),
      ...named,
    ].map(({ mark, says }) => ({
      label: `[${mark}`,
      displayLabel: `[${mark}]`,
      detail: says,
      apply: (view, _completion, start, end) => {
        // A closing bracket that stands already is written over.
        const closed = view.state.sliceDoc(end, end + 1) === ']';
        const open = mark.endsWith(' ');
        const insert = `[${mark}${open ? '' : ']'}`;
        view.dispatch({
          changes: { from: start, to: closed && !open ? end + 1 : end, insert },
          selection: { anchor: start + insert.length },
        });
      },
    })),
  };
}

export const completing = (pictures: () => readonly string[]) =>
  autocompletion({
    override: [(context) => offer(context, pictures)],
    icons: false,
    activateOnTyping: true,
    // The editor gives its keys itself, after Ctrl Space, which plays.
    defaultKeymap: false,
  });
