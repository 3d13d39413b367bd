/** A cue becomes several, one after the other. */
import { plainText, type Line } from '../../../text/lines.ts';
import { readingWeight } from '../../../text/readingWeight.ts';
import { wordsOf } from '../../../text/words.ts';
import { frames, nearestFrame } from '../../../time/frameRate.ts';
import { add, clamp, subtract, ticks, type Ticks } from '../../../time/ticks.ts';
import { create, update, type Change } from '../../record/change.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import { laterPart } from './laterPart.ts';
import { reworded } from '../../woven/reworded.ts';

/**
 * Cuts a cue in several, each with its part of the text: at the times of its words where all are known, else by
 * reading weight, at whole frames. A cue that is too short for a frame each keeps all the parts.
 */
export function partCue(
  programme: Programme,
  cue: Cue,
  parts: readonly (readonly Line[])[],
  newId: () => Id,
): Change[] {
  const rate = programme.facts.frameRate;
  const frame = frames(1, rate);
  const room = subtract(cue.end, cue.start) >= parts.length * frame;
  if (parts.length === 1 || !room) return update('cue', cue, reworded(cue, parts.flat()));
  let before = subtract(cue.start, frame);
  const edges = edgesOf(cue, parts).map((edge, at) => {
    const latest = subtract(cue.end, ticks((parts.length - at) * frame));
    before = clamp(nearestFrame(edge, rate), add(before, frame), latest);
    return before;
  });
  return parts.flatMap((text, at) => {
    const start = at === 0 ? cue.start : (edges[at] as Ticks);
    const end = edges[at + 1] ?? cue.end;
    const words = cue.words.filter(
      (word) => (at === 0 || word.start >= start) && (at === parts.length - 1 || word.start < end),
    );
    if (at === 0) return update('cue', cue, { end, text, words });
    return [create('cue', laterPart(cue, { id: newId(), start, end, text, words }))];
  });
}

/** When each part begins: with its first word where each word has its time, else by weight. */
function edgesOf(cue: Cue, parts: readonly (readonly Line[])[]): Ticks[] {
  const texts = parts.map((part) => plainText(part));
  const counts = texts.map((text) => wordsOf(text).length);
  const spoken = counts.reduce((sum, count) => sum + count, 0);
  const timed = spoken > 0 && spoken === cue.words.length;
  const said = texts.map(readingWeight).filter((weight) => weight > 0);
  // A part where nothing stands yet gets as much as the others on average.
  const mean = said.reduce((sum, weight) => sum + weight, 0) / said.length || 1;
  const weights = texts.map((text) => readingWeight(text) || mean);
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  let [word, weight] = [0, 0];
  return parts.map((_, at) => {
    const edge = timed
      ? (cue.words[word]?.start ?? cue.start)
      : add(cue.start, ticks((subtract(cue.end, cue.start) * weight) / whole));
    word += counts[at] ?? 0;
    weight += weights[at] ?? 0;
    return edge;
  });
}
