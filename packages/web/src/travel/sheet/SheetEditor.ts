/**
 * The sheet of a passage: CodeMirror, with each line shown as it is understood and its time in the margin.
 *
 * What is typed is seen in the strip at once, as a draft, and becomes an edit of the programme when typing rests and when
 * the editor is left. The programme's undo is the only one.
 */
import { completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap } from '@codemirror/commands';
import {
  Annotation,
  EditorState,
  StateEffect,
  StateField,
  type ChangeSpec,
  type Text,
} from '@codemirror/state';
import {
  Decoration,
  EditorView,
  gutter,
  keymap,
  placeholder,
  type DecorationSet,
} from '@codemirror/view';
import type { Id } from '@cadence/core/programme/programme.ts';
import { LONGEST_SHEET } from '@cadence/core/programme/record/limits.ts';
import { act } from '../../desk/actions.ts';
import { draft, makeTyped, redo, typing, undo } from '../../desk/desk.ts';
import { beforeLeaving } from '../../sync/leaving.ts';
import { say } from '../../desk/say.ts';
import { TimeMarker } from '../../kit/timeMarker.ts';
import { openNow, store } from '../../desk/store.ts';
import { stage } from '../../picture/studio.ts';
import { travel } from '../travel.ts';
import { completing } from './completing.ts';
import { setSeparator, sheetMarks, understood } from './sheetMarks.ts';

/** The pause after which typing rests and is kept, in milliseconds. */
const REST = 700;

const fromProgramme = Annotation.define<boolean>();
const retimed = StateEffect.define<null>();

export interface SheetAsks {
  /** What stands in the margin of a line, counted from 0: when it comes into sight, and for how long. */
  timeOf(line: number): { readonly from: string; readonly lasts: string } | undefined;
  /** The caret came to a line, counted from 0, by hand. */
  atLine(line: number): void;
  pictures(): readonly string[];
  /** Asked by a key to play what is selected. */
  play(): void;
}

export class SheetEditor {
  readonly #view: EditorView;
  readonly #passage: Id;
  readonly #offs: (() => void)[];
  #timer: ReturnType<typeof setTimeout> | undefined;
  /** Whether something is typed that is not kept yet. */
  #open = false;

