import { plainText } from '../text/lines.ts';
import { done } from '../programme/edits/done.samples.ts';
import type { Programme } from '../programme/programme.ts';
import { countingIds, programmeWithCues } from '../programme/samples.ts';
import type { Finding } from './finding.ts';
import { setText } from '../programme/edits/text/reword.ts';
import { figureOf, mend, mendAll, mendingOf, writeInstead } from './mending.ts';
import { wordingOf } from './wording.ts';

const WIDE = 'The ferry wakes before the village does and the gulls are louder than the bell';
const programme = programmeWithCues([
  [WIDE, 0, 100],
  ['the the tide', 100, 150],
  ['Slack watre', 150, 200],
]);
const finding = (fields: Partial<Finding>): Finding => ({
  kind: 'spelling',
  severity: 'doubtful',
  at: programme.cues['c2']?.start ?? programme.facts.length,
  cue: 'c2',
  message: '',
  ...fields,
});
const textOf = ({ cues }: Programme, id: string) => plainText(cues[id]?.text ?? []);

describe('mending a finding', () => {
  it('sets the text that is known to be right', () => {
    const doubled = finding({ kind: 'doubled word', mend: 'the tide' });
    expect(mendingOf(doubled)).toBe('Fix');
    const edit = mend(programme, doubled, countingIds());
    expect(edit.name).toBe('Fix: doubled word');
    expect(textOf(done(programme, edit), 'c2')).toBe('the tide');
  });

  it('mends the text as it is now, where another finding of it was mended before', () => {
    const slips = programmeWithCues([['It pulls  itself along a a chain ,', 0, 100]]);
    const [doubled, spaces] = wordingOf(Object.values(slips.cues));
    if (!doubled || !spaces) throw new Error('The slips were not found.');
    for (const [first, second] of [
      [doubled, spaces],
      [spaces, doubled],
    ] as const) {
      const once = done(slips, mend(slips, first, countingIds()));
      const twice = done(once, mend(once, second, countingIds()));
      expect(textOf(twice, 'c1')).toBe('It pulls itself along a chain,');
      const edit = mend(twice, second, countingIds());
      expect(edit).toMatchObject({ changes: [], note: expect.stringContaining('has changed') });
    }
    const all = mendAll(
      done(slips, mend(slips, spaces, countingIds())),
      [doubled],
      '1 word',
      countingIds(),
    );
    expect(all.changes).toHaveLength(1);
    const word = finding({ foundIn: 'Slack watre', place: { from: 6, to: 11 }, cue: 'c3' });
    const longer = done(programme, setText(programme, 'c3', 'The slack watre'));
    expect(textOf(done(longer, writeInstead(longer, word, 'water')), 'c3')).toBe('The slack water');
    const other = done(programme, setText(programme, 'c3', 'Slack wat'));
    expect(writeInstead(other, word, 'water')).toMatchObject({ changes: [] });
  });

  it('breaks lines anew where they are too long, and says where it cannot', () => {
    const long = finding({ kind: 'long line', cue: 'c1' });
    expect(mendingOf(long)).toBe('Fix');
    const after = done(programme, mend(programme, long, countingIds()));
    const lines = Object.values(after.cues).flatMap(({ text }) =>
      text.map((line) => plainText([line])),
    );
    expect(Math.max(...lines.map(({ length }) => length))).toBeLessThanOrEqual(
      programme.facts.profile.longestLine,
    );
    const word = programmeWithCues([['Skerry'.repeat(12), 0, 100]]);
    const edit = mend(word, finding({ kind: 'long line', cue: 'c1' }), countingIds());
    expect(edit).toMatchObject({ changes: [], note: expect.stringContaining('wider than a line') });
  });

  it('sets it in the font that has its characters', () => {
    const missing = finding({ kind: 'missing glyph', cue: 'c3', font: 'Noto Sans' });
    expect(mendingOf(missing)).toBe('Set in Noto Sans');
    const after = done(programme, mend(programme, missing, countingIds()));
    expect(after.cues['c3']?.style.family).toBe('Noto Sans');
  });

  it('changes nothing where no way is known', () => {
    expect(mendingOf(finding({ kind: 'too fast' }))).toBeUndefined();
    expect(mend(programme, finding({ kind: 'too fast' }), countingIds()).changes).toEqual([]);
  });

  it('writes another word in its place', () => {
    const edit = writeInstead(
      programme,
      finding({ cue: 'c3', place: { from: 6, to: 11 } }),
      'water',
    );
    expect(edit.name).toBe('Write “water”');
    expect(textOf(done(programme, edit), 'c3')).toBe('Slack water');
    expect(writeInstead(programme, finding({}), 'water').changes).toEqual([]);
  });
});

it('the figure of a finding has its unit and the limit', () => {
  const of = (figure?: number, limit?: number) => ({
    ...finding({ unit: 'lines' }),
    ...(figure !== undefined && { figure }),
    ...(limit !== undefined && { limit }),
  });
  expect(figureOf(of())).toBe('');
  expect(figureOf(of(3, 2))).toBe('3 lines, limit 2');
  expect(figureOf(of(1))).toBe('1 line');
});
