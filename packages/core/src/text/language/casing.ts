/** Capitals and small letters, with abbreviations and names left as they are. */
import { wordsOf } from '../words.ts';

/** How letters are to be set: all capitals, all small, each word or each sentence with a capital. */
export type Casing = 'capitals' | 'small' | 'words' | 'sentences';

/** Words that keep their letters, by how they read in small ones. */
export type Kept = ReadonlyMap<string, string>;

/** Words that stay small within a title. */
const SMALL = new Set(
  (
    'a an the and but or nor so yet as at by for from if in into of off on onto per than that to up via with ' +
    'de la le les des du und der die das von y el del e il da'
  ).split(' '),
);

const letters = /[\p{L}\p{M}\p{N}]+(?:['’.&-][\p{L}\p{M}\p{N}]+)*/gu;
const lower = (text: string): string => text.toLocaleLowerCase('und');
const upper = (text: string): string => text.toLocaleUpperCase('und');
const isShouted = (text: string): boolean => /\p{Lu}/u.test(text) && !/\p{Ll}/u.test(text);
/** Whether a new sentence, or what is written like one, begins after a text. */
export const closesSentence = (text: string): boolean =>
  /[.?!…:]["”’')\]]*\s*$/.test(text) || text.trim() === '';
/** The first person, which is a capital wherever it stands in English. */
const isFirstPerson = (word: string): boolean => /^i(?:['’](?:m|ll|d|ve))?$/i.test(word);

/**
 * The abbreviations and names of texts: what is written in capitals where other words are not, and what has a
 * capital where no sentence begins. Texts that are all in capitals tell nothing.
 *
 * @param more  words that are known besides, as they are written
 */
export function keptIn(texts: Iterable<string>, more: readonly string[] = []): Kept {
  const kept = new Map<string, string>();
  const small = new Set<string>();
  for (const text of texts) {
    if (isShouted(text)) continue;
    let begins = true;
    for (const { text: chunk } of wordsOf(text)) {
      for (const [word] of chunk.matchAll(letters)) {
        const bare = word.replace(/['’]s$/u, '');
        const acronym = isShouted(bare) && [...bare].length > 1;
        const name = !begins && /^\p{Lu}/u.test(bare);
        if ((acronym || name) && !isFirstPerson(bare)) kept.set(lower(bare), bare);
        else if (/^\p{Ll}/u.test(bare)) small.add(lower(bare));
        begins = false;
      }
      begins = closesSentence(chunk);
    }
  }
  // What is written small as well is no name: a title may have given it its capital.
  for (const word of small) if (!isShouted(kept.get(word) ?? '')) kept.delete(word);
  for (const word of more) if (/\p{Lu}/u.test(word)) kept.set(lower(word), word);
  return kept;
}

/**
 * Text in other letters.
 *
 * @param begins  whether a sentence begins with it
 */
export function recase(text: string, casing: Casing, kept: Kept, begins = true): string {
  if (casing === 'capitals') return upper(text);
  let at = 0;
  let first = begins;
  let result = '';
  const words = [...text.matchAll(letters)];
  words.forEach((match, place) => {
    const [word] = match;
    const between = text.slice(at, match.index);
    first = place === 0 ? begins : first || (closesSentence(between) && between.trim() !== '');
    result +=
      between + recased(word, casing, kept, first, place === 0 || place === words.length - 1);
    first = false;
    at = match.index + word.length;
  });
  return result + text.slice(at);
}

function recased(word: string, casing: Casing, kept: Kept, begins: boolean, edge: boolean): string {
  const small = lower(word);
  const own = /['’]s$/u.exec(small)?.[0] ?? '';
  const whole = kept.get(small);
  const stem = kept.get(small.slice(0, small.length - own.length));
  if (whole !== undefined || stem !== undefined) return whole ?? `${stem}${own}`;
  if (isFirstPerson(word)) return `I${small.slice(1)}`;
  if (casing === 'words' && (edge || begins || !SMALL.has(small)))
    return small.replace(
      /(^|-)(\p{L})/gu,
      (_, before: string, letter: string) => before + upper(letter),
    );
  return casing === 'sentences' && begins ? upper(small.slice(0, 1)) + small.slice(1) : small;
}
