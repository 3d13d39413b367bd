/**
 * Passages: written, put on the programme, and made to travel.
 *
 * Of size, time and speed two are held; every edit here lets the third follow in the same step. How far a passage travels
 * is measured by whoever knows how it is set.
 */
import { atSpeed, inFrames, largestSize, movingFrames } from '../../../pace/travel.ts';
import { countFrames, frameLength, frames, nearestFrame } from '../../../time/frameRate.ts';
import type { Range } from '../../../time/range.ts';
import { add, earlier, later, subtract, ZERO, type Ticks } from '../../../time/ticks.ts';
import { apply } from '../../record/apply.ts';
import { create, remove, update, type Change, type Edit } from '../../record/change.ts';
import { cuesOfPassage, neighbours } from '../../order.ts';
import {
  USUAL_JOURNEY,
  withSize,
  type Following,
  type Journey,
  type Passage,
} from '../../passage.ts';
import type { Cue, Facts, Id, Programme, TravellingKind } from '../../programme.ts';
import { strandWithRoom } from './strands.ts';

/** How far a passage travels, in pixels. */
export type MeasureWay = (passage: Passage) => number;

/** Sizes that text is given when its size follows, in pixels. */
export const [SMALLEST, LARGEST] = [8, 400] as const;
/** A passage that is put on the programme for the first time: so many seconds a line is in sight. */
const IN_SIGHT = { roll: 6, crawl: 8 } as const;

/** The speed at which a passage begins, in whole pixels a frame: at which a line of it is some seconds in sight. */
export function firstSpeed(kind: TravellingKind, { frame, frameRate }: Facts): number {
  const window = kind === 'roll' ? frame.height : frame.width;
  const frameCount = (IN_SIGHT[kind] * frameRate.num) / frameRate.den;
  return Math.max(1, Math.floor(window / frameCount));
}

/** The cue that puts a passage on the programme; the first one, if there are several. */
export const cueOf = (programme: Programme, passage: Id): Cue | undefined =>
  cuesOfPassage(programme, passage)[0];

/** How many frames a passage has; undefined where it is not on the programme. */
export function framesHad(programme: Programme, passage: Id): number | undefined {
  const cue = cueOf(programme, passage);
  return (
    cue &&
    Math.max(1, countFrames(subtract(cue.end, cue.start), programme.facts.frameRate) as number)
  );
}

/** The speed at which a passage travels as it stands, in pixels a frame. */
export function speedOf(programme: Programme, passage: Passage, measure: MeasureWay): number {
  const had = framesHad(programme, passage.id);
  const { journey } = passage;
  if (journey.follows !== 'speed' || had === undefined) return journey.speed;
  return inFrames(measure(passage), had, movingFrames(had, journey) > 0 ? journey : undefined)
    .speed;
}

/** A whole step: what is changed, and what follows from it. */
function settled(programme: Programme, id: Id, { name, changes }: Edit, measure: MeasureWay): Edit {
  const after = apply(programme, changes);
  const passage = after.passages[id];
  const cue = cueOf(after, id);
  if (changes.length === 0 || !passage || !cue) return { name, changes };
  const { journey } = passage;
  if (journey.follows === 'time') {
    const wanted = atSpeed(measure(passage), journey.speed, journey).frames;
    const { range, note } = inPlace(after, cue, wanted, journey.keeps);
    return {
      name,
      changes: [...changes, ...update('cue', cue, range)],
      ...(note !== undefined && { note }),
    };
  }
  if (journey.follows === 'size') {
    const had = framesHad(after, id) ?? 1;
    const most = journey.speed * movingFrames(had, journey);
    const lengthAt = (size: number) => measure(withSize(passage, size));
    const size = largestSize(lengthAt, most, { from: SMALLEST, to: LARGEST });
    if (size === undefined)
      return {
        name,
        changes,
        note: `The text is too long for this duration and speed, even at ${SMALLEST} px.`,
      };
    const look = { ...passage.look, size } as Passage['look'];
    return { name, changes: [...changes, ...update('passage', passage, { look } as never)] };
  }
  return { name, changes };
}

