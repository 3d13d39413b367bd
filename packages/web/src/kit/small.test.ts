import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { plural } from '@cadence/core/text/plural.ts';
import {
  formatBytes,
  formatFrame,
  formatLength,
  formatLevel,
  formatWhen,
  roundTicks,
} from '../kit/format.ts';
import { nameOfStroke } from '../kit/keyStrokes.ts';

const stroke = (
  key: string,
  held: Partial<Record<'ctrlKey' | 'altKey' | 'shiftKey' | 'metaKey', boolean>> = {},
) => nameOfStroke({ key, ctrlKey: false, altKey: false, shiftKey: false, metaKey: false, ...held });

describe('key strokes', () => {
  it.each([
    [stroke(' '), 'Space'],
    [stroke('j'), 'J'],
    [stroke('J', { shiftKey: true }), 'Shift J'],
    [stroke('ArrowLeft', { shiftKey: true, altKey: true }), 'Alt Shift Left'],
    [stroke('z', { ctrlKey: true }), 'Ctrl Z'],
    [stroke('z', { metaKey: true }), 'Ctrl Z'],
    [stroke('Z', { ctrlKey: true, shiftKey: true }), 'Ctrl Shift Z'],
    [stroke('?', { shiftKey: true }), '?'],
    [stroke('+', { shiftKey: true }), '+'],
    [stroke('='), '+'],
    [stroke('Escape'), 'Esc'],
    [stroke('Backspace'), 'Delete'],
  ])('are named %s', (name, expected) => {
    expect(name).toBe(expected);
  });
});

describe('figures', () => {
  it('say lengths as people do', () => {
    const lengths = [0.8, 42, 402, 3600, 7380].map((seconds) => formatLength(fromSeconds(seconds)));
    expect(lengths).toEqual(['0.8 s', '42 s', '6 min 42 s', '1 h 0 min', '2 h 3 min']);
  });

  it('carry their unit', () => {
    expect([300, 4_100_000, 214_000_000, 3.2e9].map(formatBytes)).toEqual([
      '1 kB',
      '4.1 MB',
      '214 MB',
      '3.2 GB',
    ]);
    expect(formatLevel(-19.44, 'LUFS')).toBe('−19.4 LUFS');
    expect(formatLevel(null, 'dB')).toBe('silent');
    expect(
      formatFrame({ width: 1920, height: 1080 }, { num: 30000, den: 1001, dropFrame: true }),
    ).toBe('1920 × 1080, 29.97 drop frames a second');
  });

  it('count one and many', () => {
    expect([plural(1, 'cue'), plural(10_000, 'cue'), plural(0, 'cue')]).toEqual([
      '1 cue',
      '10,000 cues',
      '0 cues',
    ]);
  });

  it('give the hour today and the day before', () => {
    const noon = new Date(2026, 10, 25, 12, 0).getTime();
    expect(formatWhen(noon, noon + 3_600_000)).toBe('12:00');
    expect(formatWhen(noon, noon + 3 * 86_400_000)).toBe('25 Nov');
  });
});

describe('ticks of an axis', () => {
  it.each([
    [23, 5, [0, 5, 10, 15, 20, 25]],
    [10, 5, [0, 2, 4, 6, 8, 10]],
    [104, 5, [0, 50, 100, 150]],
    [0.9, 5, [0, 0.2, 0.4, 0.6, 0.8, 1]],
  ])('up to %d are round', (top, most, ticks) => {
    expect(roundTicks(top, most).map((tick) => Math.round(tick * 1000) / 1000)).toEqual(ticks);
  });
});
