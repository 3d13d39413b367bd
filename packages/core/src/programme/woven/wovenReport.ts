/** What is known of the times of words: word by word, in sum, and along the programme. */
import { countWords } from '../../text/words.ts';
import type { Range } from '../../time/range.ts';
import { earlier, later, subtract, ticks, toSeconds, type Ticks } from '../../time/ticks.ts';
import { wordsIn } from './wordsIn.ts';
import { heardPieces } from '../heard.ts';
import { cuesInOrder } from '../order.ts';
import type { Id, Programme } from '../programme.ts';
import { timesOf } from './reworded.ts';
import { stateOf, type WordState } from './wordState.ts';

export interface ReportedWord {
  readonly cue: Id;
  /** Which of the words of its cue. */
  readonly place: number;
  readonly text: string;
  readonly start: Ticks | null;
  readonly end: Ticks | null;
  readonly state: WordState;
  /** From 0 to 1; null where it was not woven. */
  readonly confidence: number | null;
}

/** Every word of a strand that is said, in order. */
export const reportedWords = (programme: Programme, strand: Id): ReportedWord[] =>
  cuesInOrder(programme, strand).flatMap((cue) => {
    const own = wordsIn(cue);
    const times = timesOf(cue.words, own);
    return own.flatMap((text, place): ReportedWord[] => {
      const time = times[place];
      if (!time && countWords(text) === 0) return [];
      const state = stateOf(time, cue.words.length > 0);
      const stands = state === 'not heard' ? undefined : time;
      return [
        {
          cue: cue.id,
          place,
          text,
          start: stands?.start ?? null,
          end: stands?.end ?? null,
          state,
          confidence: time?.source === 'woven' ? (time.confidence ?? 1) : null,
        },
      ];
    });
  });

/** Speech that is shorter is a breath, or the edge of a word. */
const SHORTEST = 0.5;

/** Speech in the sound that no word stands at: said, but not written. */
export function unwritten(programme: Programme, words: readonly ReportedWord[]): Range[] {
  const said = words.flatMap(({ start, end }) =>
    start === null || end === null ? [] : [{ start, end }],
  );
  said.sort((a, b) => a.start - b.start);
  const found: Range[] = [];
  let at = 0;
  for (const piece of heardPieces(programme)) {
    while (at < said.length && (said[at] as Range).end <= piece.start) at++;
    let from = piece.start;
    const add = (to: Ticks) => {
      if (toSeconds(subtract(to, from)) >= SHORTEST) found.push({ start: from, end: to });
    };
    for (let next = at; next < said.length; next++) {
      const word = said[next] as Range;
      if (word.start >= piece.end) break;
      add(earlier(word.start, piece.end));
      from = later(from, word.end);
    }
    if (from < piece.end) add(piece.end);
  }
  return found;
}

/** A stretch of the programme in sum. */
export interface ReportedStretch extends Range {
  /** Of the woven words that begin in it; null where there are none. */
  readonly confidence: number | null;
  /** How fast they are said, pauses left out; null where too little is. */
  readonly wordsAMinute: number | null;
  /** Seconds of speech without words, and words without speech. */
  readonly unwritten: number;
  readonly unheard: number;
}

/** The least seconds of words from which a rate is given. */
const LEAST_SAID = 0.5;

/**
 * The programme in equal stretches.
 *
 * @param count  of stretches, at most; none is shorter than two seconds
 */
export function reportedStretches(
  programme: Programme,
  words: readonly ReportedWord[],
  count: number,
): ReportedStretch[] {
  const { length } = programme.facts;
  const used = Math.max(1, Math.min(count, Math.floor(toSeconds(length) / 2)));
  const edge = (at: number) => ticks((length * at) / used);
  const of = (time: Ticks) => Math.max(0, Math.min(used - 1, Math.floor((time / length) * used)));
  const sums = Array.from({ length: used }, () => ({
    words: 0,
    said: 0,
    woven: 0,
    confidence: 0,
    unheard: 0,
    unwritten: 0,
  }));
  const sum = (time: Ticks) => sums[of(time)] as (typeof sums)[number];
  let last = words.find(({ start }) => start !== null)?.start ?? (0 as Ticks);
  for (const { start, end, state, confidence } of words) {
    if (start === null || end === null) {
      if (state === 'not heard') sum(last).unheard++;
      continue;
    }
    last = start;
    const own = sum(start);
    own.words++;
    own.said += toSeconds(subtract(end, start));
    if (confidence === null) continue;
    own.woven++;
    own.confidence += confidence;
  }
  for (const piece of unwritten(programme, words))
    for (let at = of(piece.start); at <= of(piece.end); at++) {
      const shared = earlier(piece.end, edge(at + 1)) - later(piece.start, edge(at));
      (sums[at] as (typeof sums)[number]).unwritten += Math.max(0, toSeconds(ticks(shared)));
    }
  return sums.map((own, at) => ({
    start: edge(at),
    end: edge(at + 1),
    confidence: own.woven > 0 ? own.confidence / own.woven : null,
    wordsAMinute: own.said >= LEAST_SAID ? (60 * own.words) / own.said : null,
    unwritten: own.unwritten,
    unheard: own.unheard,
  }));
}

/** By how much times changed, in ticks: in the middle, and the furthest with its word. */
export interface Shifted {
  readonly median: Ticks;
  readonly worst: Ticks;
  readonly word: ReportedWord;
}

/**
 * How far the words of cues moved from one state of the programme to another; undefined where no word has a time in
 * both.
 */
export function shifted(
  before: readonly ReportedWord[],
  after: readonly ReportedWord[],
): Shifted | undefined {
  const keyOf = ({ cue, place, text }: ReportedWord) => `${cue} ${String(place)} ${text}`;
  const had = new Map(before.map((word) => [keyOf(word), word.start]));
  const moves = after.flatMap((word) => {
    const old = had.get(keyOf(word)) ?? null;
    if (old === null || word.start === null) return [];
    return [{ word, by: Math.abs(word.start - old) as Ticks }];
  });
  moves.sort((a, b) => a.by - b.by);
  const [middle, worst] = [moves[moves.length >> 1], moves.at(-1)];
  return middle && worst && { median: middle.by, worst: worst.by, word: worst.word };
}
