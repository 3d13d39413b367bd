/**
 * The text of a strand as one manuscript: a paragraph a cue. What is written, cut, joined or taken out in it
 * becomes changes to cues.
 */
import { plainText } from '../text/lines.ts';
import { readingWeight } from '../text/readingWeight.ts';
import { frames, nearestFrame } from '../time/frameRate.ts';
import { overlap, type Range } from '../time/range.ts';
import {
  add,
  clamp,
  earlier,
  fromSeconds,
  later,
  subtract,
  ticks,
  ZERO,
  type Ticks,
} from '../time/ticks.ts';
import { create, remove, update, type Change, type Edit } from './record/change.ts';
import { joinedComments } from './edits/text/emphasise.ts';
import { partCue } from './edits/cues/partCue.ts';
import { heardPieces } from './heard.ts';
import { cuesInOrder } from './order.ts';
import type { Cue, Id, Programme } from './programme.ts';
import { reworded } from './woven/reworded.ts';
import { sharedOut, type ScriptLine } from './woven/script.ts';
import { aOrMany, plural } from '../text/plural.ts';

/** A paragraph of the manuscript. */
export interface Paragraph {
  /** The cues whose text it is: one; several where they were joined; none where it is new. */
  readonly cues: readonly Id[];
  readonly text: ScriptLine;
}

/** What was done to a manuscript since it was last kept. */
export interface Rewriting {
  /** Paragraphs in a row that may have changed. Where the first of them is new, it is the first of all. */
  readonly paragraphs: readonly Paragraph[];
  /** Cues whose whole text was taken out. */
  readonly gone: readonly Id[];
}

/** Cues with the paragraphs that take their place. */
interface Group {
  readonly cues: readonly Cue[];
  readonly texts: ScriptLine[];
}

/**
 * Brings a strand in line with its manuscript.
 *
 * A paragraph that was cut in several shares the time of its cue, by the times of its words or by reading
 * weight; one that was joined of several has the time of all of them. A paragraph written after the text of a
 * cue goes on the next speech that has no cue, or into the gap, and shares the time of that cue where there is
 * neither.
 */
export function rewrite(
  programme: Programme,
  strand: Id,
  { paragraphs, gone }: Rewriting,
  newId: () => Id,
): Edit {
  const left = gone.flatMap((id) => programme.cues[id] ?? []);
  const taken = new Set(left.map(({ id }) => id));
  const groups: Group[] = [];
  let early: ScriptLine[] = [];
  for (const { cues, text } of paragraphs) {
    const own = cues
      .flatMap((id) => (taken.has(id) ? [] : (programme.cues[id] ?? [])))
      .sort((a, b) => a.start - b.start);
    const last = groups.at(-1);
    if (own.length > 0) groups.push({ cues: own, texts: [text] });
    else if (last) last.texts.push(text);
    else early.push(text);
  }
  const row = cuesInOrder(programme, strand).filter(({ id }) => !taken.has(id));
  const changes: Change[] = left.map((cue) => remove('cue', cue));
  if (early.length > 0) {
    const before = { start: ZERO, end: row[0]?.start ?? programme.facts.length };
    const ranges = roomFor(programme, before, early);
    if (ranges) {
      changes.push(...written(strand, early, ranges, newId));
      early = [];
    }
  }
  for (const group of groups) {
    if (early.length > 0) group.texts.unshift(...early.splice(0));
    changes.push(...regrouped(programme, row, group, newId));
  }
  const made = changes.filter(({ was }) => was === null).length;
  const lost = changes.length - made - changes.filter(({ was, becomes }) => was && becomes).length;
  return {
    name: nameOf(made, lost, left.length),
    changes,
    ...(early.length > 0 && { note: 'There is no time left for the new cues.' }),
  };
}

function nameOf(made: number, lost: number, gone: number): string {
  if (made > 1) return `Write ${plural(made, 'cue')}`;
  if (made === 1) return 'Write a cue';
  if (lost === 0) return 'Edit text';
  if (gone < lost) return 'Join cues';
  return `Delete ${aOrMany(gone, 'cue')}`;
}

