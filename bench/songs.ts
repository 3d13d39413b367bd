/**
 * How well the words of songs are woven: `npx tsx bench/songs.ts [--taps] [--wrong] [--once] [--moved] FOLDER …`.
 *
 * Each FOLDER holds songs beside their lyrics and truths, as in `../shared/sound/singing`; `training/singing.py` makes more.
 * With `--taps` ten lines are tapped, 60 ms late with 40 ms of jitter; with `--wrong` one word in ten of the lyrics is
 * another one, which is not judged; with `--once` lines that come again are written once, and may be found at any of their
 * times; with `--moved` each song is woven again at another level, sample rate and codec, and the
 * words that move by more than 50 ms are counted. Needs ffmpeg for that.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lineStarts } from '@cadence/core/text/sentences.ts';
import { wordsOf } from '@cadence/core/text/words.ts';
import { fromSeconds, toSeconds } from '@cadence/core/time/ticks.ts';
import { SURE } from '@cadence/core/weave/confidence.ts';
import type { Tap, Woven } from '@cadence/core/weave/woven.ts';
import { weaveSound } from '@cadence/node/weave.ts';

interface TruthWord {
  readonly text: string;
  readonly start: number | null;
  readonly unknown?: boolean;
}
interface TruthLine {
  readonly words: readonly [number, number];
  readonly start: number | null;
  /** The second time of a line that is sung twice and written once. */
  readonly also?: { readonly start: number };
  /** All its times, the first words of each, where `--once` has it written once. */
  readonly times?: readonly number[];
  readonly all?: readonly TruthWord[];
}
interface Truth {
  readonly ratio?: number | null;
  readonly words: readonly (TruthWord & { readonly also?: { readonly start: number } })[];
  readonly lines: readonly TruthLine[];
}

const args = process.argv.slice(2);
const has = (name: string) => args.includes(name);
const folders = args.filter((arg) => !arg.startsWith('--'));

/** Numbers between 0 and 1, the same every time. */
function chances(): () => number {
  let seed = 7;
  return () => (seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31) / 2 ** 31;
}

class Tally {
  words = 0;
  in100 = 0;
  in200 = 0;
  lines = 0;
  lines200 = 0;
  wrong = 0;
  wrongShown = 0;
  shown = 0;
  moved = 0;
  compared = 0;

  tell(name: string): void {
    const share = (some: number, all: number) => (all > 0 ? (some / all).toFixed(3) : '-');
    console.log(
      `${name.padEnd(24)} ${String(this.words).padStart(5)} words: within 100 ms ${share(this.in100, this.words)}, ` +
        `200 ms ${share(this.in200, this.words)}; lines within 200 ms ${share(this.lines200, this.lines)} of ${String(this.lines)}; ` +
        `doubtful ${share(this.shown, this.words)}, of the wrong ${share(this.wrongShown, this.wrong)}` +
        (this.compared > 0 ? `; moved by more than 50 ms ${share(this.moved, this.compared)}` : ''),
    );
  }
}

const classOf = ({ ratio = null }: Truth): string => {
  if (ratio === null) return 'voice alone';
  return ratio >= 6
    ? 'voice 6 dB over or more'
    : ratio >= 2
      ? 'voice 2 to 6 dB over'
      : 'voice as loud';
};

/** Seconds by which each judged word of a line is off, by one of its times. */
function errorsOf(
  { words }: Truth,
  line: TruthLine,
  woven: readonly Woven[],
  other: ReadonlySet<number>,
): number[] {
  const [from, to] = line.words;
  const places = Array.from({ length: to - from }, (_, at) => from + at);
  const errors = (timeOf: (word: Truth['words'][number]) => number | null | undefined) =>
    places.flatMap((at) => {
      const truth = words[at];
      const time = (truth && timeOf(truth)) ?? null;
      if (!truth || truth.unknown || time === null || other.has(at)) return [];
      const start = woven[at]?.start ?? null;
      return [start === null ? Infinity : Math.abs(toSeconds(start) - time)];
    });
  const others = (line.times ?? []).map((first) =>
    places.map((at) => {
      const start = woven[at]?.start ?? null;
      const time = line.all?.[first + at - from]?.start ?? null;
      return start === null || time === null ? Infinity : Math.abs(toSeconds(start) - time);
    }),
  );
  const right = (some: readonly number[]) => some.filter((error) => error <= 0.1).length;
  const first = errors(({ start }) => start);
  const second = line.also ? errors(({ also }) => also?.start) : [];
  return [second, ...others].reduce(
    (best, some) => (right(some) > right(best) ? some : best),
    first,
  );
}

