import { readCuePoints } from './readCuePoints.ts';
import { PcmWriter, wavFrame } from './writeWav.ts';

const FORMAT = { sampleRate: 48_000, channels: 2, bits: 16 as const, length: 3 };
const POINTS = [
  { sample: 0, name: 'Bell' },
  { sample: 48_000, name: '' },
  { sample: 96_001, name: 'Tide' },
];

const joined = (...parts: Uint8Array[]) => Uint8Array.from(parts.flatMap((part) => [...part]));
const readAt = (bytes: Uint8Array) => (from: number, to: number) =>
  Promise.resolve(bytes.subarray(from, to));

test('cue points are read back with their names and samples', async () => {
  const { head, tail } = wavFrame(FORMAT, POINTS);
  const bytes = joined(head, new Uint8Array(12), tail);
  expect(new DataView(bytes.buffer).getUint32(4, true)).toBe(bytes.length - 8);
  const found = await readCuePoints(readAt(bytes), bytes.length);
  expect(found.map(({ start, text }) => [Math.round(start * 48_000), text])).toEqual([
    [0, 'Bell'],
    [48_000, ''],
    [96_001, 'Tide'],
  ]);
});

test('over 4 GiB it is an RF64 file, whose cue points are found too', async () => {
  const length = 800_000_000;
  const { head } = wavFrame({ ...FORMAT, bits: 24, length }, POINTS);
  expect(new TextDecoder().decode(head.subarray(0, 4))).toBe('RF64');
  const view = new DataView(head.buffer);
  expect(view.getBigUint64(20, true)).toBe(BigInt(head.length - 8 + length * 6));
  expect(view.getBigUint64(28, true)).toBe(BigInt(length * 6));
  const found = await readCuePoints(readAt(head), head.length + length * 6);
  expect(found).toHaveLength(3);
});

test('samples of 24 bits are whole steps, and full scale is not passed', () => {
  const bytes = new PcmWriter(24).bytes([Float32Array.of(0.5, 2, -2, -0.25)]);
  const value = (at: number) =>
    (((bytes[at * 3 + 2] as number) << 24) >> 8) |
    ((bytes[at * 3 + 1] as number) << 8) |
    (bytes[at * 3] as number);
  expect([0, 1, 2, 3].map(value)).toEqual([2 ** 22, 2 ** 23 - 1, -(2 ** 23), -(2 ** 21)]);
});

test('16 bits keep on average what lies between two steps', () => {
  const level = 0.3 / 2 ** 15;
  const bytes = new PcmWriter(16).bytes([new Float32Array(40_000).fill(level)]);
  const values = new Int16Array(bytes.buffer);
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  expect(mean).toBeCloseTo(0.3, 1);
});
