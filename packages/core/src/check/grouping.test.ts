import { plainText } from '../text/lines.ts';
import { done } from '../programme/edits/done.samples.ts';
import { countingIds, programmeWithCues } from '../programme/samples.ts';
import { findingsOf } from './findings.ts';
import { grouped, mendableKinds } from './grouping.ts';
import { mendAll } from './mending.ts';

const LONG = 'The ferry wakes before the village does and the gulls are louder';
const programme = programmeWithCues([
  ['the the tide  turns', 0, 100],
  [LONG, 100, 250],
  ['Orran goes  out out', 250, 350],
  [`${LONG} still`, 350, 500],
]);
const speller = { isRight: (word: string) => !/orran/i.test(word), suggest: () => [] };
const texts = (of: typeof programme) =>
  Object.values(of.cues)
    .sort((a, b) => a.start - b.start)
    .map(({ text }) => plainText(text));

test('findings about one thing stand once, with their places; others stay by themselves', () => {
  const twice = programmeWithCues([
    ['Orran runs', 0, 100],
    ['the  tide', 100, 200],
    ['to Orran', 200, 300],
    ['a  bell', 300, 400],
  ]);
  const groups = grouped(findingsOf(twice, undefined, speller));
  expect(groups.map(({ finding, places }) => [finding.kind, places.map(({ cue }) => cue)])).toEqual(
    [
      ['spelling', ['c1', 'c3']],
      ['spaces', ['c2']],
      ['spaces', ['c4']],
    ],
  );
});

test('all of a kind are mended in one step, also several in one cue', () => {
  const kinds = mendableKinds(findingsOf(programme));
  expect(kinds.map(({ says }) => says).sort()).toEqual([
    '2 cues with wrong spaces',
    '2 doubled words',
    '2 long lines',
  ]);
  const wanted = ({ says }: { says: string }) => says === '2 long lines';
  const [long] = kinds.filter(wanted);
  const broken = done(
    programme,
    mendAll(programme, long?.findings ?? [], '2 long lines', countingIds()),
  );
  const { longestLine } = programme.facts.profile;
  const lines = texts(broken).flatMap((text) => text.split('\n'));
  expect(Math.max(...lines.map(({ length }) => length))).toBeLessThanOrEqual(longestLine);
  const others = kinds.filter((kind) => !wanted(kind)).flatMap(({ findings }) => findings);
  const edit = mendAll(programme, others, '4 slips', countingIds());
  expect(edit.name).toBe('Fix 4 slips');
  expect(texts(done(programme, edit))).toEqual([
    'the tide turns',
    LONG,
    'Orran goes out',
    `${LONG} still`,
  ]);
});

test('a kind of which there is one is not offered', () => {
  const one = programmeWithCues([['the  tide', 0, 100]]);
  expect(mendableKinds(findingsOf(one))).toEqual([]);
});