/** Where a cue is that lasts so many frames and keeps one end, cut short at its neighbours and at the beginning. */
function inPlace(
  programme: Programme,
  cue: Cue,
  count: number,
  keeps: Journey['keeps'],
): { range: Range; note?: string } {
  const { frameRate } = programme.facts;
  const length = frames(count, frameRate);
  const { before, after } = neighbours(programme, cue);
  if (keeps === 'start') {
    const wanted = add(cue.start, length);
    const end = after ? earlier(wanted, after.start) : wanted;
    return { range: { start: cue.start, end }, ...(end < wanted && { note: CUT_AT_NEXT }) };
  }
  const wanted = subtract(cue.end, length);
  const start = later(wanted, before?.end ?? ZERO);
  const note = before ? CUT_AT_BEFORE : CUT_AT_BEGINNING;
  return { range: { start, end: cue.end }, ...(start > wanted && { note }) };
}
const CUT_AT_NEXT = 'It is cut off at the start of the next passage.';
const CUT_AT_BEFORE = 'It is cut off at the end of the passage before.';
const CUT_AT_BEGINNING = 'It needs more time than the programme has before its end.';

/** Changes what a passage says, how it looks, or what it is called; what follows from that follows. */
export function editPassage(
  programme: Programme,
  id: Id,
  becomes: Partial<Pick<Passage, 'title' | 'sheet' | 'separator' | 'look' | 'journey'>>,
  measure: MeasureWay,
  name = 'Edit a passage',
): Edit {
  const passage = programme.passages[id];
  if (!passage) return { name, changes: [] };
  return settled(
    programme,
    id,
    { name, changes: update('passage', passage, becomes as Partial<Passage>) },
    measure,
  );
}

/** Changes how a passage travels. */
const editJourney = (
  programme: Programme,
  passage: Passage,
  becomes: Partial<Journey>,
  measure: MeasureWay,
  name: string,
): Edit =>
  editPassage(
    programme,
    passage.id,
    { journey: { ...passage.journey, ...becomes } },
    measure,
    name,
  );

/** Has one of size, time and speed follow from the other two, which are held as they are. */
export function letFollow(
  programme: Programme,
  id: Id,
  follows: Following,
  measure: MeasureWay,
): Edit {
  const name = `Let ${follows} follow`;
  const passage = programme.passages[id];
  if (!passage) return { name, changes: [] };
  const speed = speedOf(programme, passage, measure);
  return editJourney(programme, passage, { follows, speed }, measure, name);
}

/** Holds a speed, in pixels a frame: where it followed, the time does from now on. */
export function setSpeed(programme: Programme, id: Id, speed: number, measure: MeasureWay): Edit {
  const name = 'Set the speed';
  const passage = programme.passages[id];
  if (!passage || !(speed > 0)) return { name, changes: [] };
  const { follows } = passage.journey;
  const rest = { speed, follows: follows === 'speed' ? ('time' as const) : follows };
  return editJourney(programme, passage, rest, measure, name);
}

/** Holds a size, in pixels: where it followed, the speed does from now on. */
export function setSize(programme: Programme, id: Id, size: number, measure: MeasureWay): Edit {
  const name = 'Set the size';
  const passage = programme.passages[id];
  if (!passage || !(size >= 1)) return { name, changes: [] };
  const { follows } = passage.journey;
  return editPassage(
    programme,
    id,
    {
      look: withSize(passage, size).look,
      journey: { ...passage.journey, follows: follows === 'size' ? 'speed' : follows },
    },
    measure,
    name,
  );
}

/** When a passage is on the programme: from an instant, until one, for so many frames, or two of these. */
export interface Placing {
  readonly start?: Ticks;
  readonly end?: Ticks;
  readonly frames?: number;
}

/**
 * Puts a passage on the programme. Where its time is given it is held: if it followed, the speed does from now on.
 *
 * It goes to another strand of its kind, or a new one, where another passage has that time.
 */
export function placePassage(
  programme: Programme,
  id: Id,
  placing: Placing,
  measure: MeasureWay,
  newId: () => Id,
): Edit {
  const name = 'Place a passage';
  const passage = programme.passages[id];
  if (!passage) return { name, changes: [] };
  const { frameRate } = programme.facts;
  const cue = cueOf(programme, id);
  const timed =
    placing.frames !== undefined || (placing.start !== undefined && placing.end !== undefined);
  const keeps = placing.start === undefined && placing.end !== undefined ? 'end' : 'start';
  const { journey } = passage;
  const becomes: Journey = {
    ...journey,
    keeps: placing.start === undefined && placing.end === undefined ? journey.keeps : keeps,
    speed: speedOf(programme, passage, measure),
    follows: timed && journey.follows === 'time' ? 'speed' : journey.follows,
  };
  const count =
    placing.frames ??
    framesHad(programme, id) ??
    atSpeed(measure(passage), becomes.speed, journey).frames;
  const range = rangeOf(placing, cue, frames(count, frameRate), programme, becomes.keeps);
  if (range.end - range.start < frameLength(frameRate))
    return { name, changes: [], note: 'The end must be after the start.' };
  const { changes, strand } = strandWithRoom(programme, passage.kind, range, newId, cue);
  const placed: Change[] = cue
    ? update('cue', cue, { ...range, strand })
    : [create('cue', { id: newId(), strand, ...range, ...EMPTY_CUE, passage: id })];
  return settled(
    programme,
    id,
    { name, changes: [...changes, ...update('passage', passage, { journey: becomes }), ...placed] },
    measure,
  );
}

