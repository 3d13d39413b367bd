/**
 * Lines that are sung again between lines that are written: a chorus that was written once pushes what is written after it
 * into its second time. Where some lines in a row are not sure, the coarse pass looks for them again with a place before
 * and after each where any line of the script may come in; what it takes there is tried by itself.
 */
import type { Aligner } from './aligner.ts';
import { coarsePath } from './coarsePass.ts';
import type { Range } from '../time/range.ts';
import { framesIn, type Voice } from './fine.ts';
import type { Said, Token } from './lattice.ts';
import { differing, LEAST_TOKENS, type Frames, type Line } from './repeats.ts';
import { STRIDE } from './settings.ts';
import { frameAt } from './wordEdges.ts';
import type { Pin, Tap, Woven } from './woven.ts';

/** Logarithm of the odds of a line that does not come in, against one that does. */
const STAYS_OUT = 20;
/** By how much a line that comes in makes the whole likelier at least, as a logarithm. */
const LEAST_GAIN = 60;
/** The same for a line that is left out. */
const UNSUNG_GAIN = 20;
/** A line whose words are surer on average stands where it is. */
const SURE_LINE = 0.7;
/** So many lines may come in one after the other. */
const IN_A_ROW = 2;
/** No more lines are tried in one place, and no more is looked at: states of the graph by frames. */
const MOST_LINES = 60;
const MOST_WORK = 4e8;
/** Coarse states of a token, about. */
const STATES = 8;

/** Lines that are not sure, from one up to another, their words, and the frames between their sure neighbours. */
interface Unsettled extends Frames {
  readonly firstLine: number;
  readonly lastLine: number;
  readonly first: number;
  readonly last: number;
}

/** A line that comes in before another: both by their places among the lines. */
interface Insertion {
  readonly before: number;
  readonly line: number;
}

/**
 * Runs of lines of which weaving is not sure.
 *
 * @param lines   by their words
 * @param within  only there does anything lie
 * @param beside  how many lines on either side go with them
 */
export function unsettledIn(
  voice: Voice,
  lines: readonly Line[],
  woven: readonly Woven[],
  within: Range | undefined,
  beside = 0,
): Unsettled[] {
  const isSure = ({ first, last }: Line): boolean => {
    const own = woven.slice(first, last);
    return own.reduce((sum, { confidence }) => sum + confidence, 0) >= SURE_LINE * own.length;
  };
  const count = framesIn(voice.frames);
  const start = within ? Math.max(0, frameAt(voice, within.start)) : 0;
  const end = within ? Math.min(count, frameAt(voice, within.end)) : count;
  const found: Unsettled[] = [];
  let at = 0;
  while (at < lines.length) {
    if (isSure(lines[at] as Line)) {
      at++;
      continue;
    }
    const firstLine = Math.max(0, at - beside);
    while (at < lines.length && !isSure(lines[at] as Line)) at++;
    const lastLine = Math.min(lines.length, at + beside);
    const { first } = lines[firstLine] as Line;
    const { last } = lines[lastLine - 1] as Line;
    const before = woven.slice(0, first).findLast((word) => word.end !== null)?.end ?? null;
    const after = woven.slice(last).find((word) => word.start !== null)?.start ?? null;
    found.push({
      ...{ firstLine, lastLine, first, last },
      from: before === null ? start : Math.max(start, frameAt(voice, before)),
      to: after === null ? end : Math.min(end, frameAt(voice, after)),
    });
  }
  return found;
}

/** Those of a line that can be said. */
const tokensOf =
  (tokens: readonly Token[]) =>
  ({ first, last }: Line): readonly Token[] =>
    tokens.slice(first, last).filter(({ readings }) => readings.length > 0);

/** A token as the one way to say it that is likeliest. */
const saidOf = ({ readings }: Token): readonly Said[] => readings[0] ?? [];

/**
 * @param lines  of the script, by their tokens
 * @returns      the lines that come in, in order
 */
