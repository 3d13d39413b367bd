/** Splitting words that have their time into syllables, and moving those within the word. */
import { readingWeight } from '../../../text/readingWeight.ts';
import type { Syllables } from '../../../text/language/syllables.ts';
import { subtract, type Ticks } from '../../../time/ticks.ts';
import { update, type Edit } from '../../record/change.ts';
import type { Cue, Id, Programme, Syllable, WordTime } from '../../programme.ts';
import { timesOf } from '../../woven/reworded.ts';
import { wordsIn } from '../../woven/wordsIn.ts';

/** Syllables that begin after the first, each after its share of the word's length, by the weight of what is before. */
export function syllablesBy(parts: readonly string[]): Syllable[] {
  const weights = parts.map((part) => Math.max(1, readingWeight(part)));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  let [from, before] = [0, 0];
  return parts.slice(0, -1).map((part, at) => {
    from += part.length;
    before += weights[at] as number;
    return { from, share: before / whole };
  });
}

/** Changes the word of a cue that stands at a place. */
export function wordChanged(
  cue: Cue,
  place: number,
  change: (word: WordTime) => WordTime,
): WordTime[] {
  const word = timesOf(cue.words, wordsIn(cue))[place];
  return cue.words.map((each) => (each === word ? change(each) : each));
}

/**
 * Splits a word in its syllables, or makes it one again where it is split.
 *
 * @param partsOf  what parts words of its language
 */
export function splitInSyllables(
  programme: Programme,
  id: Id,
  place: number,
  partsOf: Syllables,
): Edit {
  const cue = programme.cues[id];
  const word = cue && timesOf(cue.words, wordsIn(cue))[place];
  if (!cue || !word) return { name: 'Split a word', changes: [] };
  if (word.syllables)
    return {
      name: 'Merge syllables',
      changes: update('cue', cue, {
        words: wordChanged(cue, place, ({ syllables: _gone, ...whole }) => whole),
      }),
    };
  const syllables = syllablesBy(partsOf(word.text));
  return {
    name: 'Split a word into syllables',
    changes:
      syllables.length > 0
        ? update('cue', cue, { words: wordChanged(cue, place, (each) => ({ ...each, syllables })) })
        : [],
    ...(syllables.length === 0 && { note: 'This word is one syllable.' }),
  };
}

/**
 * Moves the start of a syllable within its word, never past those beside it.
 *
 * @param which  of the syllables after the first, from 0
 */
export function moveSyllable(
  programme: Programme,
  id: Id,
  place: number,
  which: number,
  by: Ticks,
): Edit {
  const name = 'Move a syllable';
  const cue = programme.cues[id];
  if (!cue) return { name, changes: [] };
  const words = wordChanged(cue, place, (word) => {
    const all = word.syllables ?? [];
    const [least, most] = [all[which - 1]?.share ?? 0, all[which + 1]?.share ?? 1];
    const move = by / Math.max(1, subtract(word.end, word.start));
    const syllables = all.map((each, at) =>
      at === which ? { ...each, share: Math.max(least, Math.min(most, each.share + move)) } : each,
    );
    return { ...word, syllables };
  });
  return { name, changes: update('cue', cue, { words }) };
}
