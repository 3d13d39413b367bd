import type { Movement } from '../movement/movement.ts';
import { COMES_IN, framesLong } from '../movement/movement.ts';
import { bringPatterns, changePattern } from './edits/patterns/patterns.ts';
import { done } from './edits/done.samples.ts';
import { isPatternFile, PATTERN_FORMAT } from './fileFormat.ts';
import { patternFile, patternsOfFile } from './patternFile.ts';
import { patternShelf } from './patternShelf.ts';
import type { Facts, Pattern } from './programme.ts';
import { countingIds, programmeWithCues } from './samples.ts';

const programme = programmeWithCues([['Slack water', 0, 50]]);
const { facts } = programme;
const shelf = patternShelf(facts);
const [berth] = shelf.filter(({ name }) => name === 'Berth');
if (!berth) throw new Error('Berth is not on the shelf.');
const other: Facts = {
  ...facts,
  frame: { width: facts.frame.width / 2, height: facts.frame.height / 2 },
  frameRate: { num: 50, den: 1, dropFrame: false },
};

describe('patterns as a file', () => {
  it('come back as they were', () => {
    const text = patternFile(facts, shelf);
    expect(isPatternFile(text)).toBe(true);
    expect(patternsOfFile(text, facts)).toEqual(shelf);
  });

  it('fill as much of another frame, and take as long at another rate', () => {
    const [fitted] = patternsOfFile(patternFile(facts, [berth]), other);
    expect(fitted?.look.size).toBe(Math.round((berth.look.size ?? 0) / 2));
    expect(fitted?.look.margin).toBe(Math.round((berth.look.margin ?? 0) / 2));
    expect(fitted?.look.plate).toEqual(berth.look.plate);
    expect(fitted?.movement.comesIn?.takes).toEqual(framesLong(20));
    expect(fitted?.movement.goes?.takes).toEqual(framesLong(16));
    const movement: Movement = {
      comesIn: {
        ...COMES_IN,
        ...{ when: 'typed', by: 'letter', after: 5, early: -3 },
        over: { count: 2, in: 'beats' },
        caret: { shape: 'bar', on: 13, off: 0, stays: null },
      },
      stays: [{ what: 'sways', by: 'whole', period: framesLong(30) }],
      goes: null,
    };
    const [paced] = patternsOfFile(patternFile(facts, [{ ...berth, movement }]), other);
    expect(paced?.movement).toEqual({
      comesIn: {
        ...movement.comesIn,
        ...{ takes: framesLong(12), after: 10, early: -6 },
        caret: { shape: 'bar', on: 26, off: 0, stays: null },
      },
      stays: [{ what: 'sways', by: 'whole', period: framesLong(60) }],
      goes: null,
    });
  });

  it('leave pictures of the programme behind', () => {
    const with_: Pattern = { ...berth, look: { ...berth.look, behindImage: 'm1' } };
    expect(patternsOfFile(patternFile(facts, [with_]), facts)).toEqual([berth]);
  });

  it('are refused where they are something else, each with its reason', () => {
    const file = JSON.parse(patternFile(facts, [berth]));
    const read = (json: unknown) => () => patternsOfFile(JSON.stringify(json), facts);
    expect(() => patternsOfFile('{"patterns', facts)).toThrow(SyntaxError);
    expect(read({ ...file, format: 'something' })).toThrow(/format/);
    expect(read({ ...file, patterns: [] })).toThrow(/patterns/);
    expect(read({ ...file, height: 0 })).toThrow(/height/);
    expect(read({ ...file, patterns: [{ ...berth, colour: 'red' }] })).toThrow(/colour/);
    expect(read({ ...file, patterns: [{ id: 'x', name: 'x', look: {} }] })).toThrow(/movement/);
    expect(isPatternFile(`{"format":"${PATTERN_FORMAT}"}`)).toBe(true);
    expect(isPatternFile('{"format":"woven-cadence/programme/1"}')).toBe(false);
  });
});

describe('bringing patterns in', () => {
  it('is one step, and leaves out what is there', () => {
    const once = bringPatterns(programme, [berth], countingIds());
    expect(once.brought).toEqual([berth.id]);
    const after = done(programme, once);
    expect(Object.values(after.patterns)).toEqual([berth]);
    const twice = bringPatterns(after, [berth], countingIds());
    expect(twice).toMatchObject({ changes: [], note: expect.stringContaining('already') });
    expect(twice.brought).toEqual([berth.id]);
  });

  it('keeps one that is another by now beside it, under a name of its own', () => {
    const own = done(programme, changePattern(programme, berth, { look: { size: 31 } }));
    const edit = bringPatterns(own, [berth, berth], countingIds());
    const after = done(own, edit);
    expect(edit.brought).toEqual(['id1', 'id2']);
    expect(Object.values(after.patterns).map(({ name, look }) => [name, look.size])).toEqual([
      ['Berth', 31],
      ['Berth 2', berth.look.size],
      ['Berth 3', berth.look.size],
    ]);
  });
});
