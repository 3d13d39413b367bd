/** What a movement knows of the time of a cue: how long it is, what is heard in it, and when its words are said. */
import type { Drum } from '../listen/pulse/drums.ts';
import type { CueTime, Said } from '../movement/threads.ts';
import { plainText } from '../text/lines.ts';
import { wordsOf } from '../text/words.ts';
import { countFrames, frameLength, frames, nearestFrame } from '../time/frameRate.ts';
import { instantsWithin, within } from '../time/range.ts';
import { add, subtract, type Ticks } from '../time/ticks.ts';
import { energyAt, heardBeats, heardHits } from './heard.ts';
import { marksInOrder } from './order.ts';
import { drumsOf, type Cue, type Programme } from './programme.ts';
import { heldLetters, shareAt } from './woven/letterTimes.ts';
import { timesOf } from './woven/reworded.ts';

/** Instants that fall into a cue, in frames from its start. */
export function timeOfCue(programme: Programme, cue: Cue): CueTime {
  const { frameRate } = programme.facts;
  const since = (at: Ticks): number => framesFrom(programme, cue, at);
  const beats = instantsWithin(heardBeats(programme), cue);
  const inFrames = beats.map(({ at }) => since(at));
  const steps = inFrames.slice(1).map((at, place) => at - (inFrames[place] ?? 0));
  const second = 705_600_000 / frameLength(frameRate);
  const hits = within(heardHits(programme), cue).filter(({ start }) => start >= cue.start);
  const strokes = (drum: Drum) =>
    hits.filter((hit) => drumsOf(hit).includes(drum)).map(({ start }) => since(start));
  return {
    length: Math.max(1, countFrames(subtract(cue.end, cue.start), frameRate)),
    beats: inFrames,
    bars: beats.filter(({ bar }) => bar !== null).map(({ at }) => since(at)),
    marks: instantsWithin(marksInOrder(programme), cue).map(({ at }) => since(at)),
    hits: hits.map(({ start }) => since(start)),
    kicks: strokes('kick'),
    snares: strokes('snare'),
    closedHats: strokes('closed'),
    openHats: strokes('open'),
    energy: (frame) => energyAt(programme, add(cue.start, frames(frame, frameRate))),
    words: cue.words.map(({ start }) => since(start)),
    beat: steps[0] ?? second / 2,
    rate: second,
  };
}

/** From the start of a cue to an instant, by the frames next to each. */
function framesFrom({ facts }: Programme, { start }: Cue, at: Ticks): number {
  const { frameRate } = facts;
  return countFrames(nearestFrame(at, frameRate), frameRate) - countFrames(start, frameRate);
}

/** A stretch of the plain text of a cue, in UTF-16 units. */
interface Written {
  readonly from: number;
  readonly to: number;
}

/** When a part of the text of a cue is said, as far as its words have their times. */
export function sayingOf(programme: Programme, cue: Cue): (part: Written) => Said | undefined {
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
    const share = shareAt(time, written.text, Math.min(place, written.to) - written.from);
    const instant = (time.start + share * (time.end - time.start)) as Ticks;
    return framesFrom(programme, cue, instant);
  };
  return ({ from, to }) => {
    const [start, end] = [at(from, 'from'), at(to, 'to')];
    return start === undefined || end === undefined ? undefined : { start, end };
  };
}

/** A note that is held: on which letter of the plain text of its cue, and from when to when. */
export interface HeldNote extends Said {
  readonly letter: number;
}

/** The notes of a cue that are held, in turn, each on the vowel that is written where it begins. */
export function heldNotesOf(programme: Programme, cue: Cue): HeldNote[] {
  if (!cue.words.some(({ held }) => held)) return [];
  const words = wordsOf(plainText(cue.text));
  const times = timesOf(
    cue.words,
    words.map(({ text }) => text),
  );
  return words.flatMap(({ from, text }, at) => {
    const time = times[at];
    if (!time) return [];
    const instant = (share: number) =>
      framesFrom(programme, cue, add(time.start, ((time.end - time.start) * share) as Ticks));
    return heldLetters(time, text).map((hold): HeldNote => ({
      letter: from + hold.letter,
      start: instant(hold.from),
      end: instant(hold.to),
    }));
  });
}
