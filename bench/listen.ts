/**
 * How fast and how well the program listens: `npx tsx bench/listen.ts [FOLDER]`.
 *
 * Speed: an hour of made-up 48 kHz mono sound through peaks, pieces and loudness together. Accuracy: the
 * sounds with known truth in FOLDER (`NAME.wav` or `NAME.flac` beside `NAME.truth.json`), the F1 of
 * edges within 100 ms, starts and ends apart, pooled. Says so where there is no such folder.
 */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { openSound } from '@cadence/cli/sound.ts';
import { Listener } from '@cadence/core/listen/listening.ts';
import { findPieces } from '@cadence/core/listen/speech.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';

const RATE = 48_000;
const TOLERANCE = 0.1;

function speed(): void {
  const minute = new Float32Array(RATE * 60);
  let state = 1;
  minute.forEach((_, at) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) | 0;
    const time = at / RATE;
    const voice =
      Math.sin(time * 1.1) > -0.3 ? 0.2 * Math.sin(time * 900) * Math.sin(time * 25) : 0;
    minute[at] = voice + (0.01 * state) / 2_147_483_648;
  });
  const begun = performance.now();
  const listener = new Listener(RATE);
  for (let count = 0; count < 60; count++)
    for (let at = 0; at < minute.length; at += 4096)
      listener.push([minute.subarray(at, at + 4096)]);
  const heard = listener.finish();
  const pieces = findPieces(heard.speech);
  const seconds = (performance.now() - begun) / 1000;
  const memory = process.memoryUsage().rss / 1e6;
  console.log(
    `an hour at 48 kHz: ${seconds.toFixed(1)} s (${(3600 / seconds).toFixed(0)} times real time), ` +
      `${pieces.length} pieces, ${memory.toFixed(0)} MB`,
  );
}

interface Truth {
  readonly pieces: readonly { start: number; end: number; soft?: string }[];
  readonly shortPauses?: readonly { start: number; end: number }[];
}

/** Matches edges one to one, nearest first; gives how many were right, false and missed. */
function score(
  truth: Truth,
  found: readonly { start: number; end: number }[],
): [number, number, number] {
  let [right, wrong, missed] = [0, 0, 0];
  for (const side of ['start', 'end'] as const) {
    const pairs = truth.pieces
      .flatMap((piece, t) =>
        found.map((each, f) => ({ t, f, off: Math.abs(piece[side] - each[side]) })),
      )
      .filter(({ off }) => off <= TOLERANCE)
      .sort((a, b) => a.off - b.off);
    const [matchedTruth, matchedFound] = [new Set<number>(), new Set<number>()];
    for (const { t, f } of pairs)
      if (!matchedTruth.has(t) && !matchedFound.has(f)) {
        matchedTruth.add(t);
        matchedFound.add(f);
      }
    right += matchedTruth.size;
    truth.pieces.forEach((piece, t) => {
      if (!matchedTruth.has(t) && !piece.soft?.includes(side)) missed++;
    });
    found.forEach((each, f) => {
      const inPause = truth.shortPauses?.some(
        (pause) => each[side] > pause.start - TOLERANCE && each[side] < pause.end + TOLERANCE,
      );
      if (!matchedFound.has(f) && !inPause) wrong++;
    });
  }
  return [right, wrong, missed];
}

async function accuracy(folder: string): Promise<void> {
  const totals = [0, 0, 0];
  const f1 = ([right = 0, wrong = 0, missed = 0]: readonly number[]) =>
    (2 * right) / (2 * right + wrong + missed);
  for (const name of readdirSync(folder)
    .filter((file) => file.endsWith('.truth.json'))
    .sort()) {
    const base = join(folder, name.replace('.truth.json', ''));
    const file = ['.wav', '.flac'].map((end) => base + end).find(existsSync);
    const truth = JSON.parse(readFileSync(join(folder, name), 'utf8')) as Truth;
    if (file === undefined || !truth.pieces) continue;
    const sound = await openSound(file);
    const listener = new Listener(sound.sampleRate);
    for await (const channels of sound.chunks()) listener.push(channels);
    const found = findPieces(listener.finish().speech).map((piece) => ({
      start: toSeconds(piece.start) as number,
      end: toSeconds(piece.end) as number,
    }));
    const counts = score(truth, found);
    counts.forEach((count, at) => (totals[at] = (totals[at] ?? 0) + count));
    console.log(
      `${name.replace('.truth.json', '').padEnd(14)} F1 ${f1(counts).toFixed(3)}  (right, false, missed: ${counts.join(', ')})`,
    );
  }
  console.log(`pooled         F1 ${f1(totals).toFixed(3)}`);
}

speed();
const folder = process.argv[2];
if (folder !== undefined && existsSync(folder)) await accuracy(folder);
else console.log('No folder of sounds with known truth was given, so accuracy was not measured.');
