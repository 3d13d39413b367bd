import { HARMONIES_A_SECOND, HARMONY, HarmonyListener, NAMES } from './harmony.ts';

const RATE = 16_000;
/** The numbers of a frame in the middle of a second of tones. */
function frameOf(...hertz: readonly number[]): Uint8Array {
  const samples = Float32Array.from({ length: RATE }, (_, at) =>
    hertz.reduce((sum, each) => sum + 0.2 * Math.sin((2 * Math.PI * each * at) / RATE), 0),
  );
  const listener = new HarmonyListener(RATE);
  listener.push(samples);
  const all = listener.all();
  expect(all.length / HARMONY).toBe(Math.floor((1 - 0.256) * HARMONIES_A_SECOND) + 1);
  return all.subarray(5 * HARMONY, 6 * HARMONY);
}
const struck = (frame: Uint8Array) => [...frame.keys()].filter((at) => (frame[at] ?? 0) > 20);

describe('harmony', () => {
  it('names pitches in two registers, wherever they lie between the bins', () => {
    // Counted from A: A3 and E3 in the low one, C#5 in the high one.
    expect(struck(frameOf(220, 164.81, 554.37))).toEqual([0, 7, NAMES + 4]);
    expect(struck(frameOf(223, 880))).toEqual([0, NAMES]);
  });

  it('is nothing in silence', () => {
    expect(struck(frameOf())).toEqual([]);
  });
});