  constructor(parent: HTMLElement, passage: Id, asks: SheetAsks) {
    this.#passage = passage;
    const { sheet = '', separator = null, kind } = openNow().programme.passages[passage] ?? {};
    const done = (run: () => void) => () => {
      run();
      return true;
    };
    this.#view = new EditorView({
      parent,
      state: EditorState.create({
        doc: sheet,
        extensions: [
          sheetMarks,
          slips,
          completing(() => asks.pictures()),
          gutter({
            class: 'cm-times',
            renderEmptyElements: false,
            lineMarker: (view, block) => {
              const time = asks.timeOf(view.state.doc.lineAt(block.from).number - 1);
              return time === undefined ? null : new TimeMarker(time.from, time.lasts);
            },
            lineMarkerChange: (update) =>
              update.docChanged ||
              update.transactions.some(({ effects }) => effects.some((each) => each.is(retimed))),
            initialSpacer: () => new TimeMarker('00:00', '00.0 s'),
          }),
          // Items of a crawl are sentences; rows of a roll stand in columns.
          kind === 'crawl' ? EditorView.lineWrapping : [],
          EditorState.allowMultipleSelections.of(false),
          placeholder('Paste the names here, or type a role, a Tab and a name.'),
          EditorView.contentAttributes.of({
            'aria-label': 'Sheet',
            spellcheck: 'false',
            tabindex: '0',
          }),
          keymap.of([
            // Before the keys of completion, which would take it.
            { key: 'Ctrl-Space', run: done(act.togglePlay) },
            ...completionKeymap,
            { key: 'Mod-Enter', run: done(() => asks.play()) },
            { key: 'Tab', run: () => this.put('\t') },
            { key: 'Mod-z', run: done(() => this.#inHistory(undo)) },
            { key: 'Mod-Shift-z', run: done(() => this.#inHistory(redo)) },
            { key: 'Mod-y', run: done(() => this.#inHistory(redo)) },
            { key: 'Mod-/', run: done(() => this.toggleComment()) },
            { key: 'Escape', run: done(() => this.#view.contentDOM.blur()) },
            ...defaultKeymap,
          ]),
          EditorView.updateListener.of((update) => {
            const own = update.transactions.some((each) => each.annotation(fromProgramme));
            if (own) return;
            if (update.docChanged) this.#typed();
            if (update.selectionSet || update.docChanged)
              asks.atLine(update.state.doc.lineAt(update.state.selection.main.head).number - 1);
          }),
          EditorView.domEventHandlers({
            drop: (event) => (event.dataTransfer?.files.length ?? 0) > 0,
            blur: () => this.keep(),
          }),
        ],
      }),
    });
    this.#view.dispatch({ effects: setSeparator.of(separator) });
    this.#offs = [store.subscribe(() => this.#heard()), beforeLeaving(this.keep)];
  }

  /** Keeps what was typed and takes the editor away. */
  close(): void {
    this.keep();
    for (const off of this.#offs) off();
    this.#view.destroy();
  }

  focus(): void {
    this.#view.focus();
  }

  /** Brings a line, counted from 0, into sight, unless it is. */
  reveal(line: number): void {
    if (line < 0 || line >= this.#view.state.doc.lines || this.#view.hasFocus) return;
    const { from } = this.#view.state.doc.line(line + 1);
    this.#view.dispatch({
      effects: EditorView.scrollIntoView(from, { y: 'center' }),
      annotations: fromProgramme.of(true),
    });
  }

  /** Underlines texts, each on a line counted from 0. */
  underline(places: readonly { readonly line: number; readonly text: string }[]): void {
    const { doc } = this.#view.state;
    const marks = places.flatMap(({ line, text }) => {
      const range = placeIn(doc, line, text);
      return range ? [slip.range(range.from, range.to)] : [];
    });
    this.#view.dispatch({
      effects: setSlips.of(Decoration.set(marks, true)),
      annotations: fromProgramme.of(true),
    });
  }

  /** Selects a text on a line counted from 0. */
  select(line: number, text: string): void {
    const range = placeIn(this.#view.state.doc, line, text);
    if (!range) return;
    this.#view.dispatch({
      selection: { anchor: range.from, head: range.to },
      effects: EditorView.scrollIntoView(range.from, { y: 'center' }),
    });
    this.focus();
  }

  /** Writes another text in the place of one on a line counted from 0. */
  replace(line: number, text: string, insert: string): void {
    const range = placeIn(this.#view.state.doc, line, text);
    if (range) this.#view.dispatch({ changes: { ...range, insert } });
    this.keep();
  }

  /** The times in the margin are other ones. */
  retime(): void {
    this.#view.dispatch({ effects: retimed.of(null), annotations: fromProgramme.of(true) });
  }

  /** How the sheet is understood as it stands. */
  read() {
    return this.#view.state.field(understood).read;
  }

  /** Puts text in the place of what is selected. */
  put(insert: string): boolean {
    this.#view.dispatch(this.#view.state.replaceSelection(insert), { scrollIntoView: true });
    return true;
  }

  /** Puts a mark before the line of the caret, on a line of its own where it holds for more than one. */
  mark(mark: string, ownLine: boolean): void {
    const { state } = this.#view;
    const line = state.doc.lineAt(state.selection.main.from);
    const insert = ownLine ? `[${mark}]\n` : `[${mark}] `;
    this.#view.dispatch({
      changes: { from: line.from, insert },
      selection: { anchor: line.from + insert.length + (state.selection.main.from - line.from) },
      scrollIntoView: true,
    });
    this.focus();
  }

  /** The lines that the selection touches, counted from 0: the first and the last. */
  selectedLines(): readonly [number, number] {
    const { doc, selection } = this.#view.state;
    const { from, to } = selection.main;
    return [doc.lineAt(from).number - 1, doc.lineAt(to).number - 1];
  }

  /** Makes comments of the lines that are selected, or takes them in again where all of them are. */
  toggleComment(): void {
    const { state } = this.#view;
    const { from, to } = state.selection.main;
    const [first, last] = [state.doc.lineAt(from).number, state.doc.lineAt(to).number];
    const lines = Array.from({ length: last - first + 1 }, (_, at) => state.doc.line(first + at));
    const all = lines.every(({ text }) => text.startsWith('//') || text.trim() === '');
    this.#view.dispatch({
      changes: lines.flatMap(({ from: at, text }): ChangeSpec[] => {
        if (text.trim() === '') return [];
        const length = /^\/\/ ?/.exec(text)?.[0].length ?? 0;
        return all ? [{ from: at, to: at + length }] : [{ from: at, insert: '// ' }];
      }),
    });
  }

