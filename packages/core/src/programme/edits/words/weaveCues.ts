/** What weaving found, given to the words of cues. */
import { plainText } from '../../../text/lines.ts';
import { frameAfter, frameBefore, frames } from '../../../time/frameRate.ts';
import type { Range } from '../../../time/range.ts';
import {
  add,
  earlier,
  fromSeconds,
  later,
  subtract,
  ZERO,
  type Ticks,
} from '../../../time/ticks.ts';
import { SURE } from '../../../weave/confidence.ts';
import type { Pin, Tap, Woven } from '../../../weave/woven.ts';
import { update, type Change, type Edit } from '../../record/change.ts';
import { lineStarts } from '../../../text/sentences.ts';
import { wordTimes } from '../../woven/cutWoven.ts';
import { shortestCue } from '../../record/limits.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Id, Programme, WordTime } from '../../programme.ts';
import { timesOf } from '../../woven/reworded.ts';
import { withUnplaced, type Part } from '../../woven/unplaced.ts';
import { fixed, stateOf } from '../../woven/wordState.ts';
import { wordsIn } from '../../woven/wordsIn.ts';
import { aOrMany, plural } from '../../../text/plural.ts';

/** Cues that are to be woven: their words one after the other, and the times that the editor fixed. */
export interface Weaving {
  readonly cues: readonly Id[];
  readonly words: readonly string[];
  readonly pins: readonly Pin[];
  readonly taps: readonly Tap[];
  /** The words that begin a line or a sentence, by their places. */
  readonly lines: readonly number[];
}

/** What weaving does not move: only what was fixed, or also words that are sure. */
export type Stay = 'fixed' | 'sure';

/** What of some cues of a strand is to be woven, in the order of the strand. */
export function toWeave(
  programme: Programme,
  strand: Id,
  ids: readonly Id[],
  stay: Stay = 'fixed',
): Weaving {
  const chosen = new Set(ids);
  const words: string[] = [];
  const pins: Pin[] = [];
  const taps: Tap[] = [];
  const lines: number[] = [];
  const cues = cuesInOrder(programme, strand).filter(({ id }) => chosen.has(id));
  for (const cue of cues) {
    const own = wordsIn(cue);
    timesOf(cue.words, own).forEach((time, at) => {
      const index = words.length + at;
      if (time?.source === 'pinned') pins.push({ index, start: time.start, end: time.end });
      else if (time?.source === 'tapped') taps.push({ index, at: time.start });
      else if (time && stay === 'sure' && stateOf(time) === 'sure')
        pins.push({ index, start: time.start, end: time.end });
    });
    lines.push(...lineStarts(plainText(cue.text)).map((at) => words.length + at));
    words.push(...own);
  }
  return { cues: cues.map(({ id }) => id), words, pins, taps, lines };
}

/** A word that was split stays split, wherever it goes. */
const syllablesOf = (time: WordTime | undefined): Pick<WordTime, 'syllables'> =>
  time?.syllables ? { syllables: time.syllables } : {};

/** Whether a word is doubtful, and comes before a word ahead of it that was tapped. */
const isHardly = (word: WordTime, tapped: WordTime): boolean =>
  stateOf(word) === 'doubtful' && word.start <= tapped.start;

const heldOf = (time: WordTime | undefined): Pick<WordTime, 'held'> =>
  time?.held ? { held: time.held } : {};

/** Cues of a strand that follow each other, and the time that their words can lie in: up to what stands on either side. */
export interface Run {
  readonly cues: readonly Id[];
  readonly within: Range;
}

/** Cues as the runs that they stand in; words before the first or after the last of all have the whole time. */
export function runsOf(programme: Programme, strand: Id, ids: readonly Id[]): Run[] {
  const chosen = new Set(ids);
  const row = cuesInOrder(programme, strand);
  const runs: { cues: Id[]; start: Ticks; end: Ticks }[] = [];
  row.forEach((cue, at) => {
    if (!chosen.has(cue.id)) return;
    const before = row[at - 1];
    const after = row[at + 1];
    const run = runs.at(-1);
    const start = before ? (before.words.at(-1)?.end ?? before.end) : ZERO;
    const end = after
      ? (after.words[0]?.start ?? after.start)
      : later(programme.facts.length, cue.end);
    if (run && before && chosen.has(before.id)) {
      run.cues.push(cue.id);
      run.end = end;
    } else runs.push({ cues: [cue.id], start, end });
  });
  return runs.map(({ cues, start, end }) => ({ cues, within: { start, end: later(start, end) } }));
}

/** How far before its first word a cue comes, and how far after its last it goes, in frames; it is tied so. */
export interface Follow {
  readonly lead: number;
  readonly tail: number;
}

