/**
 * Breaking text into lines by sense as well as width.
 *
 * Every way of breaking is weighed by dynamic programming over the places between words, after Knuth and Plass
 * ("Breaking paragraphs into lines", Software: Practice and Experience, 1981): lines of even length are
 * light, a break behind punctuation or before a conjunction is lighter, one that tears an article, a
 * preposition, a number or a name from its word is heavy. Scripts without spaces are parted into words by
 * Unicode Standard Annex 29.
 */
import { countCharacters } from './graphemes.ts';
import { FUNCTION_WORDS, languageOfText, type TextLanguage } from './language/languageOfText.ts';
import { endsSentence } from './sentences.ts';
import { unspaced } from './words.ts';

/** What a line costs that is all of an even line shorter or longer; it grows with the square. */
const UNEVEN = 400;
/** What a break costs beside. */
const TORN = 900;
const SPLIT_NAME = 500;
const BEHIND_SENTENCE = -90;
const BEHIND_CLAUSE = -60;
const BEFORE_OPENING = -25;
/** A line that is too wide costs this for each character over, so that only what cannot be broken is. */
const TOO_WIDE = 1000;

interface Piece {
  readonly text: string;
  /** Where it stands in the whole text. */
  readonly from: number;
  readonly to: number;
}

const segmenter = new Intl.Segmenter('und', { granularity: 'word' });

/** The pieces that a line may be broken between. */
function piecesOf(text: string): Piece[] {
  const pieces: Piece[] = [];
  for (const { 0: word, index } of text.matchAll(/\S+/g)) {
    if (!unspaced.test(word)) {
      pieces.push({ text: word, from: index, to: index + word.length });
      continue;
    }
    for (const { segment, index: within, isWordLike } of segmenter.segment(word)) {
      const from = index + within;
      const last = pieces.at(-1);
      // Punctuation stays with the word before it.
      if (!isWordLike && last && last.to === from)
        pieces[pieces.length - 1] = {
          ...last,
          text: last.text + segment,
          to: from + segment.length,
        };
      else pieces.push({ text: segment, from, to: from + segment.length });
    }
  }
  return pieces;
}

