import { wordsAsCsv, wordsAsJson } from '../../formats/words/write.ts';
import { fromSeconds, toSeconds } from '../../time/ticks.ts';
import type { Programme, WordTime } from '../programme.ts';
import { at25, programmeWithCues, programmeWithPieces } from '../samples.ts';
import { reportedStretches, reportedWords, shifted, unwritten } from './wovenReport.ts';

const word = (
  text: string,
  start: number,
  end: number,
  source: WordTime['source'] = 'woven',
  confidence?: number,
): WordTime => ({
  text,
  start: fromSeconds(start),
  end: fromSeconds(end),
  source,
  ...(confidence !== undefined && { confidence }),
});

/** Two cues in ten seconds: one woven, one not; speech from 1 to 4 and from 6 to 9. */
function programme(words: readonly WordTime[]): Programme {
  const spoken = programmeWithPieces([
    [1, 4],
    [6, 9],
  ]);
  const { cues } = programmeWithCues([
    ['The chain – goes slack', 25, 100],
    ['then still', 150, 225],
  ]);
  const [first, second] = [cues.c1, cues.c2];
  if (!first || !second) throw new Error('The cues are missing.');
  return {
    ...spoken,
    facts: { ...spoken.facts, length: fromSeconds(10) },
    cues: { c1: { ...first, words }, c2: second },
  };
}

const woven = [
  word('The', 1, 1.2, 'woven', 0.99),
  word('chain', 1.2, 1.8, 'woven', 0.5),
  word('goes', 1.8, 2.4, 'pinned'),
];

test('each word that is said is told with how its time is known', () => {
  const words = reportedWords(programme(woven), 's');
  expect(words.map(({ text, state }) => [text, state])).toEqual([
    ['The', 'sure'],
    ['chain', 'doubtful'],
    ['goes', 'pinned'],
    ['slack', 'not heard'],
    ['then', 'not woven'],
    ['still', 'not woven'],
  ]);
  expect(words[3]).toMatchObject({ place: 4, start: null, confidence: null });
});

test('speech that no word stands at is said but not written; shorter gaps are breath', () => {
  const made = programme(woven);
  const found = unwritten(made, reportedWords(made, 's'));
  expect(found.map(({ start, end }) => [toSeconds(start), toSeconds(end)])).toEqual([
    [2.4, 4],
    [6, 9],
  ]);
  const close = programme([word('The', 1.4, 2), word('chain', 2.4, 3.6)]);
  expect(unwritten(close, reportedWords(close, 's'))[0]?.start).toBe(fromSeconds(6));
});

test('along the programme stand confidence, rate, and where text and sound disagree', () => {
  const made = programme(woven);
  const stretches = reportedStretches(made, reportedWords(made, 's'), 5);
  expect(stretches).toHaveLength(5);
  expect(stretches[0]).toMatchObject({ unheard: 1, start: 0, end: fromSeconds(2) });
  expect(stretches[0]?.confidence).toBeCloseTo(0.745);
  expect(stretches[0]?.wordsAMinute).toBeCloseTo((60 * 3) / 1.4);
  expect(stretches[1]?.unwritten).toBeCloseTo(1.6);
  expect(stretches.map(({ unwritten: seconds }) => seconds).slice(2)).toEqual([0, 2, 1]);
  expect(stretches[2]).toMatchObject({ confidence: null, wordsAMinute: null });
});

test('how far words moved is told by the middle and the worst', () => {
  const before = reportedWords(programme(woven), 's');
  const after = reportedWords(
    programme([word('The', 1.01, 1.2), word('chain', 1.25, 1.8), word('goes', 2.3, 2.4)]),
    's',
  );
  const told = shifted(before, after);
  expect(toSeconds(told?.median ?? at25(0))).toBeCloseTo(0.05);
  expect(toSeconds(told?.worst ?? at25(0))).toBeCloseTo(0.5);
  expect(told?.word.text).toBe('goes');
  expect(shifted(before, reportedWords(programme([]), 's'))).toBeUndefined();
});

test('words are written as a table and as JSON, one line each, none where there is no time', () => {
  const words = reportedWords(programme([word('The', 1, 1.25, 'woven', 0.98765)]), 's');
  expect(wordsAsCsv(words).split('\r\n').slice(0, 3)).toEqual([
    'index,text,start,end,state,confidence',
    '0,The,1,1.25,sure,0.9877',
    '1,chain,,,not heard,',
  ]);
  expect(JSON.parse(wordsAsJson(words))).toMatchObject({
    words: [
      { index: 0, text: 'The', start: 1, end: 1.25, state: 'sure' },
      { index: 1, start: null },
      {},
      {},
      {},
      {},
    ],
  });
});
