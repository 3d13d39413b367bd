/**
 * What the application would hear in the demo's sounds, and when each word of the narration is said, computed as
 * it would and kept beside them: `npx tsx demo/hear.ts`. To be run when what is kept has changed. Needs ffmpeg.
 */
import { spawnSync } from 'node:child_process';
import { readdirSync, writeFileSync } from 'node:fs';
import { join, parse } from 'node:path';
import { fileURLToPath } from 'node:url';
import { packHeard } from '@cadence/core/listen/heardFile.ts';
import { Listener } from '@cadence/core/listen/listening.ts';
import { lineStarts } from '@cadence/core/text/sentences.ts';
import { wordsOf } from '@cadence/core/text/words.ts';
import { weaveSound } from '@cadence/node/weave.ts';
import { NARRATION } from './ferry/script.ts';
import { LINES } from './slack/song.ts';

const RATE = 48_000;

for (const part of ['ferry', 'slack']) {
  const folder = fileURLToPath(new URL(`./${part}/`, import.meta.url));
  for (const file of readdirSync(folder).filter((name) => /\.(mp4|opus)$/.test(name))) {
    const format = ['-f', 'f32le', '-ac', '1', '-ar', String(RATE)];
    const { stdout, status, stderr } = spawnSync(
      'ffmpeg',
      ['-v', 'error', '-i', join(folder, file), ...format, '-'],
      { maxBuffer: 2 ** 30 },
    );
    if (status !== 0) throw new Error(`ffmpeg failed: ${stderr.toString()}`);
    const samples = new Float32Array(stdout.buffer, stdout.byteOffset, stdout.length >> 2);
    const listener = new Listener(RATE);
    for (let at = 0; at < samples.length; at += 8192)
      await listener.push([samples.subarray(at, at + 8192)]);
    writeFileSync(join(folder, `${parse(file).name}.heard`), packHeard(await listener.finish()));
  }
}

const tokens = NARRATION.flatMap(([phrase]) =>
  wordsOf(phrase.replace('|', '\n')).map(({ text }) => text),
);
const lyrics = LINES.join('\n');
const slack = fileURLToPath(new URL('./slack/slack-water.opus', import.meta.url));
const song = await weaveSound(slack, 'en', [
  { words: wordsOf(lyrics).map(({ text }) => text), lines: lineStarts(lyrics) },
]);
writeFileSync(
  fileURLToPath(new URL('./slack/woven.json', import.meta.url)),
  `${JSON.stringify({ woven: song.woven[0], repeats: song.repeats[0] })}\n`,
);
const narration = fileURLToPath(new URL('./ferry/narration-hesper.opus', import.meta.url));
const { woven } = await weaveSound(narration, 'en-GB', [{ words: tokens }]);
writeFileSync(
  fileURLToPath(new URL('./ferry/woven.json', import.meta.url)),
  `${JSON.stringify(woven[0])}\n`,
);
