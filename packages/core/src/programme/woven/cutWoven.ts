/** A script whose words have their times, cut into cues that can be read: at pauses, by sense, to fit. */
import type { Limits } from '../../text/breakLines.ts';
import { languageOfText } from '../../text/language/languageOfText.ts';
import { plainText, type Line } from '../../text/lines.ts';
import { wordsOf } from '../../text/words.ts';
import type { Range } from '../../time/range.ts';
import { clamp, later, subtract, ZERO, type Ticks } from '../../time/ticks.ts';
import { heldNotes } from '../../weave/heldNotes.ts';
import type { Woven } from '../../weave/woven.ts';
import { inParts, fitsAsItStands } from '../edits/text/fitLines.ts';
import type { WordTime } from '../programme.ts';
import { senseCuts } from './senseCuts.ts';
import { spreadWords } from './spreadWords.ts';

export interface CutCue extends Range {
  readonly text: readonly Line[];
  readonly words: readonly WordTime[];
}

export interface Cutting {
  readonly limits: Limits;
  /** Whether paragraphs are lines that stay as they are, such as those of a lyric. */
  readonly whole?: boolean;
}

/**
 * The cues of a script in order, none over another, each from its first word to its last.
 *
 * @param paragraphs  of the script
 * @param woven       of each of its words, in order
 */
export function cutWoven(
  paragraphs: readonly (readonly Line[])[],
  woven: readonly Woven[],
  { limits: given, whole = false }: Cutting,
): CutCue[] {
  const limits = {
    ...given,
    language: given.language ?? languageOfText(paragraphs.map(plainText).join('\n')),
  };
  let at = 0;
  const texts = paragraphs.flatMap((text) => {
    const own = woven.slice(at, (at += wordsOf(plainText(text)).length));
    if (whole) return [text];
    return senseCuts(text, own, limits).flatMap((part) =>
      fitsAsItStands(part, limits) ? [part] : inParts(part, limits),
    );
  });
  at = 0;
  const timed = texts.map((text) => {
    const words = wordsOf(plainText(text)).map((word) => word.text);
    const times = woven.slice(at, (at += words.length));
    return { text, words, times };
  });
  let free = ZERO;
  return timed.map(({ text, words, times }, place) => {
    const starts = times.flatMap(({ start }) => (start === null ? [] : [start]));
    const ends = times.flatMap(({ end }) => (end === null ? [] : [end]));
    const [first, last] = [starts[0], ends.at(-1)];
    if (first === undefined || last === undefined) {
      // Nothing of it was said: it stands in what is free before the next, as long as that is.
      const next = nextStart(timed.slice(place + 1).flatMap((each) => each.times));
      const range = { start: free, end: later(free, next ?? free) };
      free = range.end;
      return { ...range, text, words: spreadWords(words, range) };
    }
    const start = later(first, free);
    const end = later(last, start);
    free = end;
    return { start, end, text, words: wordTimes(words, times) };
  });
}

const nextStart = (times: readonly Woven[]): Ticks | null =>
  times.find(({ start }) => start !== null)?.start ?? null;

/** The vowels of a word that are held, by shares of its time; nothing where none is. */
function heldIn(word: Woven | undefined, start: Ticks, end: Ticks): Pick<WordTime, 'held'> {
  const share = (at: Ticks) =>
    Math.round((1000 * subtract(clamp(at, start, end), start)) / subtract(end, start)) / 1000;
  const held = (word && end > start ? heldNotes(word) : [])
    .map((note) => ({ from: share(note.start), to: share(note.end) }))
    .filter(({ from, to }) => to > from);
  return held.length > 0 ? { held } : {};
}

/** The times of the words that were said. */
export const wordTimes = (words: readonly string[], times: readonly Woven[]): WordTime[] =>
  words.flatMap((text, at) => {
    const { start = null, end = null, source = 'woven', confidence = 0 } = times[at] ?? {};
    return start === null || end === null
      ? []
      : [{ text, start, end, source, confidence, ...heldIn(times[at], start, end) }];
  });