function regrouped(
  programme: Programme,
  row: readonly Cue[],
  { cues, texts }: Group,
  newId: () => Id,
): Change[] {
  const [first, last] = [cues[0], cues.at(-1)];
  if (!first || !last) return [];
  if (texts.length === cues.length)
    return cues.flatMap((cue, at) => update('cue', cue, reworded(cue, texts[at] ?? [])));
  // Where another cue lies between those that were joined, they end before it.
  const other = row.find((cue) => cue.start >= first.end && !cues.includes(cue));
  const end = earlier(last.end, other?.start ?? last.end);
  const whole: Cue = { ...first, end, words: cues.flatMap(({ words }) => words) };
  const others = cues.slice(1).map((cue) => remove('cue', cue));
  const asOne = (text: ScriptLine) =>
    update('cue', first, { end, ...reworded(whole, text), ...joinedComments(cues) });
  if (texts.length === 1) return [...others, ...asOne(texts[0] ?? [])];
  // What was written after a text, or before it, finds a place of its own.
  const said = plainText(first.text);
  const keeps = cues.length === 1 ? texts.findIndex((text) => plainText(text) === said) : -1;
  if (keeps === 0 || keeps === texts.length - 1) {
    const at = row.indexOf(first);
    const room =
      keeps === 0
        ? { start: first.end, end: row[at + 1]?.start ?? programme.facts.length }
        : { start: row[at - 1]?.end ?? ZERO, end: first.start };
    const more = texts.filter((_, at) => at !== keeps);
    const ranges = roomFor(programme, room, more);
    if (ranges) return written(first.strand, more, ranges, newId);
  }
  if (cues.length === 1) return partCue(programme, first, texts, newId);
  const rate = programme.facts.frameRate;
  const ranges = onFrames(
    sharedOut(texts, cues),
    { start: first.start, end },
    frames(1, rate),
    (time) => nearestFrame(time, rate),
  );
  if (!ranges) return [...others, ...asOne(texts.flat())];
  return [
    ...cues.slice(texts.length).map((cue) => remove('cue', cue)),
    ...ranges.flatMap((range, at) => {
      const [cue, text] = [cues[at], texts[at] ?? []];
      if (cue) return update('cue', cue, { ...range, ...reworded(whole, text) });
      return written(first.strand, [text], [range], newId);
    }),
  ];
}

const written = (
  strand: Id,
  texts: readonly ScriptLine[],
  ranges: readonly Range[],
  newId: () => Id,
): Change[] =>
  texts.map((text, at) =>
    create('cue', { id: newId(), strand, ...(ranges[at] as Range), text, style: {}, words: [] }),
  );

/** Ranges at whole frames, each at least so long, none over another; undefined where there is no room. */
function onFrames(
  ranges: readonly Range[],
  { start, end }: Range,
  least: Ticks,
  frame: (time: Ticks) => Ticks,
): Range[] | undefined {
  if (subtract(end, start) < ranges.length * least) return undefined;
  let from = start;
  return ranges.map((range, at) => {
    const latest = subtract(end, ticks((ranges.length - at) * least));
    const begins = clamp(frame(range.start), from, latest);
    from = clamp(frame(range.end), add(begins, least), add(latest, least));
    return { start: begins, end: from };
  });
}

/**
 * Where lines may stand in a stretch of time that no cue has: on the speech in it, else in the gap, each as long
 * as it is read. Undefined where there is too little of it.
 */
function roomFor(
  programme: Programme,
  room: Range,
  texts: readonly ScriptLine[],
): Range[] | undefined {
  const { frameRate, profile } = programme.facts;
  const frame = (time: Ticks) => nearestFrame(time, frameRate);
  const one = frames(1, frameRate);
  const pieces = heardPieces(programme)
    .filter((piece) => overlap(piece, room))
    .map(({ start, end }) => ({ start: later(start, room.start), end: earlier(end, room.end) }))
    // What is left of a piece that a cue covers in part is not worth a cue.
    .filter(({ start, end }) => subtract(end, start) >= profile.shortestStay / 2);
  if (pieces.length > 0) {
    // A whole script in an empty strand is all that is said; else one line is one piece.
    const isAll = texts.length > 1 && room.start === 0 && room.end === programme.facts.length;
    const stretches =
      isAll || texts.length > pieces.length
        ? sharedOut(texts, pieces)
        : pieces.slice(0, texts.length);
    return onFrames(stretches, room, one, frame);
  }
  const wanted = texts.map((text) =>
    clamp(
      fromSeconds(readingWeight(plainText(text)) / profile.charactersASecond),
      profile.shortestStay,
      profile.longestStay,
    ),
  );
  const whole = wanted.reduce<number>((sum, stay) => sum + stay, 0);
  const length = subtract(room.end, room.start);
  if (length < texts.length * profile.shortestStay) return undefined;
  const scale = Math.min(1, length / whole);
  let from = room.start;
  const ranges = wanted.map((stay) => {
    const start = from;
    from = add(from, ticks(stay * scale));
    return { start, end: from };
  });
  return onFrames(ranges, room, one, frame);
}
