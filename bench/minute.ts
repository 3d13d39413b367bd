/** A minute of drums with speech over them and some hiss: what the benchmarks listen to. */
import { addHiss, drumKit } from '@cadence/core/listen/sounds.samples.ts';
import { spokenAt } from '@cadence/core/listen/speech/spoken.samples.ts';

/** @param rate  in samples a second */
export function minute(rate: number): Float32Array {
  const { samples } = drumKit(rate, { seconds: 60, bpm: 108, beats: 4 });
  const voice = spokenAt(rate);
  for (let at = 0; at < samples.length; at++)
    samples[at] = (samples[at] as number) * 0.3 + (voice[at % (2 * voice.length)] ?? 0) * 0.5;
  addHiss(samples, 0.002);
  return samples;
}
