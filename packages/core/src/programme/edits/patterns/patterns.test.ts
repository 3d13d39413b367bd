import { COMES_IN, framesLong, STILL } from '../../../movement/movement.ts';
import { movementOf, patternOf, patternsAtHand } from '../../patterns.ts';
import { patternShelf } from '../../patternShelf.ts';
import type { Cue, Pattern, Programme, WordTime } from '../../programme.ts';
import { apply } from '../../record/apply.ts';
import { at25, longProgramme, programmeWithCues } from '../../samples.ts';
import { checkChange, checkWhole } from '../../schema.ts';
import { done } from '../done.samples.ts';
import {
  applyPattern,
  changeMovement,
  changePattern,
  copyPattern,
  hasOwn,
  intoPattern,
  makePattern,
  nudgeComing,
  removePattern,
  takeBackOwn,
  takeOffPattern,
} from './patterns.ts';

const word = (text: string, start: number): WordTime => ({
  ...{ text, start: at25(start), end: at25(start + 8), source: 'woven' },
});
const base = programmeWithCues([
  ['The winch', 20, 60],
  ['house wakes', 60, 100],
  ['before the village', 120, 180],
]);
const woven: Programme = {
  ...base,
  cues: Object.fromEntries(
    Object.values(base.cues).map((cue) => {
      const first = Number(cue.start / at25(1));
      const words = cue.text[0]?.[0]?.text.split(' ') ?? [];
      return [cue.id, { ...cue, words: words.map((text, at) => word(text, first + 10 * at)) }];
    }),
  ),
};
const splice: Pattern = {
  ...{ id: 'p1', name: 'Splice', look: { size: 80, bold: true } },
  movement: {
    ...STILL,
    comesIn: { ...COMES_IN, by: 'word', when: 'said', takes: framesLong(4) },
  },
};

const cueOf = (programme: Programme, id: string) => programme.cues[id] as Cue;

describe('applying a pattern', () => {
  it('to a strand gives it to every cue in one step, whatever they had', () => {
    const other = done(woven, applyPattern(woven, { ...splice, id: 'p2' }, { cues: ['c2'] }));
    const edit = applyPattern(other, splice, { strand: 's' });
    expect(edit.name).toBe('Apply “Splice” to a strand');
    const made = done(other, edit);
    expect(Object.values(made.cues).map((cue) => patternOf(made, cue)?.id)).toEqual([
      'p1',
      'p1',
      'p1',
    ]);
  });

  it('to cues leaves the others, and says whose it is', () => {
    const edit = applyPattern(woven, splice, { cues: ['c1', 'c3'] });
    expect(edit.name).toBe('Apply “Splice” to 2 cues');
    const made = done(woven, edit);
    expect(Object.values(made.cues).map((cue) => patternOf(made, cue)?.name)).toEqual([
      'Splice',
      undefined,
      'Splice',
    ]);
  });

  it('has cues begin early enough for their first word, where there is room before them', () => {
    const made = done(woven, applyPattern(woven, splice, { strand: 's' }));
    expect(cueOf(made, 'c1').start).toBe(at25(16));
    expect(cueOf(made, 'c1').startTie).toEqual({ to: 'word', frames: 4 });
    // The second touches the first.
    expect(cueOf(made, 'c2').start).toBe(at25(60));
    expect(cueOf(made, 'c3').start).toBe(at25(116));
  });

  it('has cues begin early enough that are tied to their first word, but not those tied to a mark', () => {
    const tied = (startTie: NonNullable<Cue['startTie']>) => ({
      ...woven,
      cues: { ...woven.cues, c1: { ...cueOf(woven, 'c1'), startTie } },
    });
    const start = (programme: Programme) =>
      cueOf(done(programme, applyPattern(programme, splice, { strand: 's' })), 'c1').start;
    expect(start(tied({ to: 'word', frames: 0 }))).toBe(at25(16));
    const marked = tied({ to: 'mark', mark: 'm', frames: 0 });
    expect(start(marked)).toBe(cueOf(marked, 'c1').start);
  });

  it('leaves cues where they are that do not wait for what is said', () => {
    const still = { ...splice, movement: STILL };
    const made = done(woven, applyPattern(woven, still, { strand: 's' }));
    expect(Object.values(made.cues).map(({ start }) => start)).toEqual(
      Object.values(woven.cues).map(({ start }) => start),
    );
  });
});