/**
 * Gives words their times, and has cues begin with their first word and end with their last, at whole frames.
 *
 * Where the claims of two cues meet, they part half way between the words. A cue of which nothing was said stands where the
 * cues beside it allow.
 *
 * @param woven   of each word of `weaving`, in the programme's time
 * @param follow  undefined where cues keep their times
 */
export function weaveCues(
  programme: Programme,
  weaving: Weaving,
  woven: readonly Woven[],
  follow?: Follow,
): Edit {
  let at = 0;
  const heard = weaving.cues.flatMap((id): Part[] => {
    const cue = programme.cues[id];
    if (!cue) return [];
    const own = wordsIn(cue);
    const before = timesOf(cue.words, own);
    const times = woven.slice(at, (at += own.length));
    let last = ZERO;
    /** Where the last tap stands at which nothing was heard. */
    let tapped: Ticks | undefined;
    const found = timesOf(wordTimes(own, times), own);
    const words = found.flatMap((word, place): WordTime[] => {
      const had = before[place];
      if (!word) {
        // What was tapped stands where nothing was heard, unless a word that is sure is there.
        if (had?.source !== 'tapped' || had.start < last) return [];
        const next = found.slice(place + 1).find((other) => other && !isHardly(other, had))?.start;
        if (next !== undefined && next <= had.start) return [];
        tapped = had.start;
        return [{ ...had, end: earlier(had.end, next ?? had.end) }];
      }
      // It was hardly heard, before a tap that stands.
      if (tapped !== undefined && word.start <= tapped) return [];
      last = word.end;
      // Where it is hardly heard, it is the tap that says where it is.
      if (had?.source === 'tapped' && stateOf(word) === 'doubtful') {
        const { confidence: _none, ...found } = word;
        return [{ ...found, source: 'tapped', ...syllablesOf(had) }];
      }
      const stays = had?.start === word.start && (fixed(had) || word.source === 'pinned');
      return [stays ? { ...had, end: word.end } : { ...word, ...syllablesOf(had) }];
    });
    return [{ cue, words, near: times[0]?.near }];
  });
  const parts = withUnplaced(programme, heard, (cue) => Boolean(follow) || isTied(cue));
  const ranges = follow ? follows(programme, parts, follow) : undefined;
  const changes = parts.flatMap(({ cue, words }, place): Change[] =>
    update('cue', cue, {
      words,
      ...ranges?.[place],
      ...(follow && words.length > 0 && tiesOf(follow)),
    }),
  );
  const unsaid = woven.filter(({ start }) => start === null).length;
  const doubtful = woven.filter(
    ({ start, confidence }) => start !== null && confidence < SURE,
  ).length;
  const notes = [
    ...(unsaid > 0 ? [`${plural(unsaid, 'word')} not heard`] : []),
    ...(doubtful > 0 ? [`${plural(doubtful, 'word')} doubtful`] : []),
  ];
  return {
    name: `Weave ${plural(woven.length, 'word')}`,
    changes,
    ...(notes.length > 0 && { note: `${notes.join(', ')}.` }),
  };
}

/** Whether a cue goes where its words go. */
const isTied = ({ startTie, endTie }: Cue): boolean =>
  startTie?.to === 'word' && endTie?.to === 'word';

const tiesOf = ({ lead, tail }: Follow): Pick<Cue, 'startTie' | 'endTie'> => ({
  startTie: { to: 'word', frames: lead },
  endTie: { to: 'word', frames: tail },
});

/** Where each cue goes that follows its words. */
function follows(
  programme: Programme,
  parts: readonly Part[],
  { lead, tail }: Follow,
): { start: Ticks; end: Ticks }[] {
  const { frameRate } = programme.facts;
  const shortest = shortestCue(programme);
  const woven = new Set(parts.map(({ cue }) => cue.id));
  const others = parts[0]
    ? cuesInOrder(programme, parts[0].cue.strand).filter(({ id }) => !woven.has(id))
    : [];
  const claims = parts.map(({ cue, words }) => {
    const [first, last] = [words[0], words.at(-1)];
    if (!first || !last) return { start: cue.start, end: cue.end, from: cue.start, to: cue.end };
    return {
      start: later(ZERO, subtract(frameBefore(first.start, frameRate), frames(lead, frameRate))),
      end: add(frameAfter(last.end, frameRate), frames(tail, frameRate)),
      from: first.start,
      to: last.end,
    };
  });
  let free = ZERO;
  return claims.map((claim, at) => {
    // What stays lies in the way on either side.
    for (const other of others) if (other.start <= claim.from && other.end > free) free = other.end;
    const next = others.find((other) => other.start > claim.from)?.start;
    const following = claims[at + 1];
    let { end } = claim;
    if (following && following.start < end && following.from >= claim.to)
      end = frameBefore(
        add(claim.to, (subtract(following.from, claim.to) / 2) as Ticks),
        frameRate,
      );
    if (next !== undefined) end = earlier(end, next);
    const start = later(claim.start, free);
    end = later(end, add(start, shortest));
    free = end;
    return { start, end };
  });
}

