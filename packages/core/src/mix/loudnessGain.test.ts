import { loudnessGain } from './loudnessGain.ts';

const level = (integratedLufs: number | null, truePeakDb: number | null) => ({
  integratedLufs,
  truePeakDb,
  momentary: new Uint8Array(),
});

test('a sound is brought to its target by gain', () => {
  expect(loudnessGain(level(-30, -12), -23)).toEqual({ gain: 7, isHeldBack: false });
  expect(loudnessGain(level(-14, -0.2), -23)).toEqual({ gain: -9, isHeldBack: false });
});

test('peaks hold it back at 1 dB under full scale', () => {
  const { gain, isHeldBack } = loudnessGain(level(-24, -6), -14);
  expect([gain, isHeldBack]).toEqual([5, true]);
});

test('without a target it stays as it is, unless it is over full scale', () => {
  expect(loudnessGain(level(-20, -0.1)).gain).toBe(0);
  expect(loudnessGain(level(-8, 3))).toEqual({ gain: -4, isHeldBack: true });
});

test('silence stays silence', () => {
  expect(loudnessGain(level(null, null), -23).gain).toBe(0);
});
