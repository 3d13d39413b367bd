/**
 * Spelling: which words of a text no dictionary has, and what may have been meant.
 *
 * Dictionaries are those of Hunspell (an affix file and a word list), read by the package `nspell`. Words that the
 * programme has as right are right; so are figures, initials, addresses and words of letters and figures.
 */
import nspell from 'nspell';

export interface Speller {
  /** Whether a word is right as it is written. */
  isRight(word: string): boolean;
  /** What may have been meant, the likeliest first. */
  suggest(word: string): readonly string[];
}

/** Most that is suggested for a word. */
const MOST = 7;

/**
 * A speller from a Hunspell dictionary.
 *
 * @param affixes  the `.aff` file
 * @param list     the `.dic` file
 */
export function spellerFrom(affixes: string, list: string): Speller {
  const dictionary = nspell(affixes, list);
  const known = new Map<string, boolean>();
  const isRight = (word: string): boolean => {
    let right = known.get(word);
    if (right === undefined) known.set(word, (right = dictionary.correct(word)));
    return right;
  };
  return { isRight, suggest: (word) => dictionary.suggest(word).slice(0, MOST) };
}

/** A word that may be wrong, and where it stands, in UTF-16 units. */
export interface Misspelling {
  readonly word: string;
  readonly from: number;
  readonly to: number;
}

/** What is no word of a language: addresses, names of files, words with figures in them. */
const passed = /(?:\p{N}|[@/\\_]|\p{L}\.\p{L})/u;
const wordLike = /[\p{L}\p{M}][\p{L}\p{M}'’-]*/gu;
const chunk = /\S+/gu;

/** A word as dictionaries write it. */
const asListed = (word: string): string => word.replace(/’/g, "'").normalize('NFC');

/** Without what hangs on it: marks at its ends and a possessive. */
const stem = (word: string): string => word.replace(/['’-]+$/u, '').replace(/['’]s$/iu, '');

/** Words that are right in a programme; those in small letters are right with a capital too. */
export function rightWords(words: readonly string[]): (word: string) => boolean {
  const right = new Set(words.map(asListed));
  return (word) => {
    const listed = asListed(word);
    if (right.has(listed) || right.has(stem(listed))) return true;
    const small = listed.toLocaleLowerCase('und');
    return right.has(small) || right.has(stem(small));
  };
}

/** Whether a word is right: whole, in its parts between hyphens, or as capitals of a word that is. */
function isRightIn(speller: Speller, isListed: (word: string) => boolean, word: string): boolean {
  const tries = (part: string): boolean => {
    if (part === '' || isListed(part)) return true;
    const listed = asListed(part);
    if (speller.isRight(listed) || speller.isRight(stem(listed))) return true;
    // Loan words keep the accents that a dictionary may write without: café, naïve.
    const plain = listed.normalize('NFD').replace(/\p{M}/gu, '');
    if (plain !== listed && (speller.isRight(plain) || speller.isRight(stem(plain)))) return true;
    // All capitals: an abbreviation, or a word that is shouted.
    if (listed.length > 1 && listed === listed.toLocaleUpperCase('und'))
      return listed.length <= 5 || speller.isRight(listed.toLocaleLowerCase('und'));
    return [...listed].length === 1;
  };
  return (
    tries(word) ||
    (/[-‑]/u.test(word) && word.split(/[-‑]/u).every((part) => tries(part.replace(/^['’]+/u, ''))))
  );
}

/**
 * The words of a text that may be wrong. Words of other scripts than the dictionary's are passed over.
 *
 * @param isListed  whether the programme has a word as right
 */
export function misspelt(
  text: string,
  speller: Speller,
  isListed: (word: string) => boolean = () => false,
): Misspelling[] {
  const found: Misspelling[] = [];
  for (const { 0: whole, index } of text.matchAll(chunk)) {
    if (passed.test(whole)) continue;
    for (const { 0: match, index: within } of whole.matchAll(wordLike)) {
      const word = match.replace(/['’-]+$/u, '');
      if (!/^[\p{Script=Latin}\p{M}'’-]+$/u.test(word)) continue;
      // Letters were left out before it: an apostrophe that opens no quotation.
      if (whole[within - 1] === '’' || isRightIn(speller, isListed, word)) continue;
      const from = index + within;
      found.push({ word, from, to: from + word.length });
    }
  }
  return found;
}

/** Of words, those that are names: a dictionary has them with a capital only. They are given with it. */
export function namesAmong(words: Iterable<string>, speller: Speller): string[] {
  const small = new Set([...words].map((word) => asListed(word).toLocaleLowerCase('und')));
  return [...small].flatMap((word) => {
    const name = word.replace(/(?:^|-)\p{L}/gu, (letter) => letter.toLocaleUpperCase('und'));
    return !speller.isRight(word) && speller.isRight(name) ? [name] : [];
  });
}
