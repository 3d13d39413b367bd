import fc from 'fast-check';
import { plainText } from '../../../text/lines.ts';
import type { Woven } from '../../../weave/woven.ts';
import { cuesInOrder } from '../../order.ts';
import type { Programme } from '../../programme.ts';
import { at25, countingIds, programmeWithCues } from '../../samples.ts';
import { cutCues, cutInto, type Cut } from './cutCues.ts';
import { done } from '../done.samples.ts';
import { pinWord, toWeave, weaveCues } from '../words/weaveCues.ts';

const TEXT =
  'The ferry has no engine of its own, it pulls itself along a chain. Somebody has to oil the bell, every single morning before six.';
const empty = programmeWithCues([
  [TEXT, 0, 500],
  ['Slack.', 520, 540],
]);
const words = TEXT.split(' ');

/** Words of eight frames, a pause of a second after the sentence. */
const heard: Programme = (() => {
  const times = words.map((_, at): Woven => {
    const start = 8 * at + (at >= 14 ? 25 : 0);
    return { start: at25(start), end: at25(start + 7), confidence: 0.95, source: 'woven' };
  });
  const weaving = toWeave(empty, 's', ['c1']);
  return done(empty, weaveCues(empty, weaving, times, { lead: 0, tail: 0 }));
})();

const cut = (how: Cut, programme = heard) =>
  done(programme, cutCues(programme, 's', ['c1'], how, countingIds()));
const texts = (programme: Programme) =>
  cuesInOrder(programme, 's').map(({ text }) => plainText(text));
const range = (programme: Programme, at: number) => {
  const cue = cuesInOrder(programme, 's')[at];
  return [(cue?.start ?? 0) / at25(1), (cue?.end ?? 0) / at25(1)];
};

describe('cutting cues', () => {
  it('by sense goes by the lines, and parts at a long pause', () => {
    const after = cut({ by: 'sense' });
    expect(texts(after)[0]).toBe(
      'The ferry has no engine of its own,\nit pulls itself along a chain.',
    );
    expect(texts(after).at(-1)).toBe('Slack.');
    expect(range(after, 0)).toEqual([0, 111]);
    expect(range(after, 1)[0]).toBe(137);
  });

  it('a word a cue, each until the next but over no pause', () => {
    const after = cut({ by: 'words', count: 1, hold: at25(10) });
    expect(texts(after)).toEqual([...words, 'Slack.']);
    expect(range(after, 0)).toEqual([0, 8]);
    expect(range(after, 13)).toEqual([104, 111]);
    expect(range(after, 14)).toEqual([137, 145]);
  });

  it('a word a cue that stays until its sentence ends: all of it goes together', () => {
    const after = cut({ by: 'words', count: 1, hold: at25(0), build: true });
    expect(texts(after).slice(0, 3)).toEqual(['The', 'The ferry', 'The ferry has']);
    expect(texts(after)[13]).toBe(words.slice(0, 14).join(' '));
    // The next sentence begins anew, after the pause.
    expect(texts(after).slice(14, 16)).toEqual(['Somebody', 'Somebody has']);
    expect(range(after, 0)).toEqual([0, 8]);
    expect(range(after, 13)).toEqual([104, 111]);
    expect(range(after, 14)[0]).toBe(137);
    const third = cuesInOrder(after, 's')[2];
    expect(third?.words.map(({ text }) => text)).toEqual(['The', 'ferry', 'has']);
    expect(third).toMatchObject({ startTie: null, endTie: null });
  });

  it('so many words a cue', () => {
    const after = cut({ by: 'words', count: 3, hold: at25(0) });
    expect(texts(after).slice(0, 2)).toEqual(['The ferry has', 'no engine of']);
    expect(range(after, 1)).toEqual([24, 47]);
  });

  it('keeps pins as pins', () => {
    const pinned = done(heard, pinWord(heard, 'c1', 1, { start: at25(9), end: at25(15) }));
    const [, second] = cuesInOrder(cut({ by: 'words', count: 1, hold: at25(0) }, pinned), 's');
    expect(second?.words[0]?.source).toBe('pinned');
  });

  it('leaves cues alone that have no times or no room', () => {
    expect(cutInto(empty, 's', ['c1', 'c2'], { by: 'words', count: 1, hold: at25(0) })).toEqual([]);
    const short = programmeWithCues([
      ['and hold the chain', 0, 2],
      ['Slack.', 2, 9],
    ]);
    const times = [0, 0.5, 1, 1.5].map((start): Woven => ({
      start: at25(start),
      end: at25(start + 0.4),
      confidence: 1,
      source: 'woven',
    }));
    const timed = done(short, weaveCues(short, toWeave(short, 's', ['c1']), times));
    const edit = cutCues(
      timed,
      's',
      ['c1'],
      { by: 'words', count: 1, hold: at25(0) },
      countingIds(),
    );
    expect(edit).toMatchObject({ changes: [], note: '1 cue is too short to be cut.' });
  });

  it('loses no word and lays nothing over another, however the words fall', () => {
    const step = fc.integer({ min: 0, max: 12 });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(step, step, fc.boolean()), {
          minLength: words.length,
          maxLength: words.length,
        }),
        fc.integer({ min: 1, max: 5 }),
        step,
        (steps, count, hold) => {
          let at = 0;
          const times = steps.map(([gap, length, said]): Woven => {
            const start = at + gap / 2;
            at = start + length / 2;
            return said
              ? { start: at25(start), end: at25(at), confidence: 1, source: 'woven' }
              : { start: null, end: null, confidence: 0, source: 'woven' };
          });
          const weaving = toWeave(empty, 's', ['c1']);
          const timed = done(empty, weaveCues(empty, weaving, times));
          const after = cut({ by: 'words', count, hold: at25(hold) }, timed);
          expect(texts(after).join(' ')).toBe(`${TEXT} Slack.`);
          cuesInOrder(after, 's').forEach((cue, place, row) => {
            expect(cue.end).toBeGreaterThan(cue.start);
            expect(cue.start).toBeGreaterThanOrEqual(row[place - 1]?.end ?? 0);
            expect(Number.isInteger(cue.start / at25(1))).toBe(true);
          });
        },
      ),
      { numRuns: 200 },
    );
  });
});
