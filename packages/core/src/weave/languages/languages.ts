/** The languages that can be woven, by their BCP 47 names. */
import type { LetterToSound } from '../letterToSound.ts';
import { english } from './english.ts';
import { french } from './french.ts';
import { german } from './german.ts';
import { italian } from './italian.ts';
import type { Language } from './language.ts';
import { otherScript } from './otherScript.ts';
import { spanish } from './spanish.ts';

export interface EnglishKnown {
  readonly dictionary: Readonly<Record<string, string>>;
  readonly letterToSound: LetterToSound;
}

/** A language by its name, "en-GB" as "en"; one that is not known by letters alone. */
export function languageNamed(name: string, known: EnglishKnown): Language {
  switch (name.toLowerCase().split('-', 1)[0]) {
    case 'en':
      return english(known.dictionary, known.letterToSound);
    case 'es':
      return spanish();
    case 'fr':
      return french();
    case 'de':
      return german();
    case 'it':
      return italian();
    default:
      return otherScript();
  }
}
