/** The language of what stands on a strand, by its text. */
import { languageOfText, type TextLanguage } from '../text/language/languageOfText.ts';
import { plainText } from '../text/lines.ts';
import { cuesInOrder } from './order.ts';
import type { Id, Programme } from './programme.ts';

/** Enough characters to tell the language of a text. */
const ENOUGH = 4000;

/** The language of the text of a strand, by its first cues; undefined where it cannot be told. */
export function languageOfStrand(programme: Programme, strand: Id): TextLanguage | undefined {
  let text = '';
  for (const cue of cuesInOrder(programme, strand)) {
    if (text.length >= ENOUGH) break;
    text += `${plainText(cue.text)}\n`;
  }
  return languageOfText(text);
}
