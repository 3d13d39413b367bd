/**
 * What a network is shown of sounds: `npx tsx training/features.ts pulse|drums|bars|voice|song FOLDER OUT`.
 *
 * For each sound of FOLDER, its inputs step by step as 32-bit floats in `OUT/NAME.f32`, made by the very
 * code that listens in the application. Sounds done already are left out. Of songs also what share the voice has in each
 * band of the acoustic model, from `FOLDER/NAME.voice.wav`, in `OUT/NAME.mask`: a byte for each band and step. Of bars
 * the inputs are those of the beats that `FOLDER/NAME.truth.json` has.
 */
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, parse } from 'node:path';
import { openSound } from '@cadence/node/sound.ts';
import { Decimator } from '@cadence/core/listen/signal/decimate.ts';
import { GrowingBytes } from '@cadence/core/listen/signal/growing.ts';
import { HighLevels } from '@cadence/core/listen/signal/highLevels.ts';
import { HitLevelListener } from '@cadence/core/listen/hits/hitLevels.ts';
import { DRUM_INPUTS, fillDrumLevels } from '@cadence/core/listen/pulse/drumInputs.ts';
import { mix } from '@cadence/core/listen/signal/mix.ts';
import { BAR_INPUTS, barInputs } from '@cadence/core/listen/pulse/barInputs.ts';
import { Listener } from '@cadence/core/listen/listening.ts';
import { PULSE_INPUTS, PulseInputs } from '@cadence/core/listen/pulse/pulseSteps.ts';
import { VOICE_INPUTS, VoiceInputs } from '@cadence/core/listen/speech/voiceSteps.ts';
import { FILTERS, type Bands } from '@cadence/core/weave/cepstra.ts';
import { FRAMES_A_STEP, SONG_INPUTS, songInputs } from '@cadence/core/weave/songBands.ts';
import { bandsOf } from './bands.ts';

const [what = '', folder = '', out = ''] = process.argv.slice(2);
mkdirSync(out, { recursive: true });

type Fill = (into: Float32Array, from: number) => void;
const widths: Readonly<Record<string, number>> = {
  pulse: PULSE_INPUTS,
  drums: DRUM_INPUTS,
  bars: BAR_INPUTS,
  voice: VOICE_INPUTS,
  song: SONG_INPUTS,
};
const width = widths[what];
if (width === undefined) throw new Error('Say pulse, drums, bars, voice or song first.');

const write = (path: string, all: Float32Array | Uint8Array) => {
  writeFileSync(path, new Uint8Array(all.buffer));
};

/** Of each band and step, what share of the power is the voice's, from 0 to 255. */
function shares(mix: Bands, voice: Bands): Uint8Array {
  const steps = Math.floor(mix.levels.length / FILTERS / FRAMES_A_STEP);
  return Uint8Array.from({ length: steps * FILTERS }, (_, at) => {
    const [step, band] = [Math.floor(at / FILTERS), at % FILTERS];
    let [own, all] = [0, 0];
    for (let frame = step * FRAMES_A_STEP; frame < (step + 1) * FRAMES_A_STEP; frame++) {
      own += Math.exp(voice.levels[frame * FILTERS + band] ?? 0);
      all += Math.exp(mix.levels[frame * FILTERS + band] ?? 0);
    }
    return Math.round(255 * Math.min(1, own / all));
  });
}

for (const name of readdirSync(folder).sort()) {
  const to = join(out, `${parse(name).name}.f32`);
  if (!/^[^.]+\.(wav|flac)$/.test(name) || existsSync(to)) continue;
  if (what === 'song') {
    const base = parse(name).name;
    if (base.endsWith('.voice')) continue;
    const bands = await bandsOf(join(folder, name));
    if (!bands.song) continue;
    write(to, songInputs(bands.song));
    const voice = await bandsOf(join(folder, `${base}.voice.wav`));
    write(join(out, `${base}.mask`), shares(bands, voice));
    continue;
  }
  const sound = await openSound(join(folder, name));
  const decimator = new Decimator(sound.sampleRate);
  const steps: Float32Array[] = [];
  const keep = (fill: Fill) => {
    const step = new Float32Array(width);
    fill(step, 0);
    steps.push(step);
  };
  if (what === 'bars') {
    const listener = new Listener(sound.sampleRate, ['pulse']);
    for await (const channels of sound.chunks()) await listener.push(channels);
    const evidence = (await listener.finish()).pulse;
    const truth = JSON.parse(
      readFileSync(join(folder, `${parse(name).name}.truth.json`), 'utf8'),
    ) as { beats: readonly number[] };
    write(to, barInputs(evidence, truth.beats));
    continue;
  }
  const pulse = new PulseInputs(decimator.rate);
  const voice = new VoiceInputs(decimator.rate);
  const hits = new HitLevelListener(decimator.rate);
  const highLevels = new HighLevels(sound.sampleRate);
  const high = new GrowingBytes();
  for await (const channels of sound.chunks()) {
    const whole = mix(channels);
    const mono = decimator.push(whole);
    if (what === 'voice') {
      voice.push(mono, keep);
      continue;
    }
    hits.push(mono);
    for (const level of highLevels.push(whole)) high.push(level);
    pulse.push(
      mono,
      () => undefined,
      (fill) =>
        keep((into, from) => {
          fill(into, from);
          if (what === 'drums') fillDrumLevels(into, from + PULSE_INPUTS, steps.length, hits, high);
        }),
    );
  }
  const all = new Float32Array(steps.length * width);
  steps.forEach((step, at) => all.set(step, at * width));
  write(to, all);
}
