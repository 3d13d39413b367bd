import { apply } from '../../record/apply.ts';
import type { Cue, Programme, WordTime } from '../../programme.ts';
import { at25, programmeWithCues } from '../../samples.ts';
import { syllablesFor } from '../../../text/language/syllables.ts';
import { moveSyllable, splitInSyllables } from './syllables.ts';
import { pinWord, toWeave, weaveCues } from './weaveCues.ts';

const english = await syllablesFor('en');
const plain = programmeWithCues([['The ferry, still', 0, 100]]);
const words: WordTime[] = ['The', 'ferry,', 'still'].map((text, at) => ({
  text,
  start: at25(10 + 20 * at),
  end: at25(30 + 20 * at),
  source: 'woven',
}));
const programme: Programme = { ...plain, cues: { c1: { ...(plain.cues.c1 as Cue), words } } };
const split = apply(programme, splitInSyllables(programme, 'c1', 1, english).changes);
const shares = (of: Programme) => of.cues.c1?.words[1]?.syllables?.map(({ share }) => share);

test('a word is split where it is said apart, and made one again', () => {
  expect(split.cues.c1?.words[1]?.syllables).toHaveLength(1);
  expect(split.cues.c1?.words[1]?.syllables?.[0]?.from).toBe(3);
  const whole = apply(split, splitInSyllables(split, 'c1', 1, english).changes);
  expect(whole.cues.c1?.words).toEqual(words);
});

test('a word of one syllable stays one, and it is said', () => {
  expect(splitInSyllables(programme, 'c1', 0, english)).toMatchObject({
    changes: [],
    note: 'This word is one syllable.',
  });
  expect(splitInSyllables(programme, 'c1', 7, english).changes).toEqual([]);
});

test('a syllable is moved within its word, and stops at its edges', () => {
  const [before = 0] = shares(split) ?? [];
  const later = apply(split, moveSyllable(split, 'c1', 1, 0, at25(2)).changes);
  expect(shares(later)?.[0]).toBeCloseTo(before + 0.1);
  const far = apply(split, moveSyllable(split, 'c1', 1, 0, at25(500)).changes);
  expect(shares(far)).toEqual([1]);
});

test('a word that was split stays so when it is pinned, and when it is woven again', () => {
  const syllables = split.cues.c1?.words[1]?.syllables;
  const to = { start: at25(32), end: at25(50) };
  const pinned = apply(split, pinWord(split, 'c1', 1, to).changes);
  expect(pinned.cues.c1?.words[1]).toMatchObject({ source: 'pinned', syllables });
  const times = [10, 33, 52].map((start) => ({
    start: at25(start),
    end: at25(start + 15),
    confidence: 0.95,
    source: 'woven' as const,
  }));
  const weaving = toWeave(split, 's', ['c1']);
  const woven = apply(split, weaveCues(split, weaving, times).changes);
  expect(woven.cues.c1?.words[1]).toMatchObject({ start: at25(33), syllables });
  expect(woven.cues.c1?.words[0]).not.toHaveProperty('syllables');
});
