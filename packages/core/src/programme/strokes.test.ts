import { COMES_IN, framesLong, type ComesIn } from '../movement/movement.ts';
import { typedTimes } from '../movement/typing.ts';
import type { Movement } from '../movement/movement.ts';
import type { Programme } from './programme.ts';
import { programmeWithCues } from './samples.ts';
import { strokesOf, TAKEN_AWAY } from './strokes.ts';

const TYPED: ComesIn = {
  ...COMES_IN,
  ...{ by: 'letter', when: 'typed', arrives: 'begins', rate: 10, uneven: 0, after: 5, seed: 1 },
  ...{ takes: framesLong(0), moves: [] },
};

function struck(text: string, part: Partial<ComesIn> = {}, own: Partial<Movement> = {}, end = 200) {
  const base = programmeWithCues([[text, 50, end]]);
  const cue = base.cues['c1'];
  if (!cue) throw new Error('There is no cue.');
  const moving = { ...cue, movement: { comesIn: { ...TYPED, ...part }, ...own } };
  const programme: Programme = { ...base, cues: { c1: moving } };
  return strokesOf(programme, moving);
}

describe('the strokes of a typed text', () => {
  it('are its characters, in the pace of typing, spaces and line ends too', () => {
    const strokes = struck('Tide at\nsix', { rate: 5 });
    expect(strokes.map(({ text }) => text).join('')).toBe('Tide at\nsix');
    expect(strokes.map(({ frame }) => frame)).toEqual([5, 10, 15, 20, 25, 30, 35, 40, 45, 50, 55]);
  });

  it('keep to an uneven hand', () => {
    const text = 'The chain, it holds.';
    const typing = { rate: 8, uneven: 1, seed: 4 };
    const times = typedTimes(text, typing);
    const strokes = struck(text, typing);
    strokes.forEach(({ text: letter, frame }, at) => {
      if (letter !== ' ') expect(frame).toBe(5 + Math.round((times[at] ?? 0) * 25));
    });
    const frames = strokes.map(({ frame }) => frame);
    expect(frames).toEqual([...frames].sort((a, b) => a - b));
  });

  it('are nearer to each other where the cue is short', () => {
    const strokes = struck('Tide at six', { rate: 2 }, {}, 75);
    expect(strokes.at(-1)?.frame).toBeLessThan(25);
    expect(strokes).toHaveLength(11);
  });

  it('spread several spaces evenly', () => {
    const frames = struck('a  b', { rate: 5, after: 0 }).map(({ frame }) => frame);
    expect(frames).toEqual([0, 5, 10, 15]);
  });

  it('are none where a text does not come in by letters', () => {
    expect(struck('Tide', { by: 'word' })).toEqual([]);
    expect(struck('  ')).toEqual([]);
    expect(struck('Tide', {}, { comesIn: null })).toEqual([]);
  });

  it('come in whatever parts a text goes by', () => {
    const goes = { ...COMES_IN, when: 'wave', overlap: 0 } as const;
    for (const by of ['letter', 'word', 'line', 'whole'] as const)
      expect(
        struck('Tide at\nsix', {}, { goes: { ...goes, by } }).map(({ frame }) => frame),
      ).toEqual(struck('Tide at\nsix').map(({ frame }) => frame));
  });

  it('are those of slips and of taking them away too, in order', () => {
    const text = 'The ferry at Skerrymoor has no engine';
    const strokes = struck(text, { slips: 20, rate: 20, seed: 5 }, {}, 400);
    const away = strokes.flatMap(({ text: letter }, at) => (letter === TAKEN_AWAY ? [at] : []));
    expect(away.length).toBeGreaterThan(0);
    const frames = strokes.map(({ frame }) => frame);
    expect(frames).toEqual([...frames].sort((a, b) => a - b));
    // What is left, each with what was struck before it taken away, is the text.
    const left: string[] = [];
    for (const { text: letter } of strokes) {
      if (letter === TAKEN_AWAY) left.pop();
      else left.push(letter);
    }
    expect(left.join('')).toBe(text);
  });
});
