/** Lines that weaving is not sure of, and the room that they have between those that it is sure of. */
import type { Range } from '../../time/range.ts';
import { later, ZERO } from '../../time/ticks.ts';
import { cuesInOrder } from '../order.ts';
import type { Cue, Id, Programme, WordTime } from '../programme.ts';
import { timesOf } from './reworded.ts';
import { fixed, stateOf } from './wordState.ts';
import { wordsIn } from './wordsIn.ts';

/** A line is placed where its words are so sure on average. */
const UNSURE = 0.5;

/** Of each cue that was asked about; a cue is never changed, but replaced. */
const known = new WeakMap<Cue, boolean>();

/** How sure a word is where it is, from 0 to 1. */
function sureOf(time: WordTime | undefined): number {
  const state = stateOf(time);
  if (state === 'not heard') return 0;
  return state === 'sure' || state === 'doubtful' ? (time?.confidence ?? 1) : 1;
}

function judged(cue: Cue): boolean {
  const times = timesOf(cue.words, wordsIn(cue));
  // Where it begins was said by hand.
  if (cue.words.length === 0 || (times[0] && fixed(times[0]))) return false;
  return times.reduce((sum, time) => sum + sureOf(time), 0) < UNSURE * times.length;
}

/** Whether a cue was woven, and its words are on average more likely to be elsewhere than where they are. */
export function isUnsure(cue: Cue): boolean {
  const before = known.get(cue);
  if (before !== undefined) return before;
  const is = judged(cue);
  known.set(cue, is);
  return is;
}

/** A cue, and those right before and after it of which weaving is not sure either, in order. */
export function unsureAround(programme: Programme, id: Id): readonly Cue[] {
  const cue = programme.cues[id];
  if (!cue) return [];
  const row = cuesInOrder(programme, cue.strand);
  const place = row.findIndex((other) => other.id === id);
  const isOther = (other: Cue) => !isUnsure(other);
  const before = row.slice(0, place).findLastIndex(isOther) + 1;
  const after = row.slice(place + 1).findIndex(isOther);
  return row.slice(before, after < 0 ? row.length : place + 1 + after);
}

/** The stretch of the programme in which a cue and those of {@link unsureAround} can be. */
export function roomAround(programme: Programme, id: Id): Range {
  const around = unsureAround(programme, id);
  const [first, last] = [around[0], around.at(-1)];
  if (!first || !last) return { start: ZERO, end: programme.facts.length };
  const row = cuesInOrder(programme, first.strand);
  const before = row[row.indexOf(first) - 1];
  const after = row[row.indexOf(last) + 1];
  const start = before ? (before.words.at(-1)?.end ?? before.end) : ZERO;
  const end = after ? (after.words[0]?.start ?? after.start) : programme.facts.length;
  return { start, end: later(start, end) };
}
