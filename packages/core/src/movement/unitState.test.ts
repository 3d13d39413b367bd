import { after, shiftedBy, turnedAbout, type Transform } from './matrix.ts';
import { fading, framesLong, type Move, type Stay } from './movement.ts';
import type { CueTime } from './threads.ts';
import { valueAt } from './values.ts';
import { AT_REST, seenOf, stateAt, type Ground, type Place, type UnitThread } from './unitState.ts';

const box: Ground = { x: 100, y: 200, w: 80, h: 40, baseline: 230 };
const place: Place = {
  ...{ unit: box, word: box, line: box, whole: box },
  ...{ em: 50, frame: { width: 1280, height: 720 }, number: 0 },
};
const time: CueTime = {
  ...{ length: 100, beats: [], bars: [], marks: [], hits: [], beat: 12, rate: 25 },
};
const thread = (moves: readonly Move[], stays: readonly Stay[] = []): UnitThread => ({
  coming: { begins: 10, lands: 14 },
  going: { leaves: 90, gone: 94 },
  ...{ comesBy: moves, goesBy: moves, stays, inPlace: place, outPlace: place },
  stayPlaces: stays.map(() => place),
});
const at = ({ a, b, c, d, e, f }: Transform, x: number, y: number) => [
  a * x + c * y + e,
  b * x + d * y + f,
];
const easing = 'linear';

describe('a unit', () => {
  const fade = thread([{ what: 'opacity', from: 0, easing }]);

  it('is not seen before it begins, and not after it has gone', () => {
    expect([9, 94, 99].map((frame) => stateAt(fade, frame, time))).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
  });

  it('takes as many frames as it takes, and stands at rest in the one in which it lands', () => {
    expect([10, 11, 12, 13].map((frame) => stateAt(fade, frame, time)?.opacity)).toEqual([
      0.2, 0.4, 0.6, 0.8,
    ]);
    expect([14, 50, 89].map((frame) => stateAt(fade, frame, time))).toEqual([
      AT_REST,
      AT_REST,
      AT_REST,
    ]);
    expect(stateAt(fade, 90, time)?.opacity).toBeCloseTo(0.8, 9);
    expect(stateAt(fade, 93, time)?.opacity).toBeCloseTo(0.2, 9);
  });

  it('grows about what it is told to', () => {
    const about = { of: 'unit', across: 0, down: 1, onBaseline: true } as const;
    const state = stateAt(thread([{ what: 'scale', from: 0, easing, about }]), 10, time);
    const [fixed, far] = [at(state?.transform as Transform, 100, 230), [150, 230]];
    expect(fixed[0]).toBeCloseTo(100, 9);
    expect(fixed[1]).toBeCloseTo(230, 9);
    expect(at(state?.transform as Transform, far[0] ?? 0, far[1] ?? 0)[0]).toBeCloseTo(110, 9);
  });

  it('comes from a side, by ems or from just outside the frame', () => {
    const ems = thread([{ what: 'place', from: 2, in: 'em', angle: 90, easing }]);
    expect(at(stateAt(ems, 10, time)?.transform as Transform, 0, 0)[1]).toBeCloseTo(80, 9);
    const outside: UnitThread = {
      ...thread([{ what: 'place', in: 'outside', angle: 180, easing }]),
      coming: { begins: 10, lands: 1_000_000 },
    };
    // At its very beginning its right edge is at the left edge of the frame.
    expect(at(stateAt(outside, 10, time)?.transform as Transform, 180, 0)[0]).toBeCloseTo(0, 2);
  });

  it('goes the way it came', () => {
    const turned = thread([{ what: 'turn', from: -30, easing }]);
    const [come, go] = [10, 93].map((frame) => stateAt(turned, frame, time)?.transform);
    expect(go?.b).toBeCloseTo(come?.b ?? NaN, 9);
  });

  it('swells with the loudness of the sound', () => {
    const swells = thread([], [{ what: 'swells', by: 'whole', amount: 0.2 }]);
    const energy = (frame: number) => (frame < 50 ? 0 : 0.5);
    const scaleAt = (frame: number) => stateAt(swells, frame, { ...time, energy })?.transform.a;
    expect([scaleAt(20), scaleAt(60)]).toEqual([1, 1.1]);
    expect(stateAt(swells, 60, time)?.transform.a).toBe(1);
  });

  it('stays in movement: grows over its stay, pulses on the beat, trembles alike for a seed', () => {
    const grows = thread([], [{ what: 'grows', by: 'whole', amount: 1.1 }]);
    expect(stateAt(grows, 10, time)?.transform.a).toBe(1);
    expect(stateAt(grows, 93, time)?.transform.a).toBeCloseTo(1.1, 9);
    const pulses = thread([], [{ what: 'pulses', by: 'whole', amount: 0.1, on: 'beats' }]);
    const sizes = [39, 40, 44, 48].map(
      (frame) => stateAt(pulses, frame, { ...time, beats: [40] })?.transform.a ?? 0,
    );
    expect(sizes[0]).toBe(1);
    expect(sizes[1]).toBeCloseTo(1.1, 9);
    expect(sizes[2]).toBeLessThan(1.05);
    const shaken = (seed: number) =>
      stateAt(thread([], [{ what: 'trembles', by: 'whole', seed }]), 50, time)?.transform;
    expect(shaken(1)).toEqual(shaken(1));
    expect(shaken(1)).not.toEqual(shaken(2));
  });

  it('breathes about its own size, and sways to both sides', () => {
    const period = framesLong(40);
    const breath = thread([], [{ what: 'breathes', by: 'whole', amount: 0.04, period }]);
    const sizes = Array.from(
      { length: 40 },
      (_, frame) => stateAt(breath, 20 + frame, time)?.transform.a ?? 0,
    );
    expect(Math.max(...sizes)).toBeCloseTo(1.04, 3);
    expect(Math.min(...sizes)).toBeCloseTo(1, 3);
    const sway = thread([], [{ what: 'sways', by: 'whole', amount: 2, period }]);
    const turnsOf = [20, 40].map((frame) => stateAt(sway, frame, time)?.transform.b ?? 0);
    expect(turnsOf[0]).toBeCloseTo(-(turnsOf[1] ?? 0), 9);
  });
});