/** A song whose lyrics have each line once, however often it is sung. */
function writtenOnce({ words, lines, ...rest }: Truth): { truth: Truth; text: string } {
  const textOf = ({ words: [from, to] }: TruthLine) =>
    words
      .slice(from, to)
      .map(({ text }) => text)
      .join(' ');
  const kept = lines.filter(
    (line, at) => lines.findIndex((l) => textOf(l) === textOf(line)) === at,
  );
  let next = 0;
  const own = kept.flatMap(({ words: [from, to] }) => words.slice(from, to));
  return {
    text: kept.map(textOf).join('\n'),
    truth: {
      ...rest,
      words: own,
      lines: kept.map((line): TruthLine => {
        const first = next;
        next += line.words[1] - line.words[0];
        const times = lines.filter((l) => textOf(l) === textOf(line)).map((l) => l.words[0]);
        return { ...line, words: [first, next], times, all: words };
      }),
    },
  };
}

const tallies = new Map<string, Tally>();
const tallyOf = (name: string): Tally => {
  const tally = tallies.get(name) ?? new Tally();
  tallies.set(name, tally);
  return tally;
};
const scratch = mkdtempSync(join(tmpdir(), 'cadence-songs-'));
let took = 0;
let seconds = 0;

for (const folder of folders)
  for (const file of readdirSync(folder).sort()) {
    if (!file.endsWith('.truth.json')) continue;
    const base = join(folder, file.replace(/\.truth\.json$/, ''));
    const path = [`${base}.wav`, `${base}.flac`].find((name) => existsSync(name));
    if (path === undefined) continue;
    const whole = JSON.parse(readFileSync(join(folder, file), 'utf8')) as Truth;
    const { truth, text } = has('--once')
      ? writtenOnce(whole)
      : { truth: whole, text: readFileSync(`${base}.txt`, 'utf8') };
    const words = wordsOf(text).map((word) => word.text);
    const lines = lineStarts(text);
    const chance = chances();
    const bell = () => Array.from({ length: 12 }, chance).reduce((sum, one) => sum + one, -6);
    const other = new Set<number>();
    if (has('--wrong'))
      words.forEach((_, at) => {
        if (chance() < 0.1) other.add(at);
      });
    const written = words.map((word, at) =>
      other.has(at) ? (words[(at * 7 + 3) % words.length] ?? word) : word,
    );
    const taps = has('--taps')
      ? truth.lines
          .map(({ words: [at] }) => ({ at, start: truth.words[at]?.start ?? null, by: chance() }))
          .sort((a, b) => a.by - b.by)
          .slice(0, 10)
          .sort((a, b) => a.at - b.at)
          .flatMap(({ at, start }): Tap[] =>
            start === null ? [] : [{ index: at, at: fromSeconds(start + 0.06 + 0.04 * bell()) }],
          )
      : [];
    const weave = async (sound: string) =>
      (await weaveSound(sound, 'en', [{ words: written, lines, taps }])).woven[0] ?? [];
    const begun = performance.now();
    const woven = await weave(path);
    took += (performance.now() - begun) / 1000;
    const some = [tallyOf(classOf(truth)), tallyOf('all')];
    for (const line of truth.lines) {
      const errors = errorsOf(truth, line, woven, other);
      for (const tally of some) {
        tally.words += errors.length;
        tally.in100 += errors.filter((error) => error <= 0.1).length;
        tally.in200 += errors.filter((error) => error <= 0.2).length;
        if (errors[0] === undefined) continue;
        tally.lines++;
        if (errors[0] <= 0.2) tally.lines200++;
      }
    }
    truth.words.forEach(({ start, unknown }, at) => {
      if (start === null || unknown || other.has(at)) return;
      const { start: found = null, confidence = 0 } = woven[at] ?? {};
      const isWrong = found === null || Math.abs(toSeconds(found) - start) > 0.1;
      const isShown = confidence < SURE;
      for (const tally of some) {
        tally.wrong += Number(isWrong);
        tally.shown += Number(isShown);
        tally.wrongShown += Number(isWrong && isShown);
      }
    });
    seconds += Math.max(...truth.words.map(({ start }) => start ?? 0));
    if (!has('--moved')) continue;
    const again = join(scratch, 'again.ogg');
    const how = ['-af', 'volume=-7dB', '-ar', '32000', '-c:a', 'libvorbis', '-q:a', '5', again];
    spawnSync('ffmpeg', ['-y', '-v', 'error', '-i', path, ...how]);
    const other_ = await weave(again);
    woven.forEach(({ start }, at) => {
      const there = other_[at]?.start ?? null;
      const isMoved =
        start === null || there === null
          ? start !== there
          : Math.abs(toSeconds(start) - toSeconds(there)) > 0.05;
      for (const tally of some) {
        tally.compared++;
        tally.moved += Number(isMoved);
      }
    });
  }
rmSync(scratch, { recursive: true });
for (const [name, tally] of [...tallies].sort(([a], [b]) => (a < b ? -1 : 1))) tally.tell(name);
console.log(`${seconds.toFixed(0)} s of songs in ${took.toFixed(1)} s`);