  /** Keeps what was written since it was last kept. */
  readonly keep = (): void => {
    clearTimeout(this.#timer);
    if (!this.#open || !store.getState().open) return;
    this.#open = false;
    const passage = openNow().programme.passages[this.#passage];
    if (!passage) return;
    makeTyped(travel.setSheet(this.#text())(openNow().programme, this.#passage, travel.measure));
  };

  #text(): string {
    return this.#view.state.doc.toString();
  }

  #inHistory(go: () => void): void {
    this.keep();
    go();
  }

  #typed(): void {
    const text = this.#text();
    const { programme } = openNow();
    const passage = programme.passages[this.#passage];
    if (!passage) return;
    if (text.length > LONGEST_SHEET) {
      say.problem(`A sheet may have ${LONGEST_SHEET.toLocaleString('en-GB')} characters at most.`);
      return;
    }
    this.#open = true;
    const edit = travel.setSheet(text)(programme, this.#passage, travel.measure);
    draft(edit);
    typing(edit);
    clearTimeout(this.#timer);
    // Letters that no font here has are lent by one that comes first.
    this.#timer = setTimeout(() => {
      void stage.passage(programme, { ...passage, sheet: text }).finally(this.keep);
    }, REST);
  }

  /** Brings the text in line with the programme, where something else changed it. */
  #heard(): void {
    const passage = store.getState().open?.programme.passages[this.#passage];
    if (!passage || this.#open) return;
    const { sheet, separator = null } = passage;
    const state = this.#view.state;
    const effects =
      state.field(understood).separator === separator ? [] : [setSeparator.of(separator)];
    const now = this.#text();
    if (now === sheet && effects.length === 0) return;
    this.#view.dispatch({
      ...(now !== sheet && { changes: difference(now, sheet) }),
      effects,
      annotations: fromProgramme.of(true),
    });
  }
}

const slip = Decoration.mark({ class: 'cm-slip' });
const setSlips = StateEffect.define<DecorationSet>();
const slips = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (marks, { changes, effects }) =>
    effects.find((effect) => effect.is(setSlips))?.value ?? marks.map(changes),
  provide: (field) => EditorView.decorations.from(field),
});

/** Where a text stands on a line counted from 0; undefined where it does not. */
function placeIn(doc: Text, line: number, text: string): { from: number; to: number } | undefined {
  if (line < 0 || line >= doc.lines || text === '') return undefined;
  const { from, text: whole } = doc.line(line + 1);
  const at = whole.lastIndexOf(text);
  return at < 0 ? undefined : { from: from + at, to: from + at + text.length };
}

/** The one stretch in which two texts differ, so that the caret stays where it is. */
function difference(before: string, after: string) {
  let from = 0;
  while (from < before.length && from < after.length && before[from] === after[from]) from++;
  let end = 0;
  while (
    end < before.length - from &&
    end < after.length - from &&
    before[before.length - 1 - end] === after[after.length - 1 - end]
  )
    end++;
  return { from, to: before.length - end, insert: after.slice(from, after.length - end) };
}
