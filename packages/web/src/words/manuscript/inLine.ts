/** Bringing the text of the editor in line with the cues of the programme. */
import type { EditorState, TransactionSpec } from '@codemirror/state';
import type { Cue, Id } from '@cadence/core/programme/programme.ts';
import { differing, plainText, sameText } from '@cadence/core/text/lines.ts';
import { linesAt, spanStylesField, marksOf, remark } from './spanStyles.ts';
import { setComments } from './ornaments.ts';
import { NO_PARAGRAPHS, paragraphEnd, paragraphsField, setParagraphs } from './paragraphs.ts';

/** Whether each paragraph is that of one cue, with nothing left to keep. */
export function isInLine(state: EditorState, cues: readonly Cue[]): boolean {
  const now = state.field(paragraphsField);
  return (
    now.changed === null &&
    now.cues.length === Math.max(1, cues.length) &&
    cues.every(({ id }, at) => now.cues[at]?.length === 1 && now.cues[at]?.[0] === id)
  );
}

/** How many paragraphs at the beginning and at the end are those of the cues already, and look like them. */
function settled(
  state: EditorState,
  cues: readonly Cue[],
  known: ReadonlyMap<Id, Cue>,
): { head: number; tail: number } {
  const now = state.field(paragraphsField);
  const marks = state.field(spanStylesField);
  const same = (place: number, cue: Cue | undefined): boolean => {
    const ids = now.cues[place];
    if (!cue || ids?.length !== 1 || ids[0] !== cue.id) return false;
    if (known.get(cue.id) === cue) return true;
    const to = paragraphEnd(now, place, state.doc.length);
    return sameText(linesAt(state.doc, marks, now.starts[place] ?? 0, to), cue.text);
  };
  const count = now.starts.length;
  const most = Math.min(count, cues.length);
  let head = 0;
  while (head < most && same(head, cues[head])) head++;
  let tail = 0;
  while (tail < most - head && same(count - 1 - tail, cues[cues.length - 1 - tail])) tail++;
  return { head, tail };
}

/**
 * What makes the text of the editor that of cues: the smallest change of it, and new marks where it differs.
 *
 * @param known  the cues that the text was brought in line with the last time
 */
export function broughtInLine(
  state: EditorState,
  cues: readonly Cue[],
  known: ReadonlyMap<Id, Cue>,
): Pick<TransactionSpec, 'changes' | 'effects'> {
  const { head, tail } = settled(state, cues, known);
  const texts = cues.map((cue) => plainText(cue.text));
  const starts: number[] = [];
  const ends: number[] = [];
  let at = 0;
  for (const text of texts) {
    starts.push(at);
    ends.push(at + text.length);
    at += text.length + 1;
  }
  const { by: insert, ...stretch } = differing(state.doc.toString(), texts.join('\n'));
  const from = starts[head] ?? 0;
  const middle = cues.slice(head, cues.length - tail);
  return {
    ...((insert !== '' || stretch.from < stretch.to) && { changes: { ...stretch, insert } }),
    effects: [
      setParagraphs.of({
        ...NO_PARAGRAPHS,
        ...(cues.length > 0 && { starts, cues: cues.map(({ id }) => [id]) }),
      }),
      remark.of({
        from,
        to: Math.max(from, ends[cues.length - tail - 1] ?? from),
        marks: middle.flatMap(({ text }, place) => marksOf(text, starts[head + place] ?? 0)),
      }),
      setComments(cues, ends),
    ],
  };
}