const bare = (word: string): string =>
  word.replace(/[^\p{L}\p{N}'’]/gu, '').toLocaleLowerCase('und');
const isCapital = (word: string): boolean => /^\p{Lu}/u.test(word);

/** What it costs to break between two words; less than nothing where it helps. */
export function costBetween(
  before: { readonly text: string },
  after: { readonly text: string },
  beginsSentence: boolean,
  language: TextLanguage | undefined,
): number {
  if (endsSentence(before.text)) return BEHIND_SENTENCE;
  if (/[,;:–—]["”’')\]]*$/.test(before.text)) return BEHIND_CLAUSE;
  const [left, right] = [bare(before.text), bare(after.text)];
  const own = language && FUNCTION_WORDS[language];
  if (own?.clinging.has(left) || /^\p{N}+$/u.test(left)) return TORN;
  if (isCapital(before.text) && isCapital(after.text) && !beginsSentence) return SPLIT_NAME;
  return own?.opening.has(right) ? BEFORE_OPENING : 0;
}

/** A stretch of a text, by its places. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

export interface Limits {
  /** Lines at most, and how long each may be: in characters, or in the unit of `measure`. */
  readonly lines: number;
  readonly longestLine: number;
  /** How long a text is; without one, its characters are counted. */
  readonly measure?: (text: string) => number;
  /** The language that decides which words cling together; found in the text where none is given. */
  readonly language?: TextLanguage | undefined;
}

/**
 * The best way to break text, whose own line ends count as spaces, into so many stretches of at most so many
 * characters.
 *
 * @returns the stretches, none where there are fewer words; and whether it tears what belongs together
 */
function bestOf(
  text: string,
  count: number,
  { longestLine: longest, measure = countCharacters, language }: Omit<Limits, 'lines'>,
): { lines: Stretch[]; tears: boolean } {
  const pieces = piecesOf(text);
  const size = pieces.length;
  if (size === 0) return { lines: [], tears: false };
  const widths = pieces.map((piece) => measure(piece.text));
  const space = measure(' ');
  const spaces = pieces.map((piece, at) =>
    at > 0 && piece.from > (pieces[at - 1]?.to ?? 0) ? space : 0,
  );
  const letter = measure('n');
  const sums = [0];
  for (let at = 0; at < size; at++)
    sums.push((sums[at] ?? 0) + (widths[at] ?? 0) + (spaces[at] ?? 0));
  const width = (from: number, to: number) =>
    (sums[to] ?? 0) - (sums[from] ?? 0) - (spaces[from] ?? 0);
  const even = width(0, size) / count;
  const between = pieces.map((piece, at) => {
    const before = pieces[at - 1];
    if (!before) return 0;
    const earlier = pieces[at - 2];
    const begins = !earlier || endsSentence(earlier.text);
    return costBetween(before, piece, begins, language);
  });
  const lineCost = (from: number, to: number) => {
    const long = width(from, to);
    return UNEVEN * (long / even - 1) ** 2 + (TOO_WIDE * Math.max(0, long - longest)) / letter;
  };
  // costs[n][at]: the least cost of n lines that hold all before the piece at `at`.
  let costs = Array.from({ length: size + 1 }, (_, at) => (at === 0 ? 0 : Infinity));
  const chosen: Int32Array[] = [];
  for (let line = 0; line < count; line++) {
    const next = new Array<number>(size + 1).fill(Infinity);
    const from = new Int32Array(size + 1);
    for (let to = 1; to <= size; to++)
      for (let at = to - 1; at >= 0; at--) {
        const long = width(at, to);
        // Longer lines only get worse.
        if (long > longest && at < to - 1 && long > 2 * longest) break;
        const total =
          (costs[at] ?? Infinity) + lineCost(at, to) + (at > 0 ? (between[at] ?? 0) : 0);
        if (total < (next[to] ?? Infinity)) [next[to], from[to]] = [total, at];
      }
    chosen.push(from);
    costs = next;
  }
  const lines: Stretch[] = [];
  if (costs[size] === Infinity) return { lines, tears: false };
  let tears = false;
  let to = size;
  for (let line = count - 1; line >= 0; line--) {
    const at = chosen[line]?.[to] ?? 0;
    tears ||= at > 0 && (between[at] ?? 0) >= SPLIT_NAME;
    lines.unshift({ from: pieces[at]?.from ?? 0, to: pieces[to - 1]?.to ?? 0 });
    to = at;
  }
  return { lines, tears };
}

/** @param lone  whether a single word may be too wide, as it cannot be broken */
const fits = (
  text: string,
  lines: readonly Stretch[],
  { longestLine, measure = countCharacters }: Limits,
  lone: boolean,
): boolean =>
  lines.every(({ from, to }) => {
    const line = text.slice(from, to);
    return measure(line) <= longestLine || (lone && piecesOf(line).length === 1);
  });

/**
 * The lines that text is best broken into: as few as it fits in, or one more where those would tear what
 * belongs together.
 *
 * @returns places in `text`; undefined where it does not fit
 */
export const breakLines = (text: string, limits: Limits): Stretch[] | undefined =>
  brokenInto(text, withLanguage(text, limits))?.lines;

/** Limits with the language of the text. */
const withLanguage = (text: string, limits: Limits): Limits => ({
  ...limits,
  language: limits.language ?? languageOfText(text),
});

function brokenInto(
  text: string,
  limits: Limits,
  lone = false,
): ReturnType<typeof bestOf> | undefined {
  let torn: ReturnType<typeof bestOf> | undefined;
  for (let count = 1; count <= limits.lines; count++) {
    const broken = bestOf(text, count, limits);
    const { lines, tears } = broken;
    if (!fits(text, lines, limits, lone) || (lines.length === 0 && text.trim() !== '')) continue;
    if (!tears) return broken;
    if (torn) break;
    torn = broken;
  }
  return torn;
}

/** A cue's worth of text is this part full at most, so that each part still finds good breaks. */
const FULL = 0.92;

/** How many more parts than needed are tried for a way that tears nothing. */
const MORE = 3;

/**
 * The parts that text has to be cut into so that each fits its lines: as few as there can be, or some more
 * where those would tear what belongs together; cut at the ends of sentences and clauses before all else.
 *
 * @returns for each part its lines; a word that is wider than a line stands alone in one,
 *          since it cannot be broken
 */
export function splitToFit(text: string, given: Limits): Stretch[][] {
  const limits = withLanguage(text, given);
  const whole = brokenInto(text, limits, true);
  if (whole) return [whole.lines];
  const { measure = countCharacters } = limits;
  const all = limits.lines * limits.longestLine;
  const room = { ...limits, longestLine: Math.floor(all * FULL) };
  const words = piecesOf(text).length;
  let least = Math.max(2, Math.ceil(measure(text) / all));
  let best: { parts: Stretch[][]; tears: number } | undefined;
  for (let count = least; count <= words && (!best || count <= least + MORE); count++) {
    const { lines: parts, tears } = bestOf(text, count, room);
    const broken = parts.map(({ from, to }) => ({
      from,
      ...brokenInto(text.slice(from, to), limits, true),
    }));
    if (parts.length === 0 || broken.some(({ lines }) => lines === undefined)) continue;
    if (!best) least = count;
    const torn = Number(tears) + broken.filter((part) => part.tears).length;
    if (best && torn >= best.tears) continue;
    best = {
      tears: torn,
      parts: broken.map(({ from, lines = [] }) =>
        lines.map((line) => ({ from: from + line.from, to: from + line.to })),
      ),
    };
    if (torn === 0) break;
  }
  return best?.parts ?? piecesOf(text).map(({ from, to }) => [{ from, to }]);
}
