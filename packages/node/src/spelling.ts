/** Dictionaries on Node, from the npm packages that hold them. */
import type { Language } from '@cadence/core/programme/programme.ts';
import { spellerFrom, type Speller } from '@cadence/core/text/language/spelling.ts';

const DICTIONARIES = { 'en-GB': 'dictionary-en-gb', 'en-US': 'dictionary-en' } as const;

/** What knows the words of a language; undefined for none. */
export async function spellerFor(language: Language): Promise<Speller | undefined> {
  if (language === 'none') return undefined;
  const { default: dictionary } = (await import(DICTIONARIES[language])) as {
    default: { readonly aff: Uint8Array; readonly dic: Uint8Array };
  };
  const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
  return spellerFrom(text(dictionary.aff), text(dictionary.dic));
}
