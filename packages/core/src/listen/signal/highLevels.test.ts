import { noise } from '../sounds.samples.ts';
import { HighLevels } from './highLevels.ts';

const RATE = 44_100;
const tone = (hertz: number) =>
  Float32Array.from({ length: RATE / 10 }, (_, at) => Math.sin((2 * Math.PI * hertz * at) / RATE));
/** In steps of 0.4 dB. */
const levels = (samples: Float32Array) => [...new HighLevels(RATE).push(samples)].slice(-2);

describe('the levels of what is high', () => {
  it('hear a cymbal and not a voice', () => {
    const [high = 0, highest = 0] = levels(tone(12_000));
    const [low = 0, lowest = 0] = levels(tone(300));
    expect(high - low).toBeGreaterThan(40 / 0.4);
    expect(highest - lowest).toBeGreaterThan(60 / 0.4);
  });

  it('are the same however the sound is cut, two hundred pairs a second', () => {
    const hiss = noise(3);
    const sound = Float32Array.from({ length: RATE }, () => 0.1 * hiss());
    const whole = new HighLevels(RATE).push(sound);
    const inParts = new HighLevels(RATE);
    const parts: number[] = [];
    for (let at = 0; at < sound.length; at += 777)
      parts.push(...inParts.push(sound.subarray(at, at + 777)));
    expect(parts).toEqual([...whole]);
    expect(whole).toHaveLength(400);
  });
});
