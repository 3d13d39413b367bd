import { plainText } from '../../../text/lines.ts';
import type { Woven } from '../../../weave/woven.ts';
import { apply } from '../../record/apply.ts';
import { update } from '../../record/change.ts';
import { cuesInOrder } from '../../order.ts';
import { at25, countingIds, programmeWithCues } from '../../samples.ts';
import { withTies } from '../../ties.ts';
import { cuesAfter, weaveAndCut } from './weaveAndCut.ts';
import { toWeave } from './weaveCues.ts';

const TEXT =
  'The ferry has no engine of its own. It pulls itself along a chain. Somebody has to oil the bell.';
const programme = programmeWithCues([
  [TEXT, 100, 600],
  ['Slack.', 620, 640],
]);
const weaving = toWeave(programme, 's', ['c1']);

/** Words of eight frames from frame 150 on, with a pause after each sentence; the second sentence was not heard. */
const woven = weaving.words.map((_, at): Woven => {
  const start = 150 + 8 * at + (at >= 8 ? 25 : 0) + (at >= 14 ? 25 : 0);
  const heard = at < 8 || at >= 14;
  return {
    start: heard ? at25(start) : null,
    end: heard ? at25(start + 7) : null,
    confidence: heard ? 0.95 : 0,
    source: 'woven',
  };
});
const how = { strand: 's', follow: { lead: 2, tail: 3 }, cut: { by: 'sense' } } as const;

test('what is shown of weaving and cutting is what is made, also of words that were not heard', () => {
  const edit = weaveAndCut(programme, weaving, woven, how, countingIds('n'));
  const shown = cuesAfter(programme, 's', weaving.cues, edit);
  const made = cuesInOrder(apply(programme, withTies(programme, edit).changes), 's');
  expect(shown).toEqual(made.filter(({ id }) => id !== 'c2'));
  expect(shown.length).toBeGreaterThan(1);
  // In order of time, and none before the first word.
  const starts = shown.map(({ start }) => start);
  expect(starts).toEqual([...starts].sort((a, b) => a - b));
  expect(starts[0]).toBeGreaterThanOrEqual(at25(148));
  expect(shown.map(({ text }) => plainText(text).replaceAll('\n', ' ')).join(' ')).toBe(TEXT);
});

test('without a cut it is weaving alone', () => {
  const edit = weaveAndCut(programme, weaving, woven, { ...how, cut: undefined }, countingIds('n'));
  expect(edit.name).toBe('Weave 20 words');
  expect(cuesAfter(programme, 's', weaving.cues, edit)).toHaveLength(1);
});

test('a line that is heard again gets a cue that looks and moves as the one it is written in', () => {
  const song = programmeWithCues([
    ['Slack water, hold the chain,', 10, 60],
    ['the tide forgets.', 60, 100],
    ['Last.', 300, 320],
  ]);
  const looks = { style: { bold: true }, pattern: 'p1' };
  const first = song.cues['c1'];
  if (!first) throw new Error('There is no cue.');
  const styled = apply(song, update('cue', first, looks));
  const asked = toWeave(styled, 's', ['c1', 'c2']);
  const said = (from: number, count: number) =>
    Array.from({ length: count }, (_, at): Woven => {
      const start = from + 10 * at;
      return { start: at25(start), end: at25(start + 8), confidence: 0.95, source: 'woven' };
    });
  const times = [...said(10, 5), ...said(60, 3)];
  const again = { from: 0, to: 5, woven: said(150, 5) };
  const inTheWay = { from: 5, to: 8, woven: said(302, 3) };
  const edit = weaveAndCut(
    styled,
    asked,
    times,
    { strand: 's', follow: undefined, cut: undefined, repeats: [again, inTheWay] },
    countingIds('n'),
  );
  const after = apply(styled, edit.changes);
  const made = cuesInOrder(after, 's').filter(({ id }) => !(id in styled.cues));
  expect(made).toHaveLength(1);
  expect(made[0]).toMatchObject({ ...looks, start: at25(150), end: at25(198) });
  expect(plainText(made[0]?.text ?? [])).toBe('Slack water, hold the chain,');
  expect(made[0]?.words.map(({ start }) => start)).toEqual(again.woven.map(({ start }) => start));
  expect(edit.name).toBe('Weave 8 words, 2 lines again');
});
