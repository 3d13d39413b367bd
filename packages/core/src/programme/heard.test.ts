import fc from 'fast-check';
import { fromSeconds, toSeconds, type Ticks } from '../time/ticks.ts';
import {
  gainAt,
  heardBeats,
  heardHits,
  heardPieces,
  inMaterial,
  inProgramme,
  materialTime,
  newSound,
  programmeTime,
  soundOf,
  soundsHeard,
  stretchOf,
  wholeSound,
} from './heard.ts';
import type { Programme, Sound } from './programme.ts';
import { programmeWithPieces, sampleMaterial } from './samples.ts';

const s = fromSeconds;
const laid: Sound = { ...wholeSound(sampleMaterial('m')), at: s(2), from: s(5), to: s(15) };
const base = programmeWithPieces([
  [1, 3],
  [4, 6],
  [14, 20],
  [30, 31],
]);
const moved: Programme = { ...base, sounds: { [laid.id]: laid } };
const seconds = (ranges: readonly { start: Ticks; end: Ticks }[]) =>
  ranges.map(({ start, end }) => [toSeconds(start), toSeconds(end)]);

test('a sound that is not heard yet is the one to take the place of another', () => {
  const materials = Object.fromEntries(
    ['m', 'second', 'new', 'other'].map((id) => [id, sampleMaterial(id)]),
  );
  const sounds = { other: { ...wholeSound(sampleMaterial('other')), id: 'other' } };
  expect(newSound({ ...base, materials, sounds }, 'm')).toBe('new');
  expect(newSound({ ...base, sounds }, 'm')).toBeUndefined();
});

describe('a sound as it is laid', () => {
  it('is whole from the start unless it was laid otherwise', () => {
    expect(soundOf(base, 'm')).toEqual(wholeSound(sampleMaterial('m')));
    expect(soundOf(moved, 'm')).toBe(laid);
    expect(soundOf(base, 'other')).toBeUndefined();
    expect(soundOf(base, null)).toBeUndefined();
    expect(soundsHeard({ ...base, facts: { ...base.facts, sound: null } })).toEqual([]);
  });

  it('is heard during its stretch', () => {
    expect(seconds([stretchOf(laid)])).toEqual([[2, 12]]);
  });

  it('has times that go over into the programme and back', () => {
    fc.assert(
      fc.property(fc.nat(1e12), fc.nat(1e12), fc.nat(1e12), (at, from, time) => {
        const sound = { ...laid, at: at as Ticks, from: from as Ticks };
        expect(inProgramme(sound, inMaterial(sound, time as Ticks))).toBe(time);
      }),
    );
    expect(materialTime(moved, 'm', s(2))).toBe(s(5));
    expect(programmeTime(moved, 'm', s(5))).toBe(s(2));
    expect([materialTime(moved, 'none', s(2)), programmeTime(moved, null, s(2))]).toEqual([
      s(2),
      s(2),
    ]);
  });
});

describe('how loud it is', () => {
  const faded = { ...laid, fadeIn: s(1), fadeOut: s(4), level: -20 };

  it.each([
    [1.9, 0],
    [2, 0],
    [2.5, 0.5],
    [5, 1],
    [10, 0.5],
    [12, 0],
    [99, 0],
  ])('at %f s of the programme follows its fades', (at, share) => {
    expect(gainAt(faded, s(at))).toBeCloseTo(share / 10, 9);
  });

  it('is the lesser of two fades that meet', () => {
    const short = { ...laid, to: s(7), fadeIn: s(2), fadeOut: s(2) };
    expect(gainAt(short, s(2.5))).toBeCloseTo(0.25, 9);
    expect(gainAt(short, s(3.5))).toBeCloseTo(0.25, 9);
  });
});

describe('what was found in it', () => {
  it('falls where it is heard, cut at its ends, and not where it is not', () => {
    expect(seconds(heardPieces(base))).toEqual([
      [1, 3],
      [4, 6],
      [14, 20],
      [30, 31],
    ]);
    expect(seconds(heardPieces(moved))).toEqual([
      [2, 3],
      [11, 12],
    ]);
  });

  it('is the same list until something changes', () => {
    const first = heardPieces(moved);
    expect(heardPieces({ ...moved, cues: {} })).toBe(first);
    const later = { ...moved, sounds: { [laid.id]: { ...laid, at: s(3) } } };
    expect(heardPieces(later)).not.toBe(first);
    expect(seconds(heardPieces(later))[0]).toEqual([3, 4]);
  });

  it('of several sounds comes in order of time', () => {
    const second: Sound = { ...wholeSound(sampleMaterial('n')), at: s(1), to: s(30) };
    const hit = (id: string, material: string, at: number) => ({
      id,
      material,
      start: s(at),
      end: s(at + 0.1),
      level: -9,
      kept: false,
    });
    const beat = (id: string, material: string, at: number) => ({
      id,
      material,
      at: s(at),
      bar: null,
      fixed: false,
    });
    const both: Programme = {
      ...moved,
      materials: { ...moved.materials, n: sampleMaterial('n') },
      sounds: { ...moved.sounds, [second.id]: second },
      hits: { a: hit('a', 'm', 6), b: hit('b', 'n', 0.5), c: hit('c', 'm', 40) },
      beats: { x: beat('x', 'm', 5), y: beat('y', 'n', 0.2), z: beat('z', 'm', 2) },
    };
    expect(heardHits(both).map(({ id }) => id)).toEqual(['b', 'a']);
    expect(heardBeats(both).map(({ id, at }) => [id, toSeconds(at)])).toEqual([
      ['y', 1.2],
      ['x', 2],
    ]);
  });
});
