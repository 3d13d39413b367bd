/**
 * The manuscript as text: CodeMirror with the cues of the strand as its paragraphs.
 *
 * What is typed stands in the editor at once and becomes an edit of the programme when typing rests, when a cue
 * begins, goes or is joined, and when the editor is left. The programme's undo is the only one.
 */
import { defaultKeymap } from '@codemirror/commands';
import { Annotation, EditorSelection, EditorState, type Range } from '@codemirror/state';
import {
  Decoration,
  EditorView,
  keymap,
  placeholder,
  type KeyBinding,
  type ViewUpdate,
} from '@codemirror/view';
import { emphasise, type Emphasis } from '@cadence/core/programme/edits/text/emphasise.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import type { Cue, Id, Programme } from '@cadence/core/programme/programme.ts';
import { plainText, type Line } from '@cadence/core/text/lines.ts';
import { firstEndingAfter } from '@cadence/core/time/range.ts';
import { act } from '../../desk/actions.ts';
import { make, makeTyped, newId, redo, typing, undo } from '../../desk/desk.ts';
import { offer } from '../../desk/offer.tsx';
import { say } from '../../desk/say.ts';
import { beforeLeaving } from '../../sync/leaving.ts';
import { currentStrand, openNow, store } from '../../desk/store.ts';
import { selected } from '../../desk/view.ts';
import { showWindow } from '../../desk/windows.ts';
import { player } from '../../playback/player.ts';
import { htmlOf, linesOfHtml, linesOfPlain } from './clipboard.ts';
import { pastedLyrics } from './pastedLyrics.ts';
import { linesAt, spanStylesField, marksOf, remark } from './spanStyles.ts';
import { margins } from './margin.ts';
import { ornaments, setMarks, spoken } from './ornaments.ts';
import { saidWord } from './saidWord.ts';
import { paragraphsField, setParagraphs, withinParagraph } from './paragraphs.ts';
import { placesSelected, startOfCue, startsOfCues, wordAt, type Place } from './places.ts';
import { editOfTyping } from './typed.ts';
import { broughtInLine, isInLine } from './inLine.ts';

/** The pause after which typing rests and is kept, in milliseconds. */
const REST = 600;
/** How long after a key playing does not scroll the text, in milliseconds. */
const HAND_AWAY = 3000;

/** On a change that brings the text in line with the programme. */
const fromProgramme = Annotation.define<boolean>();

export interface Asks {
  /** Asked by keys: to find, to mend the word at the caret, to write a comment, to go to Timing. */
  find(): void;
  mendWord(): void;
  comment(): void;
  toTiming(): void;
  /** A word that is marked was pressed with the second button. */
  menu(place: Place, x: number, y: number): void;
}

export class ManuscriptEditor {
  readonly #view: EditorView;
  readonly #asks: Asks;
  readonly #offs: (() => void)[];
  /** The strand that was in hand when it was opened: it stays with it. */
  readonly #strand = currentStrand(openNow().programme);
  #cues: readonly Cue[] = [];
  #known = new Map<Id, Cue>();
  #selection: readonly Id[] = [];
  #timer: ReturnType<typeof setTimeout> | undefined;
  #typedAt = 0;
  #closed = false;