it('fades as bands do: visible in its first frame, whole after as many as it takes', () => {
  const seen = (frame: number) => seenOf(fading(4), frame, 50);
  expect([0, 1, 4, 25, 46, 49].map(seen).map((value) => Math.round(value * 10) / 10)).toEqual([
    0.2, 0.4, 1, 1, 0.8, 0.2,
  ]);
});

test('one transform after another', () => {
  const both = after(shiftedBy(10, 0), turnedAbout(90, 0, 0));
  expect(at(both, 1, 0).map((value) => Math.round(value * 1e9) / 1e9)).toEqual([10, 1]);
});

describe('values at named times', () => {
  const told: CueTime = {
    ...{ length: 100, beat: 25, rate: 25, bars: [], marks: [40], hits: [] },
    ...{ beats: [0, 25, 50, 75], words: [10, 30, 60] },
  };
  const stay = (at: Stay['at'], part: Partial<Stay> = {}): Stay => ({
    ...{ what: 'values', by: 'whole', moves: 'scale', easing: 'linear' },
    ...part,
    ...(at && { at }),
  });

  it('are those of each instant in turn, and go from one to the next', () => {
    const beats = stay([{ when: 'beats', values: [1, 1.2] }]);
    expect([0, 25, 50, 75, 99].map((frame) => valueAt(beats, frame, told))).toEqual([
      1, 1.2, 1, 1.2, 1.2,
    ]);
    expect(valueAt(beats, 10, told)).toBeCloseTo(1 + (0.2 * 10) / 25);
  });

  it('are those at the start, a mark and the end, whatever the order in which they were named', () => {
    const three = stay([
      { when: 'end', values: [0.5] },
      { when: 'start', values: [1] },
      { when: 'marks', values: [2] },
    ]);
    expect([0, 20, 40, 99].map((frame) => valueAt(three, frame, told))).toEqual([1, 1.5, 2, 0.5]);
    const words = stay([{ when: 'words', values: [3] }]);
    expect([0, 10, 99].map((frame) => valueAt(words, frame, told))).toEqual([3, 3, 3]);
  });

  it('are none where none of the times is there', () => {
    expect(valueAt(stay([{ when: 'hits', values: [2] }]), 5, told)).toBeUndefined();
    expect(valueAt(stay(undefined), 5, told)).toBeUndefined();
  });

  it('move the unit that has them', () => {
    const holding = (values: Stay) => thread([], [values]);
    const grown = stateAt(holding(stay([{ when: 'marks', values: [2] }])), 50, told);
    expect(grown?.transform).toMatchObject({ a: 2, d: 2 });
    const faded = stay([{ when: 'start', values: [0.25] }], { moves: 'opacity' });
    expect(stateAt(holding(faded), 50, told)?.opacity).toBe(0.25);
    const moved = stay([{ when: 'start', values: [1] }], { moves: 'place', angle: 90 });
    expect(stateAt(holding(moved), 50, told)?.transform.f).toBeCloseTo(place.em);
  });
});
