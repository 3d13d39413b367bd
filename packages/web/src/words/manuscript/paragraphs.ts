/**
 * Which lines of the editor's text are one paragraph, and whose text they are.
 *
 * A paragraph begins at every line end that is typed or pasted, except at one that was typed as a new line within
 * a cue. The field follows every change of the text and remembers what has to be kept in the programme.
 */
import {
  Annotation,
  StateEffect,
  StateField,
  type Text,
  type Transaction,
} from '@codemirror/state';
import type { Id } from '@cadence/core/programme/programme.ts';

/** Where paragraphs begin in the text, in order, and whose they are: see `Paragraph` of core. */
export interface Paragraphs {
  readonly starts: readonly number[];
  /** The cues of each: one; several where they were joined; none where it is new. */
  readonly cues: readonly (readonly Id[])[];
  /** What was changed since it was kept, as a stretch of the text; null for nothing. */
  readonly changed: { readonly from: number; readonly to: number } | null;
  /** Cues whose text was taken out. */
  readonly gone: readonly Id[];
  /** Whether paragraphs came, went or were joined since it was kept. */
  readonly regrouped: boolean;
}

/** On a change whose line ends stay within their paragraph. */
export const withinParagraph = Annotation.define<boolean>();

/** Replaces what is known: after it was kept, or brought in line with the programme. */
export const setParagraphs = StateEffect.define<Paragraphs>();

export const NO_PARAGRAPHS: Paragraphs = {
  starts: [0],
  cues: [[]],
  changed: null,
  gone: [],
  regrouped: false,
};

export const paragraphsField = StateField.define<Paragraphs>({
  create: () => NO_PARAGRAPHS,
  update(now, transaction) {
    const set = transaction.effects.findLast((effect) => effect.is(setParagraphs));
    if (set) return set.value as Paragraphs;
    return transaction.docChanged ? followed(now, transaction) : now;
  },
});

/** The place of the paragraph that a position lies in. */
export function paragraphAt({ starts }: Paragraphs, position: number): number {
  let [low, high] = [0, starts.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((starts[middle] as number) <= position) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Where a paragraph ends, its line end not included. */
export const paragraphEnd = ({ starts }: Paragraphs, place: number, length: number): number =>
  place + 1 < starts.length ? (starts[place + 1] as number) - 1 : length;

/** A change of the text: what went, in places of the old text, and what came, in places of the new. */
interface Made {
  readonly from: number;
  readonly to: number;
  readonly start: number;
  readonly inserted: Text;
}

interface Start {
  readonly at: number;
  readonly cues: readonly Id[];
  /** How its text stood before the change, and whether nothing is left of it now. */
  readonly wasEmpty: boolean;
  readonly gone: boolean;
}

const endsLine = (text: Text): boolean => text.lines > 1 && text.line(text.lines).length === 0;

/** Where a paragraph begins after changes, and whether nothing is left of it. */
function follow(
  [begin, end]: readonly [begin: number, end: number],
  made: readonly Made[],
  keepsLines: boolean,
): Pick<Start, 'at' | 'gone'> {
  let at = begin;
  for (const { from, to, start, inserted } of made) {
    if (from > begin) break;
    const empty = inserted.length === 0;
    if (from === begin && to === begin) {
      // Whole lines that are put before a paragraph do not belong to it.
      const before = !keepsLines && endsLine(inserted);
      return { at: before ? start + inserted.length : start, gone: false };
    }
    if (from === begin) return { at: start, gone: empty && to > end };
    // What is left of it, or took its place, is joined to the one before.
    if (begin < to) return { at: start, gone: empty && to >= end };
    at = begin + start + inserted.length - to;
  }
  return { at, gone: false };
}

/** What typing within a paragraph comes to, which is nearly all that is ever done: it is followed at once. */
function typedWithin(
  now: Paragraphs,
  { changes, startState }: Transaction,
): Paragraphs | undefined {
  let within = true;
  let only: { from: number; by: number; start: number; end: number } | undefined;
  changes.iterChanges((from, to, start, end, inserted) => {
    const { doc } = startState;
    within &&= only === undefined && inserted.lines === 1 && to <= doc.lineAt(from).to;
    only = { from, by: end - start - (to - from), start, end };
  });
  if (!within || !only) return undefined;
  const { from, by, start, end } = only;
  const { changed } = now;
  return {
    ...now,
    starts: now.starts.map((begin) => (begin > from ? begin + by : begin)),
    changed: {
      from: changed ? Math.min(changes.mapPos(changed.from, -1), start) : start,
      to: changed ? Math.max(changes.mapPos(changed.to, 1), end) : end,
    },
  };
}

function followed(now: Paragraphs, transaction: Transaction): Paragraphs {
  const typed = typedWithin(now, transaction);
  if (typed) return typed;
  const { changes, startState, newDoc } = transaction;
  const keepsLines = transaction.annotation(withinParagraph) === true;
  const made: Made[] = [];
  const touched = { from: Infinity, to: 0 };
  changes.iterChanges((from, to, start, end, inserted) => {
    made.push({ from, to, start, inserted });
    touched.from = Math.min(touched.from, start);
    touched.to = Math.max(touched.to, end);
  });
  const starts = now.starts.map((begin, place): Start => {
    const end = paragraphEnd(now, place, startState.doc.length);
    const cues = now.cues[place] ?? [];
    return { cues, wasEmpty: begin === end, ...follow([begin, end], made, keepsLines) };
  });
  const places = new Set(now.starts);
  const begun = keepsLines
    ? []
    : made.flatMap((each) => [
        ...(places.has(each.from) && endsLine(each.inserted) ? [each.start] : []),
        ...lineEnds(each),
      ]);
  const { changed } = now;
  if (changed) {
    touched.from = Math.min(touched.from, changes.mapPos(changed.from, -1));
    touched.to = Math.max(touched.to, changes.mapPos(changed.to, 1));
  }
  return { ...grouped(now, starts, begun, newDoc), changed: touched };
}

/** Where lines begin in what was put in. */
function lineEnds({ start, inserted }: Made): number[] {
  const begun: number[] = [];
  let at = start;
  for (let line = 1; line < inserted.lines; line++) {
    at += inserted.line(line).length + 1;
    begun.push(at);
  }
  return begun;
}

/** Brings starts and new line ends into order; what no longer begins a line is joined to the one before. */
function grouped(
  now: Paragraphs,
  starts: readonly Start[],
  begun: readonly number[],
  doc: Text,
): Omit<Paragraphs, 'changed'> {
  const gone = [...now.gone];
  const fresh = begun.map((at): Start => ({ at, cues: [], wasEmpty: false, gone: false }));
  const all = fresh.length > 0 ? [...starts, ...fresh].sort((a, b) => a.at - b.at) : starts;
  const [places, cues]: [number[], (readonly Id[])[]] = [[], []];
  let regrouped = now.regrouped || begun.length > 0;
  const beginsLine = (at: number) => at === 0 || doc.sliceString(at - 1, at) === '\n';
  for (const start of all) {
    const before = places.length - 1;
    const joins = before >= 0 && (places[before] === start.at || !beginsLine(start.at));
    if (start.gone || (joins && start.wasEmpty)) gone.push(...start.cues);
    else if (joins) cues[before] = [...(cues[before] ?? []), ...start.cues];
    else {
      places.push(start.at);
      cues.push(start.cues);
      continue;
    }
    regrouped = true;
  }
  if (places.length === 0) {
    places.push(0);
    cues.push([]);
  }
  places[0] = 0;
  return { starts: places, cues, gone, regrouped };
}
