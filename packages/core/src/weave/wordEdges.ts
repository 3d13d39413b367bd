/** Frames of a sound as times, and the edges of words. */
import { earlier, fromSeconds, later, toSeconds, type Ticks } from '../time/ticks.ts';
import { edgeBesidePause } from './edges.ts';
import { framesIn, type Voice } from './fine.ts';
import type { Placed, Places } from './placed.ts';
import type { Woven, WovenSound } from './woven.ts';

/** The states of the model change so much later than the sound does, in seconds. */
const LATE = 0.006;
export const FRAME = 0.01;

/** The time at which a frame takes over from the one before it, in seconds. */
export const timeOf = ({ firstMiddle }: Voice, frame: number): number =>
  Math.max(0, firstMiddle + (frame - 0.5) * FRAME - LATE);

/** The frame that takes over at a time. */
export const frameAt = ({ firstMiddle }: Voice, time: Ticks): number =>
  Math.round((toSeconds(time) + LATE - firstMiddle) / FRAME + 0.5);

/** The sounds of a word, where it has a place. */
export const soundsOf = (
  voice: Voice,
  place: Placed | undefined,
  names: readonly string[],
): WovenSound[] =>
  (place?.phones ?? []).map(({ phone, from, to }) => ({
    name: names[phone] as string,
    start: fromSeconds(timeOf(voice, from)),
    end: fromSeconds(timeOf(voice, to)),
  }));

/** Two words with at least this many frames between them have a pause between them. */
const PAUSE = 3;

/** Start and end of each word, those beside a pause where the sound rises and sinks. */
export function edgesOf(voice: Voice, places: Places): ([Ticks, Ticks] | undefined)[] {
  let before = 0;
  const ends: number[] = [];
  places.forEach((place) => {
    ends.push(before);
    before = place?.to ?? before;
  });
  let after = framesIn(voice.frames);
  const starts: number[] = [];
  for (let at = places.length - 1; at >= 0; at--) {
    starts[at] = after;
    after = places[at]?.from ?? after;
  }
  return places.map((place, at) => {
    if (!place) return undefined;
    const gapBefore = place.from - (ends[at] as number);
    const gapAfter = (starts[at] as number) - place.to;
    let [start, end] = [timeOf(voice, place.from), timeOf(voice, place.to)];
    if (gapBefore >= PAUSE) start = edgeBesidePause(voice.loudness, start, 1, gapBefore * FRAME);
    if (gapAfter >= PAUSE) end = edgeBesidePause(voice.loudness, end, -1, gapAfter * FRAME);
    return [fromSeconds(start), fromSeconds(Math.max(start, end))];
  });
}

/** Words beside a pin, which lies between two frames, end before it and begin after it. */
export function besidePins(words: readonly Woven[]): Woven[] {
  const clipped = words.map((word): { -readonly [K in keyof Woven]: Woven[K] } => ({ ...word }));
  let last: number | undefined;
  clipped.forEach((word, at) => {
    const before = last === undefined ? undefined : clipped[last];
    if (word.start === null || word.end === null) return;
    if (before && before.start !== null && before.end !== null && before.end > word.start) {
      if (word.source === 'pinned') before.end = later(before.start, word.start);
      else word.start = earlier(before.end, word.end);
    }
    last = at;
  });
  return clipped;
}
