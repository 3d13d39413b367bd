/** How a sheet is shown as it is understood: what each of its lines is, and where roles end and names begin. */
import { RangeSetBuilder, StateEffect, StateField, type Extension } from '@codemirror/state';
import {
  Decoration,
  ViewPlugin,
  type DecorationSet,
  type EditorView,
  type ViewUpdate,
} from '@codemirror/view';
import { sheetOf } from '@cadence/core/scene/travelling.ts';
import type { ReadSheet } from '@cadence/core/text/sheet/sheet.ts';

/** What the editor chose for parting roles from names; null where it is guessed. */
export const setSeparator = StateEffect.define<string | null>();

interface Understood {
  readonly separator: string | null;
  readonly read: ReadSheet;
}

/** The sheet as it stands in the editor, understood. */
export const understood = StateField.define<Understood>({
  create: (state) => ({ separator: null, read: sheetOf({ sheet: state.doc.toString() }) }),
  update: (value, transaction) => {
    const chosen = transaction.effects.find((effect) => effect.is(setSeparator));
    if (!chosen && !transaction.docChanged) return value;
    const separator = chosen ? (chosen.value as string | null) : value.separator;
    return { separator, read: sheetOf({ sheet: transaction.newDoc.toString(), separator }) };
  },
});

const KINDS = [
  'title',
  'heading',
  'text',
  'row',
  'name',
  'picture',
  'rule',
  'comment',
  'mark',
] as const;
type Kind = (typeof KINDS)[number];
const line = Object.fromEntries(
  KINDS.map((kind) => [kind, Decoration.line({ class: `cm-is-${kind}` })]),
) as Record<Kind, Decoration>;
const mark = Decoration.mark({ class: 'cm-mark' });
const unknown = Decoration.mark({
  class: 'cm-unknown',
  attributes: { title: 'Unknown mark: treated as text.' },
});
const role = Decoration.mark({ class: 'cm-role' });
const between = Decoration.mark({ class: 'cm-between' });
/** What stands where a role would, before a name of the role above. */
const beside = Decoration.mark({ class: 'cm-beside' });

/** What each line of a sheet is, by its number from 0. */
function kindsOf({ parts }: ReadSheet): Map<number, Kind> {
  const kinds = new Map<number, Kind>();
  for (const part of parts) {
    if (part.kind === 'space') continue;
    if (part.kind === 'row') {
      kinds.set(part.line, 'row');
      for (const name of part.names) kinds.set(name.line, 'row');
    } else if (part.kind === 'columns') for (const name of part.names) kinds.set(name.line, 'name');
    else kinds.set(part.line, part.kind);
  }
  return kinds;
}

const MARKS = /^\s*(?:\[[^\]]*\]\s*)+/;

const known = new WeakMap<ReadSheet, Map<number, Kind>>();

/** The same, worked out once for each sheet that is read. */
function kindsIn(read: ReadSheet): Map<number, Kind> {
  let kinds = known.get(read);
  if (!kinds) known.set(read, (kinds = kindsOf(read)));
  return kinds;
}

/** What is marked of the lines that are in sight. */
function decorate({ state, viewport }: EditorView): DecorationSet {
  const { read } = state.field(understood);
  const kinds = kindsIn(read);
  const notKnown = new Set(read.notUnderstood.map((each) => each.line));
  const builder = new RangeSetBuilder<Decoration>();
  const [first, last] = [viewport.from, viewport.to].map((at) => state.doc.lineAt(at).number);
  for (let number = first ?? 1; number <= (last ?? 0); number++) {
    const { from, to, text } = state.doc.line(number);
    const comment = /^\s*\/\//.test(text);
    const marks = comment ? '' : (MARKS.exec(text)?.[0] ?? '');
    const kind = comment
      ? 'comment'
      : (kinds.get(number - 1) ?? (marks === '' ? undefined : 'mark'));
    if (kind) builder.add(from, from, line[kind]);
    if (marks !== '' && kind !== 'comment')
      builder.add(from, from + marks.trimEnd().length, notKnown.has(number - 1) ? unknown : mark);
    if (kind !== 'row' || !read.separator) continue;
    const rest = text.slice(marks.length);
    const found = read.separator.pattern.exec(rest);
    if (!found) continue;
    const start = from + marks.length + found.index;
    if (found.index > 0) builder.add(from + marks.length, start, role);
    const end = Math.min(to, start + found[0].length);
    if (end > start) builder.add(start, end, found.index > 0 ? between : beside);
  }
  return builder.finish();
}

const shown = ViewPlugin.fromClass(
  class {
    decorations: DecorationSet;
    constructor(view: EditorView) {
      this.decorations = decorate(view);
    }
    update({ view, state, startState, viewportChanged }: ViewUpdate): void {
      const same = state.field(understood) === startState.field(understood, false);
      if (viewportChanged || !same) this.decorations = decorate(view);
    }
  },
  { decorations: ({ decorations }) => decorations },
);

/** Shows a sheet as it is understood. */
export const sheetMarks: Extension = [understood, shown];