describe('what a cue has of its own', () => {
  const given = apply(woven, applyPattern(woven, splice, { strand: 's' }).changes);
  const comesIn = { ...COMES_IN, by: 'letter' as const };

  it('stands in the place of the pattern’s, is told, and can be taken back', () => {
    const own = done(given, changeMovement(given, ['c1'], { comesIn }));
    expect(movementOf(own, cueOf(own, 'c1'), 0)?.comesIn?.by).toBe('letter');
    expect(movementOf(own, cueOf(own, 'c2'), 0)?.comesIn?.by).toBe('word');
    expect(Object.values(own.cues).map((cue) => hasOwn(own, cue))).toEqual([true, false, false]);
    const back = done(own, takeBackOwn(own, ['c1', 'c2']));
    expect(movementOf(back, cueOf(back, 'c1'), 0)?.comesIn?.by).toBe('word');
  });

  it('can be put into the pattern, for all that have it', () => {
    const own = apply(given, changeMovement(given, ['c1'], { comesIn }).changes);
    const made = done(own, intoPattern(own, 'c1'));
    expect(made.patterns.p1?.movement.comesIn?.by).toBe('letter');
    expect(movementOf(made, cueOf(made, 'c3'), 0)?.comesIn?.by).toBe('letter');
    expect(hasOwn(made, cueOf(made, 'c1'))).toBe(false);
    expect(intoPattern(woven, 'c1').note).toContain('no pattern');
  });
});

it('changes for all that have it; a look can be what the strand has again', () => {
  const given = apply(woven, applyPattern(woven, splice, { strand: 's' }).changes);
  const later = changePattern(given, splice, {
    movement: nudgeComing(splice.movement, 1),
    look: { size: undefined, colour: '#ffeedd' },
  });
  const made = done(given, later);
  expect(made.patterns.p1?.movement.comesIn?.early).toBe(1);
  // So do their first words, where there is room.
  expect(['c1', 'c2', 'c3'].map((id) => cueOf(made, id).start)).toEqual(
    [15, 60, 115].map((frame) => at25(frame)),
  );
  expect(made.patterns.p1?.look).toEqual({ bold: true, colour: '#ffeedd' });
  expect(done(given, changePattern(given, splice, { name: ' Reef ' })).patterns.p1?.name).toBe(
    'Reef',
  );
});

it('can be changed in one field alone, as the server checks it', () => {
  const given = apply(woven, applyPattern(woven, splice, { strand: 's' }).changes);
  for (const part of [{ name: 'Reef' }, { look: { size: 20 } }, { movement: STILL }])
    changePattern(given, splice, part).changes.forEach((change) => {
      expect(() => checkChange(change)).not.toThrow();
    });
});

it('of the shelf comes into the programme as it is changed', () => {
  const [shelved] = patternShelf(woven.facts);
  const made = done(woven, changePattern(woven, shelved as Pattern, { look: { size: 44 } }));
  expect(made.patterns[shelved?.id ?? '']?.look.size).toBe(44);
});

it('is made of a cue, copied, taken off and deleted', () => {
  const made = done(
    woven,
    makePattern(woven, 'c2', { id: 'n', name: 'Mine', look: { size: 70 }, movement: STILL }),
  );
  expect(patternOf(made, cueOf(made, 'c2'))?.name).toBe('Mine');
  const mine = made.patterns.n as Pattern;
  const copied = done(made, copyPattern(made, mine, 'n2'));
  expect(copied.patterns.n2).toMatchObject({ name: 'Mine 2', look: { size: 70 } });
  const off = done(made, takeOffPattern(made, { cues: ['c2'] }));
  expect(patternOf(off, cueOf(off, 'c2'))).toBeUndefined();
  const gone = done(made, removePattern(made, 'n'));
  expect([gone.patterns, cueOf(gone, 'c2').pattern]).toEqual([{}, null]);
});