const EMPTY_CUE = { text: [[{ text: '' }]], style: {}, words: [] } as const;

function rangeOf(
  { start, end }: Placing,
  cue: Cue | undefined,
  length: Ticks,
  { facts }: Programme,
  keeps: Journey['keeps'],
): Range {
  const near = (at: Ticks) => later(nearestFrame(at, facts.frameRate), ZERO);
  if (start !== undefined && end !== undefined) return { start: near(start), end: near(end) };
  if (start !== undefined) return { start: near(start), end: add(near(start), length) };
  if (end !== undefined) return { start: later(subtract(near(end), length), ZERO), end: near(end) };
  if (keeps === 'end') {
    const until = cue?.end ?? facts.length;
    return { start: later(subtract(until, length), ZERO), end: until };
  }
  const from = cue?.start ?? ZERO;
  return { start: from, end: add(from, length) };
}

/** What a new passage is called: a number is put after a name that is taken. */
const TITLES = { roll: 'Closing roll', crawl: 'Crawl' } as const;
function titleFor(programme: Programme, wanted: string): string {
  const taken = new Set(Object.values(programme.passages).map(({ title }) => title));
  let title = wanted;
  for (let number = 2; taken.has(title); number++) title = `${wanted} ${number}`;
  return title;
}

/** What a passage begins with. */
export interface NewPassage {
  readonly id: Id;
  readonly title?: string;
  readonly sheet: string;
  /** From when on a crawl travels; a roll ends with the programme. */
  readonly from: Ticks;
}

/**
 * A new passage, at a speed at which its lines are some seconds in sight, in whole pixels a frame. A roll ends with the
 * programme; a crawl begins where it is wanted.
 */
export function addPassage(
  programme: Programme,
  kind: TravellingKind,
  { id, title, sheet, from }: NewPassage,
  measure: MeasureWay,
  newId: () => Id,
): Edit {
  const { length } = programme.facts;
  const speed = firstSpeed(kind, programme.facts);
  const journey: Journey = {
    ...USUAL_JOURNEY,
    speed,
    follows: 'time',
    keeps: kind === 'roll' ? 'end' : 'start',
  };
  const made = {
    id,
    kind,
    title: titleFor(programme, title ?? TITLES[kind]),
    sheet,
    look: {},
    journey,
  };
  const change = create('passage', made as Passage);
  const { changes, note } = placePassage(
    apply(programme, [change]),
    id,
    kind === 'roll' ? { end: length } : { start: from },
    measure,
    newId,
  );
  return {
    name: kind === 'roll' ? 'Add a roll' : 'Add a crawl',
    changes: [change, ...changes],
    ...(note !== undefined && { note }),
  };
}

/** Another passage that says the same and looks the same; it is not on the programme yet. */
export function copyPassage(programme: Programme, id: Id, copy: Id): Edit {
  const name = 'Duplicate a passage';
  const passage = programme.passages[id];
  if (!passage) return { name, changes: [] };
  const made = { ...passage, id: copy, title: titleFor(programme, passage.title) };
  return { name, changes: [create('passage', made)] };
}

/** Takes a passage off the programme; it is kept. */
export const takeOff = (programme: Programme, id: Id): Edit => ({
  name: 'Unplace a passage',
  changes: cuesOfPassage(programme, id).map((cue) => remove('cue', cue)),
});

/** Deletes a passage with the cues that put it on the programme. */
export function deletePassage(programme: Programme, id: Id): Edit {
  const passage = programme.passages[id];
  return {
    name: 'Delete a passage',
    changes: [...takeOff(programme, id).changes, ...(passage ? [remove('passage', passage)] : [])],
  };
}
