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
import { drumsOf, type Cue, type Programme, type WordTime } from './programme.ts';
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
    const share = shareAt(time, Math.min(place, written.to) - written.from, written.text.length);
    const instant = (time.start + share * (time.end - time.start)) as Ticks;
    return framesFrom(programme, cue, instant);
  };
  return ({ from, to }) => {
    const [start, end] = [at(from, 'from'), at(to, 'to')];
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
