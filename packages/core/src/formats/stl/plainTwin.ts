/** Plain letters for those that a code table lacks. */
import { encodeCharacter, type CodeTable } from './codePages.ts';

/** Punctuation that has a twin among the letters of every table. */
const TWINS: readonly (readonly [letters: string, twin: string])[] = [
  ['\u2010\u2011\u2012\u2013\u2014\u2015\u2212', '-'],
  ['\u2018\u2019\u201a\u201b\u2032\u02bc', "'"],
  ['\u201c\u201d\u201e\u201f\u2033\u00ab\u00bb', '"'],
  ['\u2026', '...'],
  ['\u2022\u00b7', '*'],
  ['\u00d7', 'x'],
  ['\u00a0\u2007\u2009\u200a\u202f\u3000', ' '],
  ['\u200b\u200c\u200d\u2060\ufeff\u00ad', ''],
];

/** What is written for a letter that a table lacks: its plain twin, its letter without marks, or a question mark. */
export function plainTwin(letter: string, table: CodeTable): string {
  const twin = TWINS.find(([letters]) => letters.includes(letter))?.[1];
  if (twin !== undefined) return twin;
  const [bare = ''] = letter.normalize('NFKD').replace(/\p{M}/gu, '');
  return bare !== '' && encodeCharacter(bare, table) !== undefined ? bare : '?';
}
