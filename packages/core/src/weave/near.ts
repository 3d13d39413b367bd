/** Where words may be that have no times: where somebody sings between what is before and after them. */
import { fromSeconds, ZERO, type Ticks } from '../time/ticks.ts';
import { framesIn, type Voice } from './fine.ts';
import { singsAt, type HeardSong } from './song.ts';
import { FRAMES_A_STEP } from './songBands.ts';
import { frameAt, timeOf } from './wordEdges.ts';
import type { Woven } from './woven.ts';

/** The frames between two in which somebody sings, a step at a time. */
function sungBetween(song: HeardSong, from: number, to: number): number[] {
  const frames: number[] = [];
  for (let frame = from; frame < to; frame += FRAMES_A_STEP)
    if (singsAt(song, frame)) frames.push(frame);
  return frames;
}

/** Words of a song, each that was not placed with its share of the singing where it may be. */
export function withNear(voice: Voice, words: readonly Woven[]): readonly Woven[] {
  const { song } = voice;
  if (!song) return words;
  const all = [...words];
  let at = 0;
  let before: Ticks = ZERO;
  while (at < words.length) {
    const end = words[at]?.end ?? null;
    if (end !== null) {
      before = end;
      at++;
      continue;
    }
    let next = at;
    while (next < words.length && words[next]?.start === null) next++;
    const after = words[next]?.start ?? null;
    const to = after === null ? framesIn(voice.frames) : frameAt(voice, after);
    const sung = sungBetween(song, Math.max(0, frameAt(voice, before)), to);
    const time = (frame: number) => fromSeconds(timeOf(voice, frame));
    for (let word = at; sung.length > 0 && word < next; word++) {
      const share = (part: number) => Math.floor((part * (sung.length - 1)) / (next - at));
      const start = time(sung[share(word - at)] as number);
      const last = time((sung[share(word - at + 1)] as number) + FRAMES_A_STEP);
      all[word] = { ...(words[word] as Woven), near: { start, end: last } };
    }
    at = next;
  }
  return all;
}
