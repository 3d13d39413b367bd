/** Proof-reading: the slips, the spelling and the names in the text of a programme. */
import { cuesInOrder, strandsShown } from '../programme/order.ts';
import type { Programme } from '../programme/programme.ts';
import { plainText } from '../text/lines.ts';
import { misspelt, rightWords, type Speller } from '../text/language/spelling.ts';
import type { Finding } from './finding.ts';
import { cardNames } from './cardNames.ts';
import { oddNames } from './names.ts';
import { wordingOf } from './wording.ts';

/**
 * What is found in the text of all strands; nothing of times or of the frame.
 *
 * @param speller  knows the words of the language; without one, no spelling is checked
 */
export function proofread(programme: Programme, speller?: Speller): Finding[] {
  const strands = strandsShown(programme);
  const isListed = rightWords(programme.facts.spelling?.right ?? []);
  const onCards = cardNames(programme, strands);
  const isRight = (word: string) => isListed(word) || onCards.has(word);
  const rows = strands.map(({ id }) => cuesInOrder(programme, id));
  const told = rows.flat().map((cue) => ({ cue: cue.id, text: plainText(cue.text) }));
  const at = (cue: string) => programme.cues[cue]?.start ?? (0 as Finding['at']);
  const spelling = told.flatMap(({ cue, text }): Finding[] =>
    (speller ? misspelt(text, speller, isRight) : []).map(({ word, from, to }) => ({
      kind: 'spelling',
      severity: 'doubtful',
      at: at(cue),
      cue,
      message: `“${word}” is not in the dictionary`,
      foundIn: text,
      place: { from, to },
      subject: word,
    })),
  );
  const isWord = speller && ((word: string) => speller.isRight(word));
  const texts = new Map(told.map(({ cue, text }) => [cue, text]));
  const names = oddNames(told, isWord).map(({ cue, from, to, name, usual, count }): Finding => {
    const text = texts.get(cue) ?? '';
    return {
      kind: 'name',
      severity: 'doubtful',
      at: at(cue),
      cue,
      message: `“${name}” here, “${usual}” in ${count === 1 ? 'another place' : `${count} places`}`,
      mend: text.slice(0, from) + usual + text.slice(to),
      foundIn: text,
      place: { from, to },
      subject: `${name} ${usual}`,
    };
  });
  return [...rows.flatMap(wordingOf), ...spelling, ...names];
}
