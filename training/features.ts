/**
 * What a network is shown of sounds: `npx tsx training/features.ts pulse|voice FOLDER OUT`.
 *
 * For each sound of FOLDER, its inputs step by step as 32-bit floats in `OUT/NAME.f32`, made by the very
 * code that listens in the application. Sounds done already are left out.
 */
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join, parse } from 'node:path';
import { openSound } from '@cadence/node/sound.ts';
import { Decimator } from '@cadence/core/listen/signal/decimate.ts';
import { mix } from '@cadence/core/listen/signal/mix.ts';
import { PULSE_INPUTS, PulseInputs } from '@cadence/core/listen/pulse/pulseSteps.ts';
import { VOICE_INPUTS, VoiceInputs } from '@cadence/core/listen/speech/voiceSteps.ts';

const [what = '', folder = '', out = ''] = process.argv.slice(2);
mkdirSync(out, { recursive: true });

type Fill = (into: Float32Array, from: number) => void;
const widths: Readonly<Record<string, number>> = { pulse: PULSE_INPUTS, voice: VOICE_INPUTS };
const width = widths[what];
if (width === undefined) throw new Error('Say pulse or voice first.');

for (const name of readdirSync(folder).sort()) {
  const to = join(out, `${parse(name).name}.f32`);
  if (!/^[^.]+\.(wav|flac)$/.test(name) || existsSync(to)) continue;
  const sound = await openSound(join(folder, name));
  const decimator = new Decimator(sound.sampleRate);
  const steps: Float32Array[] = [];
  const keep = (fill: Fill) => {
    const step = new Float32Array(width);
    fill(step, 0);
    steps.push(step);
  };
  const pulse = new PulseInputs(decimator.rate);
  const voice = new VoiceInputs(decimator.rate);
  for await (const channels of sound.chunks()) {
    const mono = decimator.push(mix(channels));
    if (what === 'pulse') pulse.push(mono, () => undefined, keep);
    else voice.push(mono, keep);
  }
  const all = new Float32Array(steps.length * width);
  steps.forEach((step, at) => all.set(step, at * width));
  writeFileSync(to, new Uint8Array(all.buffer));
}