  constructor(parent: HTMLElement, asks: Asks) {
    this.#asks = asks;
    this.#view = new EditorView({
      parent,
      state: EditorState.create({
        extensions: [
          paragraphsField,
          spanStylesField,
          ornaments,
          saidWord,
          margins(() => openNow().programme),
          EditorView.lineWrapping,
          EditorState.allowMultipleSelections.of(false),
          placeholder('Write here, or paste a script. Each line becomes a cue.'),
          EditorView.contentAttributes.of({
            'aria-label': 'Manuscript',
            spellcheck: 'false',
            tabindex: '0',
          }),
          keymap.of([...this.#keys(), ...defaultKeymap]),
          EditorView.updateListener.of((update) => this.#updated(update)),
          EditorView.domEventHandlers({
            paste: (event) => this.#paste(event),
            copy: (event) => this.#copy(event),
            cut: (event) =>
              this.#copy(event) && this.#put(this.#view.state.selection.main, '', true),
            // Files that are dropped are for the programme, not for the text.
            drop: (event) => (event.dataTransfer?.files.length ?? 0) > 0,
            blur: () => this.keep(),
            contextmenu: (event) => this.#menu(event),
          }),
        ],
      }),
    });
    const { selection } = store.getState().view;
    this.#selection = selection;
    this.#sync(openNow().programme);
    this.#offs = [
      store.subscribe(() => this.#heard()),
      player.follow(() => this.#follow()),
      beforeLeaving(this.keep),
    ];
    const wanted = selection.at(-1) ?? this.#cueAtPlayhead()?.id;
    if (wanted !== undefined) this.show({ cue: wanted, from: 0, to: 0 });
  }

  /** Keeps what was typed and takes the editor away. */
  close(): void {
    this.keep();
    for (const off of this.#offs) off();
    this.#closed = true;
    clearTimeout(this.#timer);
    this.#view.destroy();
  }

  focus(): void {
    this.#view.focus();
  }

  /** Selects a stretch of a cue's text and brings it into sight. */
  show({ cue, from, to }: Place): void {
    const at = startOfCue(this.#view.state, cue);
    if (at === undefined) return;
    const selection = EditorSelection.single(at + from, at + to);
    this.#view.dispatch({
      selection,
      effects: EditorView.scrollIntoView(selection.main, { y: 'center' }),
    });
  }

  /** Marks stretches of text: words to look at, or what was found. */
  mark(kind: 'slip' | 'found', places: readonly Place[]): void {
    const mark = Decoration.mark({ class: `cm-${kind}` });
    const { doc } = this.#view.state;
    const starts = startsOfCues(this.#view.state);
    const marks = places.flatMap(({ cue, from, to }): Range<Decoration>[] => {
      const at = starts.get(cue);
      return at === undefined || at + to > doc.length || from >= to
        ? []
        : [mark.range(at + from, at + to)];
    });
    this.#view.dispatch({ effects: setMarks.of({ kind, marks: Decoration.set(marks, true) }) });
  }

  /** The word that the caret is in or at the end of. */
  wordAtCaret(): Place | undefined {
    const { state } = this.#view;
    return wordAt(state, state.selection.main.head);
  }

  /** Where the caret stands in the window. */
  caretPoint(): { x: number; y: number } | undefined {
    const at = this.#view.coordsAtPos(this.#view.state.selection.main.head);
    return at ? { x: at.left, y: at.bottom } : undefined;
  }

  /** Keeps what was written since it was last kept, as an edit of the programme. */
  readonly keep = (): void => {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    const edit = this.#unkept();
    if (!edit) return;
    const now = this.#view.state.field(paragraphsField);
    this.#view.dispatch({
      effects: setParagraphs.of({ ...now, changed: null, gone: [], regrouped: false }),
      annotations: fromProgramme.of(true),
    });
    makeTyped(edit);
    this.#sync(openNow().programme);
  };

  /** The edit that what was typed since it was last kept comes to; undefined where nothing was. */
  #unkept(): Edit | undefined {
    const { open } = store.getState();
    return open && this.#strand in open.programme.strands
      ? editOfTyping(this.#view.state, open.programme, this.#strand, newId)
      : undefined;
  }

  #keys(): KeyBinding[] {
    const done = (run: () => void) => () => {
      run();
      return true;
    };
    const emphasis = (kind: Emphasis) => done(() => this.#emphasise(kind));
    return [
      { key: 'Enter', run: () => this.#newLine(false) },
      { key: 'Shift-Enter', run: () => this.#newLine(true) },
      { key: 'Tab', run: done(act.playCue) },
      { key: 'Ctrl-Space', run: done(act.togglePlay) },
      { key: 'Mod-z', run: done(() => this.#inHistory(undo)) },
      { key: 'Mod-Shift-z', run: done(() => this.#inHistory(redo)) },
      { key: 'Mod-y', run: done(() => this.#inHistory(redo)) },
      { key: 'Mod-i', run: emphasis('italic') },
      { key: 'Mod-b', run: emphasis('bold') },
      { key: 'Mod-u', run: emphasis('underline') },
      { key: 'Mod-f', run: done(this.#asks.find) },
      // A menu that opens takes a key that is heard outside of it for a wish to close it.
      { key: 'Mod-.', stopPropagation: true, run: done(this.#asks.mendWord) },
      { key: 'Alt-c', run: done(this.#asks.comment) },
      { key: 'Alt-Enter', run: done(this.#asks.toTiming) },
      { key: 'Alt-[', run: done(() => this.#trim('start')) },
      { key: 'Alt-]', run: done(() => this.#trim('end')) },
      { key: 'Escape', run: done(() => this.#view.contentDOM.blur()) },
    ];
  }

  #inHistory(go: () => void): void {
    this.keep();
    go();
  }

  #trim(edge: 'start' | 'end'): void {
    this.keep();
    act.trim(edge);
  }

  /** A line end at the caret, in the place of the spaces around it. */
  #newLine(within: boolean): boolean {
    const { doc, selection } = this.#view.state;
    let { from, to } = selection.main;
    while (from > 0 && doc.sliceString(from - 1, from) === ' ') from--;
    while (doc.sliceString(to, to + 1) === ' ') to++;
    return this.#put({ from, to }, '\n', within);
  }

  #put({ from, to }: { from: number; to: number }, insert: string, within: boolean): boolean {
    this.#view.dispatch({
      changes: { from, to, insert },
      selection: { anchor: from + insert.length },
      annotations: within ? [withinParagraph.of(true)] : [],
      userEvent: 'input',
      scrollIntoView: true,
    });
    return true;
  }

  #updated(update: ViewUpdate): void {
    if (update.transactions.some((each) => each.annotation(fromProgramme))) return;
    if (update.docChanged) {
      this.#typedAt = Date.now();
      clearTimeout(this.#timer);
      const { regrouped } = update.state.field(paragraphsField);
      if (regrouped && !update.view.composing) queueMicrotask(this.keep);
      else {
        this.#timer = setTimeout(this.#rested, REST);
        const edit = this.#unkept();
        if (edit) typing(edit);
      }
    }
    if (update.selectionSet || update.docChanged) this.#tellSelection();
  }

  /** Typing rests; but what an input method has not finished is left to it. */
  readonly #rested = (): void => {
    if (this.#view.composing) this.#timer = setTimeout(this.#rested, REST);
    else this.keep();
  };

  /** The cues that the selection touches are selected everywhere. */
  #tellSelection(): void {
    const { from, head } = this.#view.state.selection.main;
    const ids = placesSelected(this.#view.state).map(({ cue }) => cue);
    // The one that the caret is in is the one worked on.
    if (head === from) ids.reverse();
    if (ids.join() === this.#selection.join()) return;
    const moved = ids.at(-1) !== this.#selection.at(-1);
    this.#selection = ids;
    store.dispatch(selected(ids));
    const cue = openNow().programme.cues[ids.at(-1) ?? ''];
    if (moved && cue && !player.state().playing) player.seek(cue.start);
  }

  /** Something changed in the store: the programme, or what is selected. */
  #heard(): void {
    const { open, view } = store.getState();
    if (!open) return;
    if (cuesInOrder(open.programme, this.#strand) !== this.#cues) {
      // What is written here and not kept yet goes on top of what came.
      if (this.#view.state.field(paragraphsField).changed !== null) {
        this.keep();
        return;
      }
      this.#sync(open.programme);
    }
    if (view.selection !== this.#selection && view.selection.join() !== this.#selection.join()) {
      this.#selection = view.selection;
      const cue = view.selection.at(-1);
      if (cue !== undefined && !this.#view.hasFocus) this.show({ cue, from: 0, to: 0 });
    }
  }

  /** Brings the text in line with the cues of the programme. */
  #sync(programme: Programme): void {
    const cues = cuesInOrder(programme, this.#strand);
    if (cues === this.#cues && isInLine(this.#view.state, cues)) return;
    const known = this.#known;
    this.#view.dispatch({
      ...broughtInLine(this.#view.state, cues, known),
      annotations: fromProgramme.of(true),
    });
    this.#cues = cues;
    this.#known = new Map(cues.map((cue) => [cue.id, cue]));
    // The first time, what is selected elsewhere decides where the caret is.
    if (known.size > 0) this.#tellSelection();
  }

  #emphasise(emphasis: Emphasis): void {
    this.keep();
    make(emphasise(openNow().programme, placesSelected(this.#view.state), emphasis));
  }

  #paste(event: ClipboardEvent): boolean {
    const data = event.clipboardData;
    if (!data) return false;
    const html = data.getData('text/html');
    const plain = data.getData('text/plain');
    const lines = html === '' ? linesOfPlain(plain) : linesOfHtml(html);
    if (lines.length === 0) return false;
    event.preventDefault();
    this.keep();
    const { from, to } = this.#view.state.selection.main;
    const pasted = this.#putLines(lines, from, to);
    const lyrics = pastedLyrics(lines, plain);
    if (lyrics)
      offer(`These read as lyrics: ${lyrics.changes}.`, 'Write out what is sung', () =>
        this.#writeOut(pasted, lyrics.lines),
      );
    return true;
  }

  /** Puts lyrics as they are sung in the place of those that were pasted. */
  #writeOut(pasted: string, sung: readonly Line[]): void {
    const at = this.#closed ? -1 : this.#view.state.doc.toString().indexOf(pasted);
    if (at < 0) {
      say.note('What was pasted is not here as it was any more.');
      return;
    }
    this.#putLines(sung, at, at + pasted.length);
    if (openNow().programme.facts.sound !== null)
      offer('The lyrics are written out as they are sung.', 'Weave words on the sound', () =>
        showWindow('weave'),
      );
  }

  /** Puts lines in the place of a stretch of the text, and keeps them; gives them as they stand there. */
  #putLines(lines: readonly Line[], from: number, to: number): string {
    const insert = lines.map((line) => plainText([line])).join('\n');
    this.#view.dispatch({
      changes: { from, to, insert },
      selection: { anchor: from + insert.length },
      effects: remark.of({ from, to: from + insert.length, marks: marksOf(lines, from) }),
      userEvent: 'input.paste',
      scrollIntoView: true,
    });
    this.keep();
    return insert;
  }

  /** What is copied keeps its bold and italics for whoever pastes it. */
  #copy(event: ClipboardEvent): boolean {
    const { state } = this.#view;
    const { from, to, empty } = state.selection.main;
    if (empty || !event.clipboardData) return false;
    const lines = linesAt(state.doc, state.field(spanStylesField), from, to);
    event.preventDefault();
    event.clipboardData.setData('text/plain', plainText(lines));
    event.clipboardData.setData('text/html', lines.map(htmlOf).join(''));
    return true;
  }

  #menu(event: MouseEvent): boolean {
    const at = this.#view.posAtCoords({ x: event.clientX, y: event.clientY });
    const place = at === null ? undefined : wordAt(this.#view.state, at);
    if (!place) return false;
    event.preventDefault();
    this.#asks.menu(place, event.clientX, event.clientY);
    return true;
  }

  #cueAtPlayhead(): Cue | undefined {
    const cue = this.#cues[firstEndingAfter(this.#cues, player.time)];
    return cue && cue.start <= player.time ? cue : undefined;
  }

  #said: Id | null = null;

  /** Marks the cue that is said, and keeps it in sight while the hand is away. */
  #follow(): void {
    const cue = this.#cueAtPlayhead();
    const id = cue?.id ?? null;
    if (id === this.#said) return;
    this.#said = id;
    const at = id === null ? undefined : startOfCue(this.#view.state, id);
    const scroll = player.state().playing && Date.now() - this.#typedAt > HAND_AWAY;
    this.#view.dispatch({
      effects: [
        spoken.of(id),
        ...(scroll && at !== undefined
          ? [EditorView.scrollIntoView(at, { y: 'nearest', yMargin: 90 })]
          : []),
      ],
    });
  }
}
