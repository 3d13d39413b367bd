/**
 * Makes the recording of typing of the demo: `npx tsx demo/makeKeys.ts`, then `npx tsx demo/hear.ts`. Needs ffmpeg. What
 * it makes is committed.
 *
 * A key is struck: a burst of noise, and three tones of plastic and desk that die away. It is let go: the same, weaker.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PcmWriter, wavFrame } from '@cadence/core/formats/wav/writeWav.ts';
import { chance } from '@cadence/core/movement/random.ts';
import { APART, ENTER, SPACE, STROKES, strokeAt } from './ferry/keys.ts';

const RATE = 48_000;
const next = chance(1907);
const about = (value: number, by: number) => value * (1 + by * (2 * next() - 1));

interface Voice {
  /** In hertz, and how fast each dies away, in seconds. */
  readonly tones: readonly (readonly [hertz: number, dies: number, level: number])[];
  readonly noise: number;
}
const LETTER: Voice = {
  tones: [
    [210, 0.028, 0.5],
    [1450, 0.011, 0.35],
    [3900, 0.005, 0.3],
  ],
  noise: 0.8,
};
const BAR: Voice = {
  tones: [
    [120, 0.05, 0.7],
    [640, 0.03, 0.4],
    [2300, 0.01, 0.25],
  ],
  noise: 0.6,
};
const RETURN: Voice = {
  tones: [
    [95, 0.06, 0.8],
    [880, 0.02, 0.45],
    [2900, 0.012, 0.3],
  ],
  noise: 0.9,
};

const samples = new Float32Array(Math.ceil((strokeAt(STROKES) + APART) * RATE));

function strike(at: number, voice: Voice, level: number): void {
  const from = Math.round(at * RATE);
  const tones = voice.tones.map(([hertz, dies, loud]) => ({
    turn: (2 * Math.PI * about(hertz, 0.14)) / RATE,
    dies: about(dies, 0.2) * RATE,
    loud: about(loud, 0.2),
  }));
  for (let each = 0; each < 0.25 * RATE; each++) {
    const noise = (2 * next() - 1) * voice.noise * Math.exp(-each / (0.0022 * RATE));
    const rung = tones.reduce(
      (sum, { turn, dies, loud }) => sum + loud * Math.sin(turn * each) * Math.exp(-each / dies),
      0,
    );
    const place = from + each;
    samples[place] = (samples[place] ?? 0) + level * (noise + rung);
  }
}

for (let stroke = 0; stroke < STROKES; stroke++) {
  const at = strokeAt(stroke);
  const voice = stroke === SPACE ? BAR : stroke === ENTER ? RETURN : LETTER;
  const level = about(0.3, 0.25);
  strike(at, voice, level);
  strike(at + about(0.095, 0.15), voice, level * 0.2);
}
for (let at = 0; at < samples.length; at++)
  samples[at] = (samples[at] as number) + 0.0003 * (2 * next() - 1);

const scratch = mkdtempSync(join(tmpdir(), 'keys-'));
const wav = join(scratch, 'keys.wav');
const format = { sampleRate: RATE, channels: 1, bits: 16, length: samples.length } as const;
const { head, tail } = wavFrame(format, []);
writeFileSync(wav, Buffer.concat([head, new PcmWriter(16).bytes([samples]), tail]));
const to = fileURLToPath(new URL('./ferry/keys.opus', import.meta.url));
const { status, stderr } = spawnSync(
  'ffmpeg',
  ['-y', '-v', 'error', '-i', wav, '-b:a', '96k', to],
  { encoding: 'utf8' },
);
rmSync(scratch, { recursive: true });
if (status !== 0) throw new Error(`ffmpeg failed: ${stderr}`);
