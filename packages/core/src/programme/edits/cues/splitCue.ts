/** Cutting a cue in two. */
import { isBlank, linesOf, plainText, slice, type Line } from '../../../text/lines.ts';
import { readingWeight } from '../../../text/readingWeight.ts';
import { wordsOf } from '../../../text/words.ts';
import { nearestFrame } from '../../../time/frameRate.ts';
import type { Ticks } from '../../../time/ticks.ts';
import { create, update, type Edit } from '../../record/change.ts';
import { shortestCue, TRAVELS } from '../../record/limits.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import { laterPart } from './laterPart.ts';

/**
 * Splits a cue at the frame nearest to `at`. The second half is a new cue.
 *
 * Text is divided where its words are said if every word has a time; else at the word whose share of
 * the reading weight comes closest to `at`. A place in the text can be given instead (the typing
 * mark), as a UTF-16 offset into the plain text.
 */
export function splitCue(
  programme: Programme,
  id: Id,
  at: Ticks,
  newId: () => Id,
  place?: number,
): Edit {
  const name = 'Split a cue';
  const cue = programme.cues[id];
  if (!cue) return { name, changes: [] };
  if (cue.passage) return { name, changes: [], note: TRAVELS };
  const middle = nearestFrame(at, programme.facts.frameRate);
  const shortest = shortestCue(programme);
  if (middle - cue.start < shortest || cue.end - middle < shortest)
    return { name, changes: [], note: 'Put the playhead inside the cue to split it.' };
  const cut = place ?? placeInText(cue, middle);
  const [first, second] = divide(cue.text, cut);
  const rest = laterPart(cue, {
    id: newId(),
    start: middle,
    end: cue.end,
    text: second,
    words: cue.words.filter((word) => word.start >= middle),
  });
  const kept = { end: middle, text: first, words: cue.words.filter((word) => word.start < middle) };
  return { name, changes: [...update('cue', cue, kept), create('cue', rest)] };
}

/** Cuts text at a place; white space and the line break at the cut are dropped. */
function divide(text: readonly Line[], place: number): [Line[], Line[]] {
  const plain = plainText(text);
  const head = plain.slice(0, place).trimEnd().length;
  const tail = plain.length - plain.slice(place).trimStart().length;
  const cut = (from: number, to: number) => {
    const part = slice(text, from, to);
    return isBlank(part) ? linesOf('') : part;
  };
  return [
    cut(0, head),
    tail > place || tail < plain.length ? cut(tail, plain.length) : linesOf(''),
  ];
}

function placeInText(cue: Cue, at: Ticks): number {
  const plain = plainText(cue.text);
  const written = wordsOf(plain);
  if (written.length === cue.words.length && written.length > 0) {
    const next = cue.words.findIndex((word) => word.start >= at);
    return next < 0 ? plain.length : (written[next]?.from ?? 0);
  }
  const share = (at - cue.start) / (cue.end - cue.start);
  const whole = readingWeight(plain);
  const places = [0, ...written.slice(1).map((word) => word.from), plain.length];
  const distance = (place: number) =>
    Math.abs(readingWeight(plain.slice(0, place)) / whole - share);
  // A single word is not torn: it goes to the half that holds more of the time.
  const inner = places.length > 2 ? places.slice(1, -1) : places;
  return inner.reduce(
    (best, place) => (distance(place) < distance(best) ? place : best),
    inner[0] ?? 0,
  );
}
