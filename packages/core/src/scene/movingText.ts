/** A text that moves: each of its parts as it stands at an instant. */
import { isStraight } from '../movement/matrix.ts';
import { UNITS, type Movement, type UnitKind } from '../movement/movement.ts';
import {
  threadsOf,
  type CueTime,
  type Part,
  type Said,
  type Threads,
} from '../movement/threads.ts';
import {
  comeAndLeft,
  isAtRest,
  stateAt,
  type Place,
  type UnitThread,
} from '../movement/unitState.ts';
import { heardBeats, heardHits } from '../programme/heard.ts';
import { marksInOrder } from '../programme/order.ts';
import type { Cue, Programme, WordTime } from '../programme/programme.ts';
import { timesOf } from '../programme/woven/reworded.ts';
import { plainText } from '../text/lines.ts';
import { readingWeight } from '../text/readingWeight.ts';
import { wordsOf } from '../text/words.ts';
import { countFrames, frameLength, nearestFrame } from '../time/frameRate.ts';
import { instantsWithin, within } from '../time/range.ts';
import { subtract, type Ticks } from '../time/ticks.ts';
import type { Box, PaintedUnit } from './drawing.ts';
import type { TextLayout } from './layout.ts';
import { platesOfMoving, type PlateItem } from './plates.ts';
import type { TextShaper } from './shaper.ts';
import { paintedLines, unitsOf, type TextUnit } from './units.ts';

/** The threads of a cue: its units, and when each comes and goes, in frames from the start of the cue. */
export interface Draft {
  /** By what it comes in, and by what it goes. */
  readonly comes: { readonly by: UnitKind; readonly units: readonly TextUnit[] };
  readonly goes: { readonly by: UnitKind; readonly units: readonly TextUnit[] };
  readonly threads: Threads;
  readonly time: CueTime;
}

interface Moving extends Draft {
  /** The smallest units that move by themselves. */
  readonly units: readonly { readonly unit: TextUnit; readonly thread: UnitThread }[];
}

interface Known {
  readonly movement: Movement;
  readonly layout: TextLayout;
  readonly heard: readonly unknown[];
  readonly moving: Moving;
}

const known = new WeakMap<Cue, Known>();

/** What the times of a movement depend on beside its cue. */
const heardBy = ({ facts, beats, hits, marks, sounds }: Programme): readonly unknown[] => [
  ...[facts.frameRate, facts.sound, facts.frame],
  ...[beats, hits, marks, sounds],
];

function movingOf(
  programme: Programme,
  cue: Cue,
  movement: Movement,
  layout: TextLayout,
  shaper: TextShaper,
): Moving {
  const heard = heardBy(programme);
  const found = known.get(cue);
  if (
    found?.movement === movement &&
    found.layout === layout &&
    heard.every((part, at) => part === found.heard[at])
  )
    return found.moving;
  const moving = moveAfresh(programme, cue, movement, layout, shaper);
  known.set(cue, { movement, layout, heard, moving });
  return moving;
}

/** The draft of a cue: when each of its units comes and goes. */
export const draftOf = (
  programme: Programme,
  cue: Cue,
  movement: Movement,
  layout: TextLayout,
  shaper: TextShaper,
): Draft => movingOf(programme, cue, movement, layout, shaper);

/** The smallest parts of a text that move by themselves. */
export const smallestUnits = (...of: Parameters<typeof draftOf>): readonly TextUnit[] =>
  movingOf(...of).units.map(({ unit }) => unit);

/** A text in parts, and the plates behind it. */
export interface Parts {
  readonly units: readonly PaintedUnit[];
  readonly plates: readonly PlateItem[];
}

/**
 * The parts of a text as they stand at a frame of its cue: none where nothing is seen; undefined where all of it stands
 * as it was laid out.
 */
export function partsAt(
  programme: Programme,
  cue: Cue,
  movement: Movement,
  layout: TextLayout,
  frame: number,
  shaper: TextShaper,
): Parts | undefined {
  const { units, time } = movingOf(programme, cue, movement, layout, shaper);
  const states = units.map(({ thread }) => stateAt(thread, frame, time));
  if (states.every((state) => state && isAtRest(state))) return undefined;
  const seen = units.flatMap(({ unit, thread }, at) => {
    const state = states[at];
    return state ? [{ unit, state, ...comeAndLeft(thread, frame), em: thread.inPlace.em }] : [];
  });
  return {
    units: seen.map(({ unit, state, em }): PaintedUnit => {
      const { transform, opacity, blur, spacing, tint, wipe } = state;
      return {
        text: unit.text.trimEnd(),
        box: spacing === 0 ? unit.box : spread(unit, Math.abs(spacing) * em),
        lines: paintedLines(unit.letters, layout, spacing * em),
        opacity,
        ...(!isStraight(transform) && { transform }),
        ...(blur > 0 && { blur }),
        ...(tint && tint.share > 0 && { tint }),
        ...(wipe && wipe.share < 1 && { wipe }),
      };
    }),
    plates: platesOfMoving(cue, layout, seen, shaper),
  };
}

/** The box of a unit whose letters are moved apart. */
function spread({ box, letters }: TextUnit, by: number): Box {
  const over = (by * (letters.length - 1)) / 2;
  return { ...box, x: box.x - over, w: box.w + 2 * over };
}

