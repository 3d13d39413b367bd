/** Names that are spelled in two ways: written one way in most places, and nearly so in others. */
import { editDistance } from '../text/language/editDistance.ts';
import { wordsOf } from '../text/words.ts';

/** A text and what it stands on. */
export interface Told {
  readonly cue: string;
  readonly text: string;
}

/** A name that is written otherwise elsewhere. */
export interface OddName {
  readonly cue: string;
  readonly from: number;
  readonly to: number;
  readonly name: string;
  /** How it is written in more places, and in how many. */
  readonly usual: string;
  readonly count: number;
}

const isCapital = (word: string): boolean => /^\p{Lu}/u.test(word);
const bare = (word: string): string =>
  word
    .replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '')
    .replace(/['’]s$/u, '')
    .replace(/['’]$/u, '');
/** A name without what may differ by carelessness: accents, case, hyphens, apostrophes. */
export const folded = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/[\p{M}'’‑-]/gu, '')
    .toLocaleLowerCase('und');

/** Two names of so many letters are one if they are so few letters apart. */
const nearFor = (length: number): number => (length >= 8 ? 2 : length >= 5 ? 1 : 0);

interface Seen {
  readonly name: string;
  readonly places: { readonly cue: string; readonly from: number; readonly to: number }[];
  /** Whether it stands within a sentence: then its capital is its own. */
  isName: boolean;
}

/**
 * The places where a name is written otherwise than in most places.
 *
 * @param isWord  whether a dictionary has a word: two words that both are in it are two names
 */
export function oddNames(told: readonly Told[], isWord?: (word: string) => boolean): OddName[] {
  const all = [...seenIn(told, isWord).values()].filter(
    ({ isName, name }) => isName && name.length > 2,
  );
  all.sort((a, b) => b.places.length - a.places.length || (a.name < b.name ? -1 : 1));
  const byKey = new Map<string, Seen[]>();
  const odd: OddName[] = [];
  for (const seen of all) {
    const usual = usualFor(seen, byKey, isWord);
    if (usual)
      for (const place of seen.places)
        odd.push({ ...place, name: seen.name, usual: usual.name, count: usual.places.length });
    for (const key of keysOf(folded(seen.name))) byKey.set(key, [...(byKey.get(key) ?? []), seen]);
  }
  return odd;
}

/** Every capitalised word, where it stands, and whether it is a name. */
function seenIn(
  told: readonly Told[],
  isWord: ((word: string) => boolean) | undefined,
): Map<string, Seen> {
  const all = new Map<string, Seen>();
  for (const { cue, text } of told) {
    let begins = true;
    for (const word of wordsOf(text)) {
      const name = bare(word.text);
      if (isCapital(name) && /\p{Ll}/u.test(name)) {
        const from = word.from + word.text.indexOf(name);
        const seen = all.get(name) ?? { name, places: [], isName: false };
        seen.places.push({ cue, from, to: from + name.length });
        seen.isName ||= !begins;
        all.set(name, seen);
      }
      begins = /[.?!…:–—]["”’)\]]*$/u.test(word.text) || /^[-–—"“‘([]*$/u.test(word.text);
    }
  }
  // What stands only where a sentence begins is a name if it is no word.
  if (isWord)
    for (const seen of all.values()) seen.isName ||= !isWord(seen.name.toLocaleLowerCase('und'));
  return all;
}

/** What two names that are near each other have in common: the whole, how they begin, or how they end. */
const keysOf = (name: string): string[] => [name, `<${name.slice(0, 3)}`, `>${name.slice(-3)}`];

function usualFor(
  seen: Seen,
  byKey: ReadonlyMap<string, readonly Seen[]>,
  isWord: ((word: string) => boolean) | undefined,
): Seen | undefined {
  const own = folded(seen.name);
  const near = keysOf(own).flatMap((key) => byKey.get(key) ?? []);
  return near.find((other) => {
    const theirs = folded(other.name);
    if (theirs === own) return true;
    const most = nearFor(Math.min(own.length, theirs.length));
    if (most === 0 || theirs[0] !== own[0]) return false;
    if (isPlural(own, theirs) || (isWord?.(seen.name) === true && isWord(other.name))) return false;
    // Two names that are as frequent as each other are more likely two.
    if (other.places.length < 2 * seen.places.length) return false;
    return editDistance(own, theirs, most) <= most;
  });
}

const isPlural = (a: string, b: string): boolean =>
  ['s', 'es', 'd', 'ed', 'ing', 'er', 'n', 'ly'].some((end) => a === b + end || b === a + end);
