import { plainText } from '../../../text/lines.ts';
import type { Woven } from '../../../weave/weaver.ts';
import { apply } from '../../record/apply.ts';
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
