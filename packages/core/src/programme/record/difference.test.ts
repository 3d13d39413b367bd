import * as fc from 'fast-check';
import { apply } from './apply.ts';
import { difference } from './difference.ts';
import { anyEdit } from '../edits/anyEdit.samples.ts';
import { addStrand } from '../edits/programme/strands.ts';
import { countingIds, programmeWithCues } from '../samples.ts';

const tide = programmeWithCues([
  ['The tide turns', 0, 25],
  ['at the sluice,', 30, 50],
]);

/** Fields that are null and fields that are not there are the same. */
const plain = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_key, field: unknown) => field ?? undefined));

describe('the difference of two programmes', () => {
  test('makes the one of the other, whatever lies between', () => {
    const numbers = fc.array(fc.array(fc.nat(600), { minLength: 4, maxLength: 4 }), {
      maxLength: 10,
    });
    const edited = (kinds: number[][], prefix: string) => {
      const newId = countingIds(prefix);
      return kinds.reduce((now, kind) => apply(now, anyEdit(now, newId, kind).changes), tide);
    };
    fc.assert(
      fc.property(numbers, numbers, (first, second) => {
        const [from, to] = [edited(first, 'a'), edited(second, 'b')];
        expect(plain(apply(from, difference(from, to)))).toEqual(plain(to));
      }),
      { numRuns: 100 },
    );
  });

  test('is nothing for the same programme, and keeps the id of the one it is made of', () => {
    expect(difference(tide, structuredClone(tide))).toEqual([]);
    const other = { ...tide, facts: { ...tide.facts, id: 'other', title: 'Slack Water' } };
    expect(apply(tide, difference(tide, other)).facts).toEqual({
      ...tide.facts,
      title: 'Slack Water',
    });
  });

  test('brings a strand before its cues, and takes it away after them', () => {
    const more = apply(tide, addStrand(tide, 'lyric', 't').changes);
    const sung = { ...more.cues.c1, id: 'x', strand: 't' } as never;
    const to = { ...more, cues: { ...more.cues, x: sung } };
    const order = (changes: ReturnType<typeof difference>) =>
      changes.map(({ entity, becomes }) => `${becomes ? 'add' : 'remove'} ${entity}`);
    expect(order(difference(tide, to))).toEqual(['add strand', 'add cue']);
    expect(order(difference(to, tide))).toEqual(['remove cue', 'remove strand']);
  });
});