/** Fixes the time of a word by hand, or moves it and fixes it. Neighbours in the cue make room. */
export function pinWord(
  programme: Programme,
  id: Id,
  place: number,
  to: { readonly start: Ticks; readonly end: Ticks },
): Edit {
  const name = 'Pin a word';
  const cue = programme.cues[id];
  const own = cue ? wordsIn(cue) : [];
  const text = own[place];
  if (!cue || text === undefined) return { name, changes: [] };
  const times = timesOf(cue.words, own);
  const words = times.flatMap((time, at): WordTime[] => {
    if (at === place)
      return [{ text, ...to, source: 'pinned', ...syllablesOf(time), ...heldOf(time) }];
    if (!time) return [];
    if (at < place) {
      const start = earlier(time.start, to.start);
      return [{ ...time, start, end: later(start, earlier(time.end, to.start)) }];
    }
    const end = later(time.end, to.end);
    return [{ ...time, start: earlier(end, later(time.start, to.end)), end }];
  });
  return { name, changes: update('cue', cue, { words }) };
}

/** Words that are no further apart touch: the edge between them belongs to both. */
const TOUCHING = fromSeconds(0.03);

/**
 * Moves one edge of a word and fixes the word. A word that touches it there goes along, so that no gap opens; one that
 * does not makes room. It never passes the other edge of either.
 *
 * @param at  which of the timed words of the cue
 */
export function moveWordEdge(
  programme: Programme,
  id: Id,
  at: number,
  edge: 'start' | 'end',
  to: Ticks,
): Edit {
  const cue = programme.cues[id];
  const word = cue?.words[at];
  if (!cue || !word) return { name: 'Pin a word', changes: [] };
  const [before, after] = [cue.words[at - 1], cue.words[at + 1]];
  const words = [...cue.words];
  if (edge === 'start') {
    const start = later(earlier(to, word.end), before?.start ?? ZERO);
    words[at] = { ...word, start, source: 'pinned' };
    if (before) {
      const touches = subtract(word.start, before.end) <= TOUCHING;
      words[at - 1] = { ...before, end: touches ? start : earlier(before.end, start) };
    }
  } else {
    const end = later(word.start, after ? earlier(to, after.end) : to);
    words[at] = { ...word, end, source: 'pinned' };
    if (after) {
      const touches = subtract(after.start, word.end) <= TOUCHING;
      words[at + 1] = { ...after, start: touches ? end : later(after.start, end) };
    }
  }
  return { name: `Pin a word’s ${edge}`, changes: update('cue', cue, { words }) };
}

/** Accepts the words of cues that are doubtful, or were not heard but stand somewhere, where they are: they are pinned. */
export function acceptWords(programme: Programme, ids: readonly Id[]): Edit {
  let count = 0;
  const changes = ids.flatMap((id) => {
    const cue = programme.cues[id];
    if (!cue) return [];
    const words = cue.words.map((word): WordTime => {
      if (!['doubtful', 'not heard'].includes(stateOf(word))) return word;
      count++;
      return { ...word, source: 'pinned' };
    });
    return update('cue', cue, { words });
  });
  return {
    name: `Accept ${aOrMany(count, 'word')}`,
    changes,
    ...(count === 0 && { note: 'No word here is doubtful.' }),
  };
}

/** Gives the times of some words back to weaving. */
export function unpinWords(programme: Programme, id: Id, places: readonly number[]): Edit {
  const cue = programme.cues[id];
  const own = cue ? wordsIn(cue) : [];
  const words = timesOf(cue?.words ?? [], own).flatMap((time, at): WordTime[] => {
    if (!time) return [];
    return [places.includes(at) && fixed(time) ? { ...time, source: 'woven' } : time];
  });
  return { name: 'Unpin words', changes: cue ? update('cue', cue, { words }) : [] };
}

/** The words of a cue that weaving is not sure of, by their places. */
export const doubtfulIn = (cue: Cue): number[] =>
  timesOf(cue.words, wordsIn(cue)).flatMap((time, at) =>
    stateOf(time) === 'doubtful' ? [at] : [],
  );
