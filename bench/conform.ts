/**
 * How well times are carried to a sound that was cut anew: `npx tsx bench/conform.ts SOUND …`.
 *
 * From each sound three pieces are taken out and one is moved, at random places; the result is made quieter, coded anew
 * at another rate (needs ffmpeg) and compared. Times all along the sound are carried; those of what stayed must be
 * where they belong, those of what was taken out must be nowhere.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { carried, carrying } from '@cadence/core/conform/carrying.ts';
import { fromSeconds, toSeconds } from '@cadence/core/time/ticks.ts';
import { VoiceListener } from '@cadence/core/weave/voiceListener.ts';
import { openSound } from '@cadence/node/sound.ts';

const bandsOf = async (path: string) => {
  const sound = await openSound(path);
  const voice = new VoiceListener(sound.sampleRate);
  let samples = 0;
  for await (const channels of sound.chunks()) {
    voice.push(channels);
    samples += channels[0]?.length ?? 0;
  }
  return { bands: voice.finish(), duration: samples / sound.sampleRate };
};

/** A repeatable stream of numbers from 0 to 1 (Park and Miller). */
function numbers(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

/** Which stretches of the sound the new one is made of, in seconds, in its order. */
function cutList(duration: number, next: () => number): [number, number][] {
  const edges = Array.from({ length: 8 }, () => duration * (0.03 + 0.94 * next())).sort(
    (a, b) => a - b,
  );
  const all = [0, ...edges, duration];
  const parts = all.slice(1).map((end, at): [number, number] => [all[at] as number, end]);
  const stay = parts.filter((_, at) => at !== 1 && at !== 4 && at !== 6);
  const [moved] = stay.splice(2, 1) as [[number, number]];
  stay.splice(4, 0, moved);
  return stay;
}

/** Coded anew in several ways. */
const WAYS: readonly (readonly [name: string, args: readonly string[]])[] = [
  ['flac', ['-c:a', 'flac']],
  ['mp3', ['-c:a', 'libmp3lame', '-b:a', '96k', '-ar', '44100']],
  ['opus', ['-c:a', 'libopus', '-b:a', '48k']],
];

const folder = mkdtempSync(join(tmpdir(), 'conform-'));
for (const [number, path] of process.argv.slice(2).entries()) {
  const old = await bandsOf(path);
  for (const [way, args] of WAYS) {
    const list = cutList(old.duration, numbers(17 + 31 * number + way.length * 7));
    const made = join(folder, `made.${way}`);
    const filter =
      list
        .map(
          ([start, end], at) =>
            `[0:a]atrim=${String(start)}:${String(end)},asetpts=N/SR/TB[p${String(at)}];`,
        )
        .join('') +
      `${list.map((_, at) => `[p${String(at)}]`).join('')}concat=n=${String(list.length)}:v=0:a=1,volume=-4dB[out]`;
    const run = spawnSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      path,
      '-filter_complex',
      filter,
      '-map',
      '[out]',
      ...args,
      made,
    ]);
    if (run.status !== 0 || statSync(made).size === 0) throw new Error(String(run.stderr));
    const fresh = await bandsOf(made);
    const began = performance.now();
    const map = carrying(old.bands, fresh.bands);
    const took = performance.now() - began;
    let [stayed, within, gone, calledGone] = [0, 0, 0, 0];
    const errors: number[] = [];
    for (let time = 0.05; time < old.duration; time += 0.05) {
      let at = 0;
      const place = list.find(([start, end]) => {
        if (time >= start && time < end) return true;
        at += end - start;
        return false;
      });
      const found = carried(map, fromSeconds(time), 'start');
      if (!place) {
        gone++;
        if (!found) calledGone++;
        continue;
      }
      stayed++;
      const error = found ? Math.abs(toSeconds(found.time) - (at + time - place[0])) : Infinity;
      if (error <= 0.04) within++;
      errors.push(error);
    }
    errors.sort((a, b) => a - b);
    console.log(
      `${basename(path).padEnd(22)} ${way.padEnd(5)} within a frame of 40 ms ${((100 * within) / stayed).toFixed(1)} % of ${String(stayed)}, ` +
        `median ${(1000 * (errors[errors.length >> 1] ?? Infinity)).toFixed(1)} ms, ` +
        `taken out and called so ${((100 * calledGone) / Math.max(1, gone)).toFixed(1)} % of ${String(gone)}; ${(took / 1000).toFixed(2)} s`,
    );
  }
}
rmSync(folder, { recursive: true });
