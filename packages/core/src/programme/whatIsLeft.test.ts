import { addPassage } from './edits/programme/passages.ts';
import { apply } from './record/apply.ts';
import { at25, countingIds, programmeWithCues, programmeWithPieces } from './samples.ts';
import type { Cue, Programme } from './programme.ts';
import { strandOfWords } from './captions.ts';
import { whatIsLeft } from './whatIsLeft.ts';

const tasks = (programme: Programme) =>
  whatIsLeft(programme, 's').map(({ task, count }) => `${task} ${count}`);

test('pieces without a cue are made into cues first, then typed', () => {
  const heard = programmeWithPieces([
    [0, 2],
    [2.4, 3.6],
    [4, 5.6],
  ]);
  expect(tasks(heard)).toEqual(['make cues 3']);
  const { cues } = programmeWithCues([
    ['The tide turns', 0, 50],
    ['', 60, 90],
  ]);
  expect(tasks({ ...heard, cues })).toEqual(['type 2']);
});

test('words that are doubtful or not woven are left where some are woven, or where the strand goes by words', () => {
  const typed = programmeWithCues([
    ['The tide', 0, 50],
    ['turns', 60, 90],
  ]);
  expect(tasks(typed)).toEqual([]);
  const [cue] = Object.values(typed.cues) as [Cue];
  const word = (confidence: number) => ({
    text: '',
    start: at25(0),
    end: at25(20),
    source: 'woven' as const,
    confidence,
  });
  const woven = {
    ...cue,
    words: [
      { ...word(0.1), text: 'The' },
      { ...word(1), text: 'tide' },
    ],
  };
  const facts = { ...typed.facts, sound: 'm' };
  expect(tasks({ ...typed, facts, cues: { ...typed.cues, c1: woven as Cue } })).toEqual([
    'weave 1',
    'doubtful 1',
  ]);
  const unsure = { ...woven, words: woven.words.map((each) => ({ ...each, confidence: 0.1 })) };
  expect(tasks({ ...typed, facts, cues: { ...typed.cues, c1: unsure as Cue } })).toEqual([
    'weave 1',
    'unsure 1',
  ]);
});

test('a passage that is on the programme nowhere is left', () => {
  const ids = countingIds();
  const base = programmeWithCues([]);
  const wanted = { id: 'roll', sheet: 'Deck\tAbel', from: at25(0) };
  const made = apply(base, addPassage(base, 'roll', wanted, () => 900, ids).changes);
  expect(tasks(made)).toEqual([]);
  const cues = Object.fromEntries(Object.entries(made.cues).filter(([, cue]) => !cue.passage));
  expect(tasks({ ...made, cues })).toEqual(['place 1']);
});

test('where rolls are in hand, words are those of the first strand with text', () => {
  const ids = countingIds();
  const base = programmeWithCues([['The tide turns', 0, 50]]);
  const wanted = { id: 'roll', sheet: 'Deck\tAbel', from: at25(0) };
  const made = apply(base, addPassage(base, 'roll', wanted, () => 900, ids).changes);
  const rolls = Object.values(made.strands).find(({ kind }) => kind === 'roll');
  expect(rolls && strandOfWords(made, rolls)?.id).toBe('s');
  const words = made.strands.s;
  expect(words && strandOfWords(made, words)).toBe(words);
});
