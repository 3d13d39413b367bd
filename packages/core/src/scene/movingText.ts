/** A text that moves: each of its parts as it stands at an instant. */
import { isStraight } from '../movement/matrix.ts';
import { UNITS, type Movement, type UnitKind } from '../movement/movement.ts';
import { threadsOf, type CueTime, type Part, type Threads } from '../movement/threads.ts';
import {
  comeAndLeft,
  isAtRest,
  stateAt,
  type Ground,
  type Place,
  type UnitState,
  type UnitThread,
} from '../movement/unitState.ts';
import type { Stretching } from '../movement/stretching.ts';
import { heldNotesOf, sayingOf, timeOfCue, type HeldNote } from '../programme/cueTime.ts';
import type { Cue, Programme } from '../programme/programme.ts';
import { readingWeight } from '../text/readingWeight.ts';
import type { Box, PaintedUnit, PlacedLine } from './drawing.ts';
import type { TextLayout } from './layout.ts';
import { platesOfMoving, type PlateItem } from './plates.ts';
import { Recent } from './recent.ts';
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
  readonly units: readonly MovingUnit[];
}

interface MovingUnit {
  readonly unit: TextUnit;
  readonly thread: UnitThread;
  /** What is read of it. */
  readonly text: string;
  /** As it is painted with its letters where they stand. */
  readonly lines: readonly PlacedLine[];
}

interface Known {
  readonly movement: Movement;
  readonly layout: TextLayout;
  readonly heard: readonly unknown[];
  readonly moving: Moving;
}

const NONE: readonly never[] = [];
const known = new Recent<Cue, Known>(2000);

/** What the times of a movement depend on beside its cue. */
const heardBy = ({
  facts,
  beats,
  hits,
  marks,
  materials,
  sounds,
}: Programme): readonly unknown[] => [
  ...[facts.frameRate, facts.sound, facts.frame],
  ...[beats, hits, marks, materials, sounds],
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
  known.keep(cue, { movement, layout, heard, moving });
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
  const painted: PaintedUnit[] = [];
  units.forEach((part, at) => {
    const state = states[at];
    if (state) painted.push(paintedUnit(part, state, layout));
  });
  if (!layout.style.plate) return { units: painted, plates: NONE };
  const seen = units.flatMap(({ unit, thread }, at) => {
    const state = states[at];
    return state ? [{ unit, state, ...comeAndLeft(thread, frame) }] : [];
  });
  return { units: painted, plates: platesOfMoving(cue, layout, seen, shaper) };
}

function paintedUnit(
  { unit, thread, text, lines }: MovingUnit,
  { transform, opacity, blur, spacing, tint, wipe }: UnitState,
  layout: TextLayout,
): PaintedUnit {
  const apart = spacing * thread.inPlace.em;
  return {
    text,
    box: spacing === 0 ? unit.box : spread(unit, Math.abs(apart)),
    lines: spacing === 0 ? lines : paintedLines(unit.letters, layout, apart),
    opacity,
    ...(!isStraight(transform) && { transform }),
    ...(blur > 0 && { blur }),
    ...(tint && tint.share > 0 && { tint }),
    ...(wipe && wipe.share < 1 && { wipe }),
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
  const time = timeOfCue(programme, cue);
  const said = sayingOf(programme, cue);
  const parts = (kind: UnitKind): Part[] =>
    text.of(kind).map((unit) => ({
      text: unit.text,
      said: said(unit),
      weight: readingWeight(unit.text),
    }));
  const [inPlaces, outPlaces] = [text.places(inBy), text.places(outBy)];
  // Letters of one unit of either kind follow each other.
  const pairs = inPlaces.flatMap((from, at): [number, number][] => {
    const to = outPlaces[at] ?? 0;
    return at > 0 && inPlaces[at - 1] === from && outPlaces[at - 1] === to ? [] : [[from, to]];
  });
  const threads = threadsOf(movement, { comes: parts(inBy), go: parts(outBy), pairs }, time);
  const [comesBy, goesBy] = [comesIn?.moves ?? NONE, goes?.moves ?? NONE];
  /** The box of the unit that a letter is in. */
  const boxAt = (kind: UnitKind, at: number): Ground =>
    (text.of(kind)[text.places(kind)[at] ?? 0] as TextUnit).box;
  const notes = stays.some(({ what }) => what === 'stretches') ? heldNotesOf(programme, cue) : [];
  const stretchings = stays.map(({ what, by }) =>
    what === 'stretches' && notes.length > 0
      ? stretchingOf(text.of(by), notes, layout.style.across)
      : NONE,
  );
  let letter = 0;
  const units = text.of(smallest).map((unit) => {
    const first = letter;
    letter += unit.letters.length;
    const placeOf = (kind: UnitKind): Place => ({
      unit: boxAt(kind, first),
      word: boxAt('word', first),
      line: boxAt('line', first),
      whole: boxAt('whole', first),
      em: layout.style.size,
      frame: programme.facts.frame,
      number: text.places(kind)[first] ?? 0,
    });
    const inPlace = placeOf(inBy);
    const outPlace = outBy === inBy ? inPlace : placeOf(outBy);
    const thread: UnitThread = {
      coming: threads.coming[inPlace.number] ?? { begins: 0, lands: 0 },
      going: threads.going[outPlace.number] ?? { leaves: time.length, gone: time.length },
      ...{ comesBy, goesBy, stays, inPlace, outPlace },
      stayPlaces:
        stays.length === 0 ? NONE : stays.map(({ by }) => (by === inBy ? inPlace : placeOf(by))),
      ...(notes.length > 0 && {
        stretching: stays.map(({ by }, stay) => stretchings[stay]?.[text.places(by)[first] ?? 0]),
      }),
    };
    return {
      ...{ unit, thread },
      text: unit.text.trimEnd(),
      lines: paintedLines(unit.letters, layout),
    };
  });
  return {
    comes: { by: inBy, units: text.of(inBy) },
    goes: { by: outBy, units: text.of(outBy) },
    ...{ threads, time, units },
  };
}

const ANCHORS = { left: 0, centre: 0.5, right: 1 } as const;

/** How each of some units of a text stretches: nothing in lines in which no note is held. */
function stretchingOf(
  units: readonly TextUnit[],
  notes: readonly HeldNote[],
  across: keyof typeof ANCHORS,
): (Stretching | undefined)[] {
  const holds = units.map(({ from, to }) =>
    notes.filter(({ letter }) => letter >= from && letter < to),
  );
  const lineOf = ({ letters }: TextUnit) => letters[0]?.line;
  return units.map((unit, at) => {
    const row = units.flatMap((other, place): Stretching['row'][number][] => {
      const held = holds[place] ?? [];
      if (held.length === 0 || lineOf(other) !== lineOf(unit)) return [];
      const stands = place === at ? 'here' : other.box.x < unit.box.x ? 'left' : 'right';
      return [{ holds: held, width: other.box.w, stands }];
    });
    return row.length === 0 ? undefined : { holds: holds[at] ?? [], row, anchor: ANCHORS[across] };
  });
}
