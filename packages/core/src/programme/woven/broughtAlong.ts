/** Cues and marks brought along with the sound that they belong to, where that was moved or cut. */
import { carried, type Carried } from '../../conform/carrying.ts';
import { plainText } from '../../text/lines.ts';
import { frameLength, nearestFrame } from '../../time/frameRate.ts';
import { add, earlier, fromSeconds, later, subtract, ZERO, type Ticks } from '../../time/ticks.ts';
import { create, remove, update, type Change } from '../record/change.ts';
import { inMaterial, inProgramme, stretchOf } from '../heard.ts';
import { shortestCue } from '../record/limits.ts';
import { cuesInOrder, marksInOrder, strandsInOrder } from '../order.ts';
import type { Cue, Id, Mark, Programme, Sound, WordTime } from '../programme.ts';
import { timesOf } from './reworded.ts';

/** A cue that did not come along as it was. */
export interface NotAsItWas {
  readonly cue: Cue;
  /** What it says was cut out; or part of it was; or no room was left; or it was said anew, and is there roughly. */
  readonly why: 'gone' | 'shortened' | 'crowded' | 'rough';
}

/** What bringing along comes to. */
export interface BroughtAlong {
  readonly changes: readonly Change[];
  /** Cues that are there as they were, whether they moved or not. */
  readonly kept: number;
  readonly notAsTheyWere: readonly NotAsItWas[];
  /** Marks whose instant was cut out: they stand at the cut. */
  readonly marksAtCuts: number;
}

/** The least share of a cue that must remain; below it, the cue is gone. */
const HALF = 0.5;
/** An edge of a cue whose own instant was not found stays with the rest of it if it is so near. */
const NEAR = fromSeconds(0.5);
/** Instants that belong together keep their distance, but for so much. */
const TOGETHER = fromSeconds(0.03);
/** How sure words are that were said anew, until they are woven. */
const ROUGH = 0.5;
const LONGEST_NAME = 60;

/** From a time of the programme as it is to one as it becomes, through both sounds. */
interface Way {
  readonly of: (time: Ticks, side: 'start' | 'end') => ReturnType<typeof carried>;
  /** Where the sound before an instant ends that was cut out. */
  readonly joinAt: (time: Ticks) => Ticks;
}

function wayThrough(old: Sound, fresh: Sound, map: readonly Carried[]): Way {
  const stretch = stretchOf(old);
  const change = subtract(stretchOf(fresh).end, stretch.end);
  const here = (time: Ticks) => later(ZERO, inProgramme(fresh, time));
  return {
    of: (time, side) => {
      // What lies before or after the sound is not of it.
      if (time < stretch.start) return { time, how: 'same' };
      if (time > stretch.end) return { time: later(ZERO, add(time, change)), how: 'same' };
      const found = carried(map, inMaterial(old, time), side);
      return found && { ...found, time: here(found.time) };
    },
    joinAt: (time) => {
      const instant = inMaterial(old, time);
      const before = map.filter(({ from }) => from <= instant).at(-1);
      return before ? here(before.until) : map[0] ? here(map[0].at) : time;
    },
  };
}

interface Moved {
  readonly start: Ticks;
  readonly end: Ticks;
  readonly words: readonly WordTime[];
  /** The words whose sound is gone, as far as they are known. */
  readonly lost?: string;
  readonly why?: NotAsItWas['why'];
}

const together = (there: Ticks, here: Ticks, { by }: { by: Ticks }): boolean =>
  Math.abs(there - here - by) <= TOGETHER;

/** The largest part of a cue whose instants are still beside each other. */
function partOf(
  cue: Cue,
  way: Way,
  frame: Ticks,
): { from: Ticks; to: Ticks; by: Ticks } | undefined {
  let best: { from: Ticks; to: Ticks; by: Ticks } | undefined;
  let run: { from: Ticks; to: Ticks; by: Ticks } | undefined;
  for (let time = cue.start; time <= cue.end; time = add(time, frame)) {
    const [before, after] = [way.of(time, 'end'), way.of(time, 'start')];
    if (run && before && together(before.time, time, run)) {
      run = { ...run, to: time };
      if (!best || run.to - run.from > best.to - best.from) best = run;
    }
    if (!after) run = undefined;
    else if (!run || !together(after.time, time, run))
      run = { from: time, to: time, by: subtract(after.time, time) };
  }
  return best;
}

/** The text of the words whose times did not come along. */
const lostOf = (cue: Cue, words: readonly WordTime[]): string => {
  const kept = timesOf(
    words,
    cue.words.map(({ text }) => text),
  );
  return cue.words.flatMap(({ text }, at) => (kept[at] ? [] : [text])).join(' ');
};

