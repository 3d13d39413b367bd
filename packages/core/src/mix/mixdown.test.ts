import { wholeSound } from '../programme/heard.ts';
import type { Programme, Sound } from '../programme/programme.ts';
import { programmeWithCues, sampleMaterial } from '../programme/samples.ts';
import { fromSeconds, TICKS_PER_SECOND, type Ticks } from '../time/ticks.ts';
import { mixdown, type OpenSource } from './mixdown.ts';

const RATE = 48_000;
const s = fromSeconds;
const samples = (count: number) => ((count * TICKS_PER_SECOND) / RATE) as Ticks;

/** A source of one level, in pieces that end nowhere in particular. */
const level = (value: number, seconds: number, rate = RATE, channels = 1) => ({
  sampleRate: rate,
  async *chunks() {
    for (let left = seconds * rate; left > 0; left -= 12_345) {
      await Promise.resolve();
      const piece = new Float32Array(Math.min(left, 12_345)).fill(value);
      yield Array.from({ length: channels }, (_, at) => piece.map((each) => each * (1 + at)));
    }
  },
});

function laid(sounds: readonly Partial<Sound>[]): Programme {
  const base = programmeWithCues([]);
  const entries = sounds.map((sound, at) => {
    const id = `m${at}`;
    const material = { ...sampleMaterial(id), length: s(4) };
    return [id, material, { ...wholeSound(material), ...sound }] as const;
  });
  return {
    ...base,
    facts: { ...base.facts, sound: null },
    materials: Object.fromEntries(entries.map(([id, material]) => [id, material])),
    sounds: Object.fromEntries(entries.map(([id, , sound]) => [id, sound])),
  };
}

async function mixed(programme: Programme, open: OpenSource, [from, to] = [0, 6]) {
  const [left, right]: [number[], number[]] = [[], []];
  for await (const [one, other] of mixdown(programme, { start: s(from), end: s(to) }, RATE, open)) {
    expect(one.length).toBeLessThanOrEqual(RATE);
    left.push(...one);
    right.push(...other);
  }
  return { left, right };
}

const opens =
  (...sources: ReturnType<typeof level>[]): OpenSource =>
  (material) =>
    Promise.resolve(sources[Number(material.slice(1))]);

test('a sound lies on its sample, trimmed, at its level, in both channels', async () => {
  const programme = laid([{ at: samples(1001), from: s(1), to: s(3), level: -20 }]);
  const { left, right } = await mixed(programme, opens(level(1, 4)));
  expect(left).toHaveLength(6 * RATE);
  expect(left[1000]).toBe(0);
  expect(left[1001]).toBeCloseTo(0.1, 6);
  expect(left[1001 + 2 * RATE - 1]).toBeCloseTo(0.1, 6);
  expect(left[1001 + 2 * RATE]).toBe(0);
  expect(right).toEqual(left);
});

test('fades are straight lines, and what is muted is not heard', async () => {
  const fading = { at: s(1), to: s(2), fadeIn: s(1), fadeOut: s(0.5) };
  const { left } = await mixed(laid([fading, { muted: true }]), opens(level(0.8, 4), level(1, 4)));
  expect(left[RATE * 1.25]).toBeCloseTo(0.2, 4);
  expect(left[RATE * 2.25]).toBeCloseTo(0.8, 4);
  expect(left[RATE * 2.75]).toBeCloseTo(0.4, 4);
  expect(left[RATE * 0.5]).toBe(0);
});

test('sounds of other rates and channels come together', async () => {
  const programme = laid([{ to: s(2) }, { at: s(1), to: s(2) }]);
  const { left, right } = await mixed(
    programme,
    opens(level(0.25, 4, 44_100), level(0.125, 4, 32_000, 2)),
  );
  const at = RATE * 1.5;
  expect(left[at]).toBeCloseTo(0.375, 5);
  expect(right[at]).toBeCloseTo(0.5, 5);
  expect(left[RATE * 2.5]).toBeCloseTo(0.125, 5);
});

test('a range is what the whole has there, to the sample', async () => {
  const ramp = {
    sampleRate: RATE,
    async *chunks() {
      await Promise.resolve();
      yield [Float32Array.from({ length: 4 * RATE }, (_, at) => at / (4 * RATE))];
    },
  };
  const programme = laid([{ at: s(0.5), fadeIn: s(1) }]);
  const whole = await mixed(programme, opens(ramp));
  const part = await mixed(programme, opens(ramp), [1.2, 3.7]);
  expect(part.left).toEqual(whole.left.slice(1.2 * RATE, 3.7 * RATE));
});

test('a sound that ends before it should is silent from there on', async () => {
  const { left } = await mixed(laid([{ to: s(4) }]), opens(level(0.5, 1)));
  expect(left[RATE - 1]).toBe(0.5);
  expect(left[RATE]).toBe(0);
});
