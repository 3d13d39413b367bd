/** What the editor decides while proof-reading: what is right, and what is passed over. */
import { update, type Edit } from '../../record/change.ts';
import type { Language, Programme, Spelling } from '../../programme.ts';

const spellingOf = ({ facts }: Programme): Spelling =>
  facts.spelling ?? { language: 'en-GB', right: [] };

/** By what the text is spelled: British where the editor has said nothing. */
export const languageOf = (programme: Programme): Language => spellingOf(programme).language;

export function setLanguage(programme: Programme, language: Language): Edit {
  const spelling = { ...spellingOf(programme), language };
  return { name: 'Set the language', changes: update('programme', programme.facts, { spelling }) };
}

/** A word is right everywhere in the programme. */
export function rightEverywhere(programme: Programme, word: string): Edit {
  const { language, right } = spellingOf(programme);
  const spelling = { language, right: [...right.filter((each) => each !== word), word].sort() };
  return {
    name: `Add “${word}” to the dictionary`,
    changes: update('programme', programme.facts, { spelling }),
  };
}

/** The words that are right in the programme become these. */
export function setRightWords(programme: Programme, words: readonly string[]): Edit {
  const right = [...new Set(words.map((word) => word.trim()).filter((word) => word !== ''))].sort();
  const spelling = { language: languageOf(programme), right };
  return {
    name: 'Edit the dictionary',
    changes: update('programme', programme.facts, { spelling }),
  };
}

/** Findings are passed over from now on, by the name of one or of many. */
export function passOver(programme: Programme, name: string): Edit {
  const now = programme.facts.passedOver ?? [];
  const passedOver = now.includes(name) ? now : [...now, name];
  return {
    name: 'Ignore a finding',
    changes: update('programme', programme.facts, { passedOver }),
  };
}

/** Everything that was passed over counts again. */
export const countAgain = (programme: Programme): Edit => ({
  name: 'Restore ignored findings',
  changes: update('programme', programme.facts, { passedOver: [] }),
});