/** Where a cue goes; undefined where what it says is gone. */
function moved(cue: Cue, way: Way, frame: Ticks): Moved | undefined {
  const length = subtract(cue.end, cue.start);
  const [start, end] = [way.of(cue.start, 'start'), way.of(cue.end, 'end')];
  const word = (time: WordTime): WordTime[] => {
    const [from, to] = [way.of(time.start, 'start'), way.of(time.end, 'end')];
    if (!from || !to || to.time < from.time) return [];
    const times = { start: from.time, end: to.time };
    const rough = from.how === 'again' || to.how === 'again';
    return [{ ...time, ...times, ...(rough && { source: 'woven' as const, confidence: ROUGH }) }];
  };
  const words = cue.words.flatMap(word);
  const rough = start?.how === 'again' || end?.how === 'again';
  if (start && end && end.time > start.time && (rough || end.time - start.time <= 2 * length)) {
    const shorter = length - (end.time - start.time) > TOGETHER;
    if (rough) return { start: start.time, end: end.time, words, why: 'rough' };
    if (Math.abs(end.time - start.time - length) <= TOGETHER)
      return { start: start.time, end: add(start.time, length), words };
    // Something was cut out of its middle, or put in.
    if (end.time - start.time >= HALF * length)
      return {
        start: start.time,
        end: end.time,
        words,
        ...(shorter && { why: 'shortened', lost: lostOf(cue, words) }),
      };
  }
  const part = partOf(cue, way, frame);
  if (!part || part.to - part.from < HALF * length) return undefined;
  const from = part.from - cue.start <= NEAR ? cue.start : part.from;
  const to = cue.end - part.to <= NEAR ? cue.end : part.to;
  const whole = from === cue.start && to === cue.end && words.length === cue.words.length;
  const left = words.filter(
    (each) => each.start >= from + part.by - NEAR && each.end <= to + part.by + NEAR,
  );
  return {
    start: later(ZERO, add(from, part.by)),
    end: add(to, part.by),
    words: left,
    ...(!whole && { why: 'shortened' as const, lost: lostOf(cue, left) }),
  };
}

/**
 * Brings all cues and marks to where what they belong to is now.
 *
 * Cues keep their length where their sound is whole, at the nearest frame. Of one that was cut, what is left stays if
 * that is half of it or more, and it says which of its words are gone; of one that is gone a mark of doubt stands at the cut, with its text as the name.
 *
 * @param old    how the sound was heard
 * @param fresh  how it is heard, or the one in its place
 * @param map    what of the one's material is where in the other's
 */
export function broughtAlong(
  programme: Programme,
  old: Sound,
  fresh: Sound,
  map: readonly Carried[],
  newId: () => Id,
): BroughtAlong {
  const way = wayThrough(old, fresh, map);
  const { frameRate } = programme.facts;
  const frame = frameLength(frameRate);
  const notAsTheyWere: NotAsItWas[] = [];
  const marks: Mark[] = [];
  const changes: Change[] = [];
  let kept = 0;
  const lose = (cue: Cue, why: 'gone' | 'crowded') => {
    notAsTheyWere.push({ cue, why });
    changes.push(remove('cue', cue));
    const at = nearestFrame(way.joinAt(cue.start), frameRate);
    const text = plainText(cue.text).replaceAll('\n', ' ').slice(0, LONGEST_NAME);
    marks.push({ id: newId(), at, name: `Cut out: ${text}`, purpose: 'doubt' });
  };
  for (const strand of strandsInOrder(programme)) {
    const placed = cuesInOrder(programme, strand.id).flatMap((cue) => {
      const place = moved(cue, way, frame);
      if (!place) lose(cue, 'gone');
      return place ? [{ cue, place }] : [];
    });
    placed.sort((a, b) => a.place.start - b.place.start);
    let free = ZERO;
    placed.forEach(({ cue, place }, at) => {
      const next = placed[at + 1]?.place.start;
      const wanted = nearestFrame(place.start, frameRate);
      const start = strand.overlapAllowed ? wanted : later(wanted, free);
      const lasts = nearestFrame(subtract(place.end, place.start), frameRate);
      const stop = add(wanted, lasts);
      const end =
        next === undefined || strand.overlapAllowed
          ? stop
          : earlier(stop, later(nearestFrame(next, frameRate), add(start, shortestCue(programme))));
      if (end - start < shortestCue(programme)) {
        lose(cue, 'crowded');
        return;
      }
      free = end;
      changes.push(
        ...update('cue', cue, {
          start,
          end,
          words: place.words,
          ...(place.lost !== undefined && { cutShort: place.lost }),
        }),
      );
      if (place.why) notAsTheyWere.push({ cue, why: place.why });
      else kept++;
    });
  }
  let marksAtCuts = 0;
  for (const mark of marksInOrder(programme)) {
    const found = way.of(mark.at, 'start');
    if (!found) marksAtCuts++;
    const at = nearestFrame(found?.time ?? way.joinAt(mark.at), frameRate);
    changes.push(...update('mark', mark, { at }));
  }
  changes.push(...marks.map((mark) => create('mark', mark)));
  notAsTheyWere.sort((a, b) => a.cue.start - b.cue.start);
  return { changes, kept, notAsTheyWere, marksAtCuts };
}
