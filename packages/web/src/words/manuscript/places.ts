/** Where the cues and their words stand in the text of the manuscript. */
import type { EditorState } from '@codemirror/state';
import type { TextPlace } from '@cadence/core/programme/edits/text/emphasise.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { paragraphAt, paragraphsField } from './paragraphs.ts';

/** A stretch of the plain text of a cue. */
export type Place = Required<TextPlace>;

/** The position in the text at which each cue begins. */
export function startsOfCues(state: EditorState): ReadonlyMap<Id, number> {
  const { starts, cues } = state.field(paragraphsField);
  return new Map(
    cues.flatMap(([id], at): [Id, number][] => (id === undefined ? [] : [[id, starts[at] ?? 0]])),
  );
}

export const startOfCue = (state: EditorState, cue: Id): number | undefined =>
  startsOfCues(state).get(cue);

/** The stretch of a cue that is from `from` to `to` in the text; undefined where no cue begins there. */
function placeAt(state: EditorState, from: number, to: number): Place | undefined {
  const now = state.field(paragraphsField);
  const at = paragraphAt(now, from);
  const start = now.starts[at] ?? 0;
  const [cue] = now.cues[at] ?? [];
  return cue === undefined ? undefined : { cue, from: from - start, to: to - start };
}

/** The word that `position` is in or at the end of. */
export function wordAt(state: EditorState, position: number): Place | undefined {
  const line = state.doc.lineAt(position);
  for (const { 0: word, index } of line.text.matchAll(/[\p{L}\p{M}\p{N}'’-]+/gu)) {
    const from = line.from + index;
    if (from <= position && position <= from + word.length)
      return placeAt(state, from, from + word.length);
  }
  return undefined;
}

/** What is selected of each cue; whole cues where only the caret stands. */
export function placesSelected(state: EditorState): TextPlace[] {
  const now = state.field(paragraphsField);
  const { from, to, empty } = state.selection.main;
  const places: TextPlace[] = [];
  for (let at = paragraphAt(now, from); at <= paragraphAt(now, to); at++) {
    const [cue] = now.cues[at] ?? [];
    const start = now.starts[at] ?? 0;
    if (cue !== undefined)
      places.push(empty ? { cue } : { cue, from: Math.max(0, from - start), to: to - start });
  }
  return places;
}
