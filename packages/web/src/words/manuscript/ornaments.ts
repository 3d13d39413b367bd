/** What is shown in the manuscript beside its text: where cues begin, who speaks, comments, and what is marked. */
import { RangeSet, StateEffect, StateField, type Extension, type Range } from '@codemirror/state';
import {
  Decoration,
  EditorView,
  ViewPlugin,
  WidgetType,
  type DecorationSet,
  type ViewUpdate,
} from '@codemirror/view';
import type { Cue, Id } from '@cadence/core/programme/programme.ts';
import { spanStylesField } from './spanStyles.ts';
import { paragraphAt, paragraphEnd, paragraphsField } from './paragraphs.ts';

class Speaker extends WidgetType {
  readonly #name: string;
  constructor(name: string) {
    super();
    this.#name = name;
  }
  override eq(other: WidgetType): boolean {
    return other instanceof Speaker && other.#name === this.#name;
  }
  override toDOM(): HTMLElement {
    const label = document.createElement('span');
    label.className = 'cm-speaker';
    label.textContent = this.#name;
    return label;
  }
}

class Comment extends WidgetType {
  readonly #text: string;
  constructor(text: string) {
    super();
    this.#text = text;
  }
  override eq(other: WidgetType): boolean {
    return other instanceof Comment && other.#text === this.#text;
  }
  override toDOM(): HTMLElement {
    const label = document.createElement('div');
    label.className = 'cm-comment';
    label.textContent = this.#text;
    return label;
  }
}

/** Which cue is said now, by its id. */
export const spoken = StateEffect.define<Id | null>();
const spokenField = StateField.define<Id | null>({
  create: () => null,
  update: (now, { effects }) => {
    const set = effects.findLast((effect) => effect.is(spoken));
    return set ? (set.value as Id | null) : now;
  },
});

const begins = Decoration.line({ class: 'cm-begins' });
const current = Decoration.line({ class: 'cm-current' });
const said = Decoration.line({ class: 'cm-said' });

/** Ornaments of the lines in sight. */
function ornamentsOf(view: EditorView): DecorationSet {
  const { state } = view;
  const paragraphs = state.field(paragraphsField);
  const spanStyles = state.field(spanStylesField);
  const now = state.field(spokenField);
  const here = paragraphAt(paragraphs, state.selection.main.head);
  const all: Range<Decoration>[] = [];
  for (const { from, to } of view.visibleRanges) {
    const last = paragraphAt(paragraphs, to);
    for (let place = paragraphAt(paragraphs, from); place <= last; place++) {
      const start = paragraphs.starts[place] ?? 0;
      const end = paragraphEnd(paragraphs, place, state.doc.length);
      for (let line = state.doc.lineAt(start); ; line = state.doc.line(line.number + 1)) {
        if (line.from === start) all.push(begins.range(line.from));
        if (place === here) all.push(current.range(line.from));
        if (now !== null && paragraphs.cues[place]?.includes(now)) all.push(said.range(line.from));
        if (line.to >= end) break;
      }
      const name = speakerAt(spanStyles, start);
      if (name !== undefined)
        all.push(Decoration.widget({ widget: new Speaker(name), side: -1 }).range(start));
    }
  }
  return Decoration.set(all, true);
}

function speakerAt(spanStyles: DecorationSet, at: number): string | undefined {
  let name: string | undefined;
  spanStyles.between(at, at, (from, _to, { spec }) => {
    if (from === at) name = (spec as { spanStyle: { speaker?: string } }).spanStyle.speaker;
  });
  return name;
}

const inSight = ViewPlugin.fromClass(
  class {
    decorations: DecorationSet;
    constructor(view: EditorView) {
      this.decorations = ornamentsOf(view);
    }
    update(update: ViewUpdate) {
      if (
        update.docChanged ||
        update.viewportChanged ||
        update.selectionSet ||
        update.transactions.some(({ effects }) => effects.length > 0)
      )
        this.decorations = ornamentsOf(update.view);
    }
  },
  { decorations: (plugin) => plugin.decorations },
);

/** Replaces what is marked with a class of its own: words to look at, or what was found. */
export const setMarks = StateEffect.define<{
  readonly kind: 'slip' | 'found';
  readonly marks: DecorationSet;
}>();

const marksField = (kind: 'slip' | 'found') =>
  StateField.define<DecorationSet>({
    create: () => RangeSet.empty,
    update(now, { changes, docChanged, effects }) {
      let marks = now;
      if (docChanged) {
        // What is typed in is looked at anew.
        marks = now.map(changes);
        changes.iterChangedRanges((_from, _to, from, to) => {
          marks = marks.update({ filterFrom: from, filterTo: to, filter: () => false });
        });
      }
      for (const effect of effects)
        if (effect.is(setMarks) && effect.value.kind === kind) marks = effect.value.marks;
      return marks;
    },
    provide: (field) => EditorView.decorations.from(field),
  });

const commentsSet = StateEffect.define<DecorationSet>();
const commentsField = StateField.define<DecorationSet>({
  create: () => RangeSet.empty,
  update(now, { changes, docChanged, effects }) {
    const set = effects.findLast((effect) => effect.is(commentsSet));
    if (set) return set.value as DecorationSet;
    return docChanged ? now.map(changes) : now;
  },
  provide: (field) => EditorView.decorations.from(field),
});

/**
 * Shows the comments of cues, each under its text.
 *
 * @param ends  where the text of each cue ends
 */
export const setComments = (cues: readonly Cue[], ends: readonly number[]): StateEffect<unknown> =>
  commentsSet.of(
    Decoration.set(
      cues.flatMap(({ comment }, at) =>
        comment
          ? [
              Decoration.widget({ widget: new Comment(comment), side: 1, block: true }).range(
                ends[at] ?? 0,
              ),
            ]
          : [],
      ),
    ),
  );

export const ornaments: Extension = [
  spokenField,
  inSight,
  marksField('slip'),
  marksField('found'),
  commentsField,
];