export function insertionsIn(
  aligner: Aligner,
  voice: Voice,
  tokens: readonly Token[],
  lines: readonly Line[],
  { firstLine, lastLine, from, to }: Unsettled,
): Insertion[] {
  const bounds = [Math.floor(from / STRIDE), Math.min(voice.coarse.count, Math.ceil(to / STRIDE))];
  const [first, last] = bounds as [number, number];
  const pathOf = (some: readonly Token[], start = first, end = last) =>
    coarsePath(aligner.plain, voice.coarse, some, start, end);
  const of = tokensOf(tokens);
  const candidates = nearest(lines, tokens, firstLine);
  const size = candidates.reduce((sum, at) => sum + of(lines[at] as Line).length, 0) * STATES;
  const places = IN_A_ROW * (lastLine - firstLine + 1);
  if (last <= first || candidates.length === 0 || size * places * (last - first) > MOST_WORK)
    return [];
  const any: Token = {
    readings: candidates.map((at) => of(lines[at] as Line).flatMap(saidOf)),
    leftOut: STAYS_OUT,
  };
  const own = lines.slice(firstLine, lastLine);
  const mixed: Token[] = [];
  /** The line before which each token stands that any line may be. */
  const placeOf = new Map<number, number>();
  for (let line = firstLine; line <= lastLine; line++) {
    for (let time = 0; time < IN_A_ROW; time++) placeOf.set(mixed.push(any) - 1, line);
    if (line < lastLine) mixed.push(...of(lines[line] as Line));
  }
  const found = pathOf(mixed);
  if (!found) return [];
  const insertions: Insertion[] = [];
  for (const [token, before] of placeOf) {
    const begin = found.tokenOf.indexOf(token);
    if (begin < 0) continue;
    const end = found.tokenOf.lastIndexOf(token) + 1;
    const scored = candidates.map((line) => ({
      line,
      score: pathOf(of(lines[line] as Line), first + begin, first + end)?.path.score ?? -Infinity,
    }));
    scored.sort((a, b) => b.score - a.score);
    if (scored[0]) insertions.push({ before, line: scored[0].line });
  }
  if (insertions.length === 0) return [];
  const written = own.flatMap(of);
  const plain = pathOf(written)?.path.score ?? -Infinity;
  const all = inTurn(firstLine, lastLine, insertions).flatMap((line) => of(lines[line] as Line));
  const gain = (pathOf(all)?.path.score ?? -Infinity) - plain;
  return gain >= LEAST_GAIN * insertions.length ? insertions : [];
}

/** The places of lines that differ and can be heard, those nearest to one, not too many. */
function nearest(lines: readonly Line[], tokens: readonly Token[], to: number): number[] {
  const of = tokensOf(tokens);
  const heard = lines
    .map((line, at) => ({ ...line, at }))
    .filter((line) => of(line).length >= LEAST_TOKENS)
    .sort((a, b) => Math.abs(a.at - to) - Math.abs(b.at - to));
  return differing(heard, tokens)
    .slice(0, MOST_LINES)
    .map(({ at }) => at);
}

/**
 * The line that is most likely not sung, of some that are not sure and those right beside them; undefined where none is.
 * One that is written but not sung may stand where its neighbour is, and draw that elsewhere.
 *
 * @param lines  of the script, by their tokens
 */
export function omissionIn(
  aligner: Aligner,
  voice: Voice,
  tokens: readonly Token[],
  lines: readonly Line[],
  { firstLine, lastLine, from, to }: Unsettled,
): number | undefined {
  const of = tokensOf(tokens);
  const scoreOf = (own: readonly Line[]): number =>
    coarsePath(
      aligner.plain,
      voice.coarse,
      own.flatMap(of),
      Math.floor(from / STRIDE),
      Math.min(voice.coarse.count, Math.ceil(to / STRIDE)),
    )?.path.score ?? -Infinity;
  const own = lines.slice(firstLine, lastLine);
  const size = own.flatMap(of).length * STATES * own.length;
  if ((size * (to - from)) / STRIDE > MOST_WORK) return undefined;
  const plain = scoreOf(own);
  const tried = own.map((line, at) => ({
    line: firstLine + at,
    gain: scoreOf(own.filter((other) => other !== line)) - plain,
  }));
  const [best] = tried.sort((a, b) => b.gain - a.gain);
  return best && best.gain > UNSUNG_GAIN ? best.line : undefined;
}

/** Lines from one up to another with those that come in, in the order in which they are sung. */
function inTurn(firstLine: number, lastLine: number, insertions: readonly Insertion[]): number[] {
  const all: number[] = [];
  for (let at = firstLine; at <= lastLine; at++) {
    for (const { before, line } of insertions) if (before === at) all.push(line);
    if (at < lastLine) all.push(at);
  }
  return all;
}

/** All lines of a script and those that come in, in turn; those are less than 0: -1 for the first line. */
export const insertedIn = (count: number, insertions: readonly Insertion[]): number[] =>
  inTurn(
    0,
    count,
    insertions.map(({ before, line }) => ({ before, line: -1 - line })),
  );

/** A script as it is sung. */
interface AsSung {
  /** Its words, by their places in the script as it is written. */
  readonly words: readonly number[];
  /** The words that begin a line. */
  readonly lines: readonly number[];
  /** Of each word that is written, where it stands here; undefined where it does not. */
  readonly placeOf: readonly (number | undefined)[];
  readonly pins: readonly Pin[];
  readonly taps: readonly Tap[];
}

/**
 * @param lines  of the script, by its words
 * @param turn   the lines that are sung, as {@link insertedIn} has them
 */
export function asSung(
  lines: readonly Line[],
  turn: readonly number[],
  { pins, taps }: Pick<AsSung, 'pins' | 'taps'>,
): AsSung {
  const words: number[] = [];
  const begins: number[] = [];
  const placeOf: (number | undefined)[] = [];
  for (const line of turn) {
    const { first, last } = lines[line < 0 ? -1 - line : line] as Line;
    begins.push(words.length);
    for (let word = first; word < last; word++) {
      if (line >= 0) placeOf[word] = words.length;
      words.push(word);
    }
  }
  const moved = <T extends { readonly index: number }>(some: readonly T[]): T[] =>
    some.map((one) => ({ ...one, index: placeOf[one.index] as number }));
  return { words, lines: begins, placeOf, pins: moved(pins), taps: moved(taps) };
}
