/**
 * The syllables of a written word.
 *
 * Words part where the patterns of their language let them be hyphenated (Liang 1983, as TeX has them). Patterns keep one
 * letter from standing alone and leave some words whole: where more syllables are said than they give, the rest part
 * between the vowels that are said.
 */
import createHyphenator from 'hyphen';
import { syllable } from 'syllable';
import type { TextLanguage } from './languageOfText.ts';

/** Parts a word into its syllables, one at least; joined they are the word. */
export type Syllables = (word: string) => string[];

const VOWELS = /[aeiouyàâäåæáéèêëíìîïóòôöøúùûüœ]+/giu;

/** Letters that are one sound together and are not parted. */
const TOGETHER = /^(?:[cgpst]h|[bcdfgkpt][lr]|ck|qu|s[cklmnptw]|wh|tw)/i;

/** Groups of vowels, each the middle of a syllable. */
const vowelsIn = (word: string): RegExpMatchArray[] =>
  [...word.matchAll(VOWELS)].filter(
    // A "y" that a vowel follows begins a syllable, it is none.
    ({ 0: text, index }) =>
      !(index === 0 && /^y.?$/i.test(text) && word.length > 2 && text.length > 1),
  );

/** Whether a word ends in an "e" that is not said, where its language has these. */
const endsMute = (word: string): boolean => /[^aeiouyéèêë\P{L}]es?\P{L}*$/iu.test(word);

/**
 * The parts of a word, as many as are said. They part between the vowels that are said: before a consonant, or before
 * the last ones that begin a syllable together ("Sker-ry-moor", "no-thing").
 */
function byVowels(word: string, count: number): string[] {
  const said = vowelsIn(word);
  // Where there are more groups of vowels than are said, an "e" is mute: at the end, or where two words grew together.
  while (said.length > Math.max(1, count)) {
    const mute = said.findLastIndex(({ 0: text }, at) => at > 0 && /^e$/i.test(text));
    said.splice(mute > 0 ? mute : -1, 1);
  }
  const cuts = said.slice(1).map(({ index = 0 }, at) => {
    const end = (said[at]?.index ?? 0) + (said[at]?.[0].length ?? 0);
    const between = word.slice(end, index);
    if (between.length <= 1 || TOGETHER.test(between)) return end;
    return TOGETHER.test(between.slice(1)) || between.length === 2 ? end + 1 : index - 1;
  });
  // Vowels that are said apart ("idea") part within their group, from the last one on.
  for (let at = said.length - 1; at >= 0 && cuts.length + 1 < count; at--) {
    const { 0: text = '', index = 0 } = said[at] ?? {};
    if (text.length > 1) cuts.push(index + 1);
  }
  const edges = [0, ...new Set(cuts.sort((a, b) => a - b)), word.length];
  return edges.slice(1).map((to, at) => word.slice(edges[at], to));
}

/** How a language counts what is said of a word, and whether it has an "e" that is not. */
interface Counting {
  readonly count: (word: string) => number;
  readonly mute: boolean;
}

const byGroups = (mute: boolean): Counting => ({
  count: (word) => Math.max(1, vowelsIn(word).length - (mute && endsMute(word) ? 1 : 0)),
  mute,
});

const ENGLISH: Counting = { count: (word) => Math.max(1, syllable(word)), mute: true };

/** Shares out what the patterns did not part: first to parts with several groups of vowels, then within the groups. */
function completed(parts: readonly string[], count: number, mute: boolean): string[] {
  let missing = count - parts.length;
  const give = (most: number): number => {
    const given = Math.max(0, Math.min(missing, most));
    missing -= given;
    return given;
  };
  const groups = parts.map((part) => vowelsIn(part).length - (mute && endsMute(part) ? 1 : 0));
  const counts = groups.map((of) => 1 + give(of - 1));
  parts.forEach((part, at) => {
    const letters = vowelsIn(part).reduce((sum, { 0: text }) => sum + text.length, 0);
    counts[at] = (counts[at] ?? 1) + give(letters - (counts[at] ?? 1));
  });
  return parts.flatMap((part, at) => {
    const wanted = counts[at] ?? 1;
    return wanted > 1 ? byVowels(part, wanted) : [part];
  });
}

/** Stands between syllables while they are parted; no text holds it. */
const BETWEEN = '\u0000';

const by = (patterns: unknown, { count, mute }: Counting): Syllables => {
  const hyphenate = createHyphenator(patterns, { hyphenChar: BETWEEN, minWordLength: 2 });
  return (word) => completed(hyphenate(word).split(BETWEEN), count(word), mute);
};

/** Parts words of a language that has no patterns here. */
export const ANY_LANGUAGE: Syllables = (word) => byVowels(word, byGroups(false).count(word));

const PATTERNS: Readonly<Record<TextLanguage, () => Promise<Syllables>>> = {
  en: async () => by((await import('hyphen/patterns/en-us.js')).default, ENGLISH),
  de: async () => by((await import('hyphen/patterns/de-1996.js')).default, byGroups(false)),
  es: async () => by((await import('hyphen/patterns/es.js')).default, byGroups(false)),
  fr: async () => by((await import('hyphen/patterns/fr.js')).default, byGroups(true)),
  it: async () => by((await import('hyphen/patterns/it.js')).default, byGroups(false)),
};

/** Loads what parts the words of a language. */
export const syllablesFor = (language: TextLanguage | undefined): Promise<Syllables> =>
  language === undefined ? Promise.resolve(ANY_LANGUAGE) : PATTERNS[language]();