function moveAfresh(
  programme: Programme,
  cue: Cue,
  movement: Movement,
  layout: TextLayout,
  shaper: TextShaper,
): Moving {
  const { comesIn, stays, goes } = movement;
  const text = unitsOf(cue, layout, shaper);
  const [inBy, outBy] = [comesIn?.by ?? 'whole', goes?.by ?? 'whole'];
  const smallest =
    UNITS.find((kind) => [inBy, outBy, ...stays.map(({ by }) => by)].includes(kind)) ?? 'whole';
  const time = timeOf(programme, cue);
  const said = saying(programme, cue);
  const parts = (kind: UnitKind): Part[] =>
    text.of(kind).map((unit) => ({
      text: unit.text,
      said: said(unit),
      weight: readingWeight(unit.text),
    }));
  const [inPlaces, outPlaces] = [text.places(inBy), text.places(outBy)];
  const pairs = [
    ...new Map(
      inPlaces.map((from, at) => [`${from} ${outPlaces[at] ?? 0}`, [from, outPlaces[at] ?? 0]]),
    ).values(),
  ] as [number, number][];
  const threads = threadsOf(movement, { comes: parts(inBy), go: parts(outBy), pairs }, time);
  let letter = 0;
  const units = text.of(smallest).map((unit) => {
    const first = letter;
    letter += unit.letters.length;
    const numbered = (kind: UnitKind): number => text.places(kind)[first] ?? 0;
    const box = (kind: UnitKind) => text.of(kind)[numbered(kind)]?.box ?? unit.box;
    const placeOf = (kind: UnitKind): Place => ({
      ...{ unit: box(kind), word: box('word'), line: box('line'), whole: box('whole') },
      ...{ em: layout.style.size, frame: programme.facts.frame, number: numbered(kind) },
    });
    const thread: UnitThread = {
      coming: threads.coming[numbered(inBy)] ?? { begins: 0, lands: 0 },
      going: threads.going[numbered(outBy)] ?? { leaves: time.length, gone: time.length },
      ...{ comesBy: comesIn?.moves ?? [], goesBy: goes?.moves ?? [], stays },
      ...{ inPlace: placeOf(inBy), outPlace: placeOf(outBy) },
      stayPlaces: stays.map(({ by }) => placeOf(by)),
    };
    return { unit, thread };
  });
  return {
    comes: { by: inBy, units: text.of(inBy) },
    goes: { by: outBy, units: text.of(outBy) },
    ...{ threads, time, units },
  };
}

/** Instants that fall into a cue, in frames from its start. */
function timeOf(programme: Programme, cue: Cue): CueTime {
  const { frameRate } = programme.facts;
  const since = (at: Ticks): number => framesFrom(programme, cue, at);
  const beats = instantsWithin(heardBeats(programme), cue);
  const inFrames = beats.map(({ at }) => since(at));
  const steps = inFrames.slice(1).map((at, place) => at - (inFrames[place] ?? 0));
  const second = 705_600_000 / frameLength(frameRate);
  return {
    length: Math.max(1, countFrames(subtract(cue.end, cue.start), frameRate)),
    beats: inFrames,
    bars: beats.filter(({ bar }) => bar !== null).map(({ at }) => since(at)),
    marks: instantsWithin(marksInOrder(programme), cue).map(({ at }) => since(at)),
    hits: within(heardHits(programme), cue)
      .filter(({ start }) => start >= cue.start)
      .map(({ start }) => since(start)),
    beat: steps[0] ?? second / 2,
    rate: second,
  };
}

/** From the start of a cue to an instant, by the frames next to each. */
function framesFrom({ facts }: Programme, { start }: Cue, at: Ticks): number {
  const { frameRate } = facts;
  return countFrames(nearestFrame(at, frameRate), frameRate) - countFrames(start, frameRate);
}

/** When a part of the text of a cue is said, as far as its words have their times. */
function saying(programme: Programme, cue: Cue): (unit: TextUnit) => Said | undefined {
  const words = wordsOf(plainText(cue.text));
  const times = timesOf(
    cue.words,
    words.map(({ text }) => text),
  );
  /** When what stands at a place of the text is said. */
  const at = (place: number, side: 'from' | 'to'): number | undefined => {
    const word = words.findLastIndex(({ from }) =>
      side === 'from' ? from <= place : from < place,
    );
    const [written, time] = [words[word], times[word]];
    if (!written || !time) return undefined;
    const share = shareAt(time, Math.min(place, written.to) - written.from, written.text.length);
    const instant = (time.start + share * (time.end - time.start)) as Ticks;
    return framesFrom(programme, cue, instant);
  };
  return (unit) => {
    const [start, end] = [at(unit.from, 'from'), at(unit.to, 'to')];
    return start === undefined || end === undefined ? undefined : { start, end };
  };
}

/** The share of a word that is said when a letter of it begins: by its syllables where it is split, evenly within them. */
function shareAt({ syllables }: WordTime, letter: number, length: number): number {
  const edges = [{ from: 0, share: 0 }, ...(syllables ?? []), { from: length, share: 1 }];
  const next = edges.findIndex(({ from }) => from > letter);
  if (next < 1) return letter >= length ? 1 : 0;
  const [before, after] = [edges[next - 1], edges[next]];
  if (!before || !after) return 0;
  const within = (letter - before.from) / (after.from - before.from);
  return before.share + within * (after.share - before.share);
}
