/** From what was typed in the manuscript to an edit of the programme. */
import type { EditorState } from '@codemirror/state';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { rewrite } from '@cadence/core/programme/manuscript.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { paragraphAt, paragraphEnd, paragraphsField } from './paragraphs.ts';
import { linesAt, spanStylesField } from './spanStyles.ts';

/**
 * The edit that brings the cues of `strand` in line with what was typed since it was last kept.
 *
 * @returns  undefined where nothing was typed
 */
export function editOfTyping(
  state: EditorState,
  programme: Programme,
  strand: Id,
  newId: () => Id,
): Edit | undefined {
  const now = state.field(paragraphsField);
  const { changed, gone } = now;
  if (changed === null) return undefined;
  const count = now.starts.length;
  let first = paragraphAt(now, Math.min(changed.from, state.doc.length));
  let last = paragraphAt(now, Math.min(changed.to, state.doc.length));
  while (first > 0 && now.cues[first]?.length === 0) first--;
  while (last + 1 < count && now.cues[last + 1]?.length === 0) last++;
  const marks = state.field(spanStylesField);
  const paragraphs = now.cues.slice(first, last + 1).map((cues, at) => {
    const from = now.starts[first + at] ?? 0;
    const to = paragraphEnd(now, first + at, state.doc.length);
    return { cues, text: linesAt(state.doc, marks, from, to) };
  });
  const written = paragraphs.filter(
    ({ cues, text }) => cues.length > 0 || plainText(text) !== '' || count > 1,
  );
  return rewrite(programme, strand, { paragraphs: written, gone }, newId);
}