test('a cue whose strand has a pattern says so when it is to be taken off the cue alone', () => {
  const given = apply(woven, applyPattern(woven, splice, { strand: 's' }).changes);
  expect(takeOffPattern(given, { cues: ['c1'] }).note).toBe(
    '1 cue has the pattern of the strand. Take it off the strand.',
  );
});

describe('the shelf', () => {
  const shelf = patternShelf(woven.facts);

  it('has twenty patterns and more, each whole, with a name of its own', () => {
    expect(shelf.length).toBeGreaterThanOrEqual(20);
    for (const pattern of shelf) checkWhole('pattern', pattern);
    expect(new Set(shelf.map(({ name }) => name)).size).toBe(shelf.length);
    expect(shelf.every(({ note }) => (note ?? '').length > 0)).toBe(true);
  });

  it('is fitted to the frame and the rate', () => {
    const small = patternShelf({
      frame: { width: 960, height: 540 },
      frameRate: { num: 50, den: 1, dropFrame: false },
    });
    shelf.forEach((pattern, at) => {
      const other = small[at] as Pattern;
      expect(other.look.size).toBeCloseTo((pattern.look.size ?? 0) / 2, 0);
      const [here, there] = [pattern, other].map(({ movement }) => movement.comesIn?.takes?.count);
      expect(there ?? 0).toBe(2 * (here ?? 0));
    });
  });

  it('stands after the patterns of the programme, without those that are in it', () => {
    const [first] = shelf;
    const programme = { ...woven, patterns: { p1: splice, [first?.id ?? '']: first as Pattern } };
    const names = patternsAtHand(programme).map(({ id }) => id);
    expect(names.slice(0, 2).sort()).toEqual([first?.id, 'p1'].sort());
    expect(new Set(names).size).toBe(shelf.length + 1);
  });
});

test('a pattern on many cues is one step, and quick to look up', () => {
  const long = longProgramme(300);
  const strand = Object.keys(long.strands)[0] ?? '';
  const made = done(long, applyPattern(long, splice, { strand }));
  expect(Object.values(made.cues).every((cue) => patternOf(made, cue)?.id === 'p1')).toBe(true);
});

describe('a typed pattern', () => {
  const typed: Pattern = {
    ...{ id: 'typed', name: 'Key by key', look: {} },
    movement: {
      ...STILL,
      comesIn: { ...COMES_IN, by: 'letter', when: 'typed', rate: 5, uneven: 0, after: 10 },
    },
  };
  // Of 9 letters the last comes 8 fifths of a second after the first, and that after 10 frames.
  const wants = (start: number) => at25(start + 10 + 40 + 25);

  it('has a cue last until its letters are typed, and a second more, where there is room', () => {
    const [alone] = [programmeWithCues([['The winch', 20, 30]])];
    const made = done(alone, applyPattern(alone, typed, { cues: ['c1'] }));
    expect(cueOf(made, 'c1')).toMatchObject({ start: at25(20), end: wants(20) });
  });

  it('ends at the next cue, and leaves a cue that has the time as it is', () => {
    const made = done(base, applyPattern(base, typed, { strand: 's' }));
    expect(cueOf(made, 'c1').end).toBe(at25(60));
    expect(cueOf(made, 'c2').end).toBe(at25(120));
    // Its 18 letters are 3.4 seconds.
    expect(cueOf(made, 'c3').end).toBe(at25(120 + 10 + 85 + 25));
    const long = programmeWithCues([['The winch', 20, 400]]);
    expect(cueOf(done(long, applyPattern(long, typed, { cues: ['c1'] })), 'c1').end).toBe(
      at25(400),
    );
  });
});
