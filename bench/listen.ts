/**
 * How fast and how well the program listens: `npx tsx bench/listen.ts [FOLDER …]`.
 *
 * Speed and memory: an hour of made-up 48 kHz mono sound through all analyses, in a process of its own.
 * Accuracy: the sounds with known truth in each FOLDER (`NAME.wav` or `NAME.flac` beside `NAME.truth.json`)
 * through the command line, judged by the `score.py` that lies beside them; and the same files through two
 * general-purpose packages, where they are there (`peers.mjs`). Says so where something is missing.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Listener } from '@cadence/core/listen/listening.ts';
import { findPulse } from '@cadence/core/listen/pulse/pulse.ts';
import { findPieces } from '@cadence/core/listen/speech/speech.ts';
import { minute } from './minute.ts';

const RATE = 48_000;
const here = (name: string) => fileURLToPath(new URL(name, import.meta.url));

async function speed(): Promise<void> {
  const samples = minute(RATE);
  const begun = performance.now();
  const listener = new Listener(RATE);
  for (let count = 0; count < 60; count++)
    for (let at = 0; at < samples.length; at += 4096)
      await listener.push([samples.subarray(at, at + 4096)]);
  const heard = await listener.finish();
  const pieces = findPieces(heard.speech);
  const { beats } = findPulse(heard.pulse);
  const seconds = (performance.now() - begun) / 1000;
  const memory = process.resourceUsage().maxRSS / 1000;
  console.log(
    `an hour at 48 kHz: ${seconds.toFixed(1)} s (${(3600 / seconds).toFixed(0)} times real time), ` +
      `${memory.toFixed(0)} MB at most; ${pieces.length} pieces, ${beats.length} beats, ` +
      `${heard.hits.length} hits`,
  );
}

type Score = Readonly<Record<string, unknown>>;

function scored(folder: string, result: string, truth: string): Score {
  const { stdout, status } = spawnSync('python3', [join(folder, 'score.py'), result, truth], {
    encoding: 'utf8',
  });
  if (status !== 0) throw new Error('score.py could not be run: is there a python3?');
  return JSON.parse(stdout) as Score;
}

const figure = (value: unknown) => (typeof value === 'number' ? value.toFixed(3) : '-');

function tell(name: string, who: string, kind: string, score: Score): void {
  const pieces = score.pieces as Score | undefined;
  const parts: [string, unknown][] = pieces
    ? [['F1', pieces.f1]]
    : kind === 'hits'
      ? [
          ['F', score.f],
          ['end', score.endError],
        ]
      : [
          ['F', score.f],
          ['F2', score.f2],
          ['bars', score.bars],
          ['tempo', score.tempoError],
        ];
  const metre = kind === 'beats' && who === 'ours' ? `metre ${String(score.metre)}` : '';
  console.log(
    name.padEnd(22),
    who.padEnd(9),
    ...parts.map(([what, value]) => `${what} ${figure(value)}`),
    metre,
  );
}

function accuracy(folder: string, scratch: string): void {
  const totals = new Map<string, number[]>();
  const count = (key: string, value: unknown) =>
    totals.set(key, [...(totals.get(key) ?? []), typeof value === 'number' ? value : 0]);
  const pooled = [0, 0, 0];
  for (const name of readdirSync(folder)
    .filter((file) => file.endsWith('.truth.json'))
    .sort()) {
    const base = join(folder, name.replace('.truth.json', ''));
    const file = ['.wav', '.flac'].map((end) => base + end).find(existsSync);
    const truth = JSON.parse(readFileSync(join(folder, name), 'utf8')) as {
      kind: string;
      drums?: boolean;
    };
    if (file === undefined) continue;
    const title = name.replace('.truth.json', '');
    const result = join(scratch, 'result.json');
    const cli = spawnSync(
      'npx',
      ['tsx', here('../packages/cli/src/run.ts'), 'listen', file, '--json'],
      {
        encoding: 'utf8',
        maxBuffer: 2 ** 28,
      },
    );
    writeFileSync(result, cli.stdout);
    const score = scored(folder, result, join(folder, name));
    tell(title, 'ours', truth.kind, score);
    const pieces = score.pieces as Record<string, number> | undefined;
    if (pieces)
      ['right', 'false', 'missed'].forEach(
        (part, at) => (pooled[at] = (pooled[at] ?? 0) + (pieces[part] ?? 0)),
      );
    else
      count(
        `ours ${truth.kind}${truth.drums === undefined ? '' : truth.drums ? ', drums' : ', no drums'}`,
        score.f,
      );
    if (pieces) continue;
    for (const peer of ['aubio', 'essentia']) {
      const wav = join(scratch, 'sound.wav');
      const made = spawnSync('ffmpeg', [
        '-v',
        'error',
        '-y',
        '-i',
        file,
        '-ac',
        '1',
        '-ar',
        '44100',
        wav,
      ]);
      const heard = spawnSync('node', [here('./peers.mjs'), peer, wav], {
        encoding: 'utf8',
        maxBuffer: 2 ** 28,
      });
      if (made.status !== 0 || heard.status !== 0) {
        console.log(title.padEnd(22), peer.padEnd(9), 'is not here');
        continue;
      }
      writeFileSync(result, heard.stdout.slice(heard.stdout.indexOf('{"pulse"')));
      const other = scored(folder, result, join(folder, name));
      tell(title, peer, truth.kind, other);
      count(
        `${peer} ${truth.kind}${truth.drums === undefined ? '' : truth.drums ? ', drums' : ', no drums'}`,
        other.f,
      );
    }
  }
  for (const [key, values] of [...totals].sort())
    console.log(
      `mean of ${key}: F ${(values.reduce((a, b) => a + b, 0) / values.length).toFixed(3)}`,
    );
  const [right = 0, wrong = 0, missed = 0] = pooled;
  if (right > 0)
    console.log(`pieces, pooled: F1 ${((2 * right) / (2 * right + wrong + missed)).toFixed(3)}`);
}

const folders = process.argv.slice(2).filter((folder) => existsSync(folder));
await speed();
const scratch = mkdtempSync(join(tmpdir(), 'listen-'));
for (const folder of folders) accuracy(folder, scratch);
rmSync(scratch, { recursive: true });
if (folders.length === 0)
  console.log('No folder of sounds with known truth was given, so accuracy was not measured.');
