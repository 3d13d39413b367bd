/**
 * Makes the sound and the film of the demo: `npx tsx demo/makeFerry.ts`, then `npx tsx demo/hear.ts`.
 *
 * Needs espeak-ng and ffmpeg (Debian's packages of these names). What it makes is committed, so nobody
 * needs to run it but to change the demo.
 */
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createCanvas } from '@napi-rs/canvas';
import { drawRiver, FILM } from './ferry/river.ts';
import { NARRATION } from './ferry/script.ts';

const RATE = 22_050;
const folder = fileURLToPath(new URL('./ferry/', import.meta.url));
const scratch = mkdtempSync(join(tmpdir(), 'ferry-'));

function run(command: string, args: string[]): void {
  const { status, stderr } = spawnSync(command, args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${command} failed: ${stderr}`);
}

/** One phrase as samples, without the silence that the synthesiser leaves around it. */
function speak(phrase: string): Float32Array {
  const file = join(scratch, 'phrase.wav');
  run('espeak-ng', [
    '-v',
    'en-gb-scotland+m3',
    '-s',
    '148',
    '-p',
    '38',
    '-w',
    file,
    phrase.replace('|', ' '),
  ]);
  const bytes = readFileSync(file);
  const samples = new Float32Array((bytes.length - 44) / 2);
  samples.forEach((_, at) => (samples[at] = bytes.readInt16LE(44 + 2 * at) / 32_768));
  const loud = (sample: number) => Math.abs(sample) > 0.004;
  const first = samples.findIndex(loud);
  const last = samples.findLastIndex(loud);
  return samples.slice(first, last + 1);
}

/** Noise that is the same each time. */
function noise(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) | 0;
    return state / 2_147_483_648;
  };
}

/** Light room tone: soft low noise with the slow breathing of water outside. */
function addRoom(samples: Float32Array): void {
  const hiss = noise(11);
  let low = 0;
  samples.forEach((sample, at) => {
    low += 0.06 * (hiss() - low);
    const swell = 1 + 0.35 * Math.sin((2 * Math.PI * at) / RATE / 7.3);
    samples[at] = 0.62 * sample + 0.004 * swell * low + 0.0006 * hiss();
  });
}

function writeWav(file: string, samples: Float32Array): void {
  const bytes = Buffer.alloc(44 + 2 * samples.length);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + 2 * samples.length, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  [1, 1].forEach((value, at) => bytes.writeUInt16LE(value, 20 + 2 * at));
  bytes.writeUInt32LE(RATE, 24);
  bytes.writeUInt32LE(2 * RATE, 28);
  [2, 16].forEach((value, at) => bytes.writeUInt16LE(value, 32 + 2 * at));
  bytes.write('data', 36);
  bytes.writeUInt32LE(2 * samples.length, 40);
  samples.forEach((sample, at) =>
    bytes.writeInt16LE(Math.round(Math.max(-1, Math.min(1, sample)) * 32_767), 44 + 2 * at),
  );
  writeFileSync(file, bytes);
}

function makeNarration(): { wav: string; seconds: number } {
  let time = 2.4;
  const spoken = NARRATION.map(([phrase, pause]) => {
    const samples = speak(phrase);
    const placed = { phrase, samples, start: time, end: time + samples.length / RATE };
    time = placed.end + pause;
    return placed;
  });
  const seconds = Math.ceil((time + 4) * 25) / 25;
  const whole = new Float32Array(Math.round(seconds * RATE));
  for (const { samples, start } of spoken) whole.set(samples, Math.round(start * RATE));
  addRoom(whole);
  const wav = join(scratch, 'narration.wav');
  writeWav(wav, whole);
  const round = (value: number) => Number(value.toFixed(4));
  const phrases = spoken.map(({ phrase, start, end }) => ({
    text: phrase.replace('|', '\n'),
    start: round(start),
    end: round(end),
  }));
  writeFileSync(join(folder, 'phrases.json'), `${JSON.stringify({ seconds, phrases }, null, 2)}\n`);
  run('ffmpeg', [
    '-y',
    '-i',
    wav,
    '-c:a',
    'libopus',
    '-b:a',
    '40k',
    join(folder, 'narration-hesper.opus'),
  ]);
  return { wav, seconds };
}

async function makeFilm(wav: string, seconds: number): Promise<void> {
  const { width, height, rate } = FILM;
  const film = join(folder, 'skerrymoor-cut3.mp4');
  const encoder = spawn(
    'ffmpeg',
    [
      ...[
        '-y',
        '-f',
        'rawvideo',
        '-pix_fmt',
        'rgba',
        '-s',
        `${width}x${height}`,
        '-r',
        String(rate),
        '-i',
        '-',
      ],
      ...['-i', wav, '-c:v', 'libx264', '-preset', 'slow', '-crf', '27', '-tune', 'animation'],
      ...['-pix_fmt', 'yuv420p', '-g', '50', '-c:a', 'aac', '-b:a', '96k', '-ar', '48000'],
      ...['-t', String(seconds), '-movflags', '+faststart', film],
    ],
    { stdio: ['pipe', 'ignore', 'ignore'] },
  );
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  for (let frame = 0; frame < Math.round(seconds * rate); frame++) {
    drawRiver(context as unknown as CanvasRenderingContext2D, frame / rate, seconds);
    const pixels = Buffer.from(context.getImageData(0, 0, width, height).data.buffer);
    if (!encoder.stdin.write(pixels))
      await new Promise((done) => encoder.stdin.once('drain', done));
  }
  encoder.stdin.end();
  const status = await new Promise((done) => encoder.on('close', done));
  if (status !== 0) throw new Error('ffmpeg could not encode the film.');
  drawRiver(context as unknown as CanvasRenderingContext2D, seconds / 10, seconds);
  const small = createCanvas(320, 180);
  small.getContext('2d').drawImage(canvas, 0, 0, 320, 180);
  writeFileSync(join(folder, 'skerrymoor-cut3.still.webp'), await small.encode('webp', 80));
}

const { wav, seconds } = makeNarration();
await makeFilm(wav, seconds);
rmSync(scratch, { recursive: true });
