/**
 * How well and how fast words are woven: `npx tsx bench/weave.ts FOLDER …`, or with `--long SOUND SCRIPT` how long one
 * sound takes. With `--pins N` before the folders every so many words one is pinned where it is, and the others are
 * judged; with `--parts` only a part of each script is woven: a half, both ends, the middle; with `--strange` the words of
 * the next sound, none of which may be called sure.
 *
 * Each FOLDER holds sounds beside their scripts and truths (`NAME.wav` or `NAME.flac`, `NAME.txt`,
 * `NAME.truth.json`, as in `../shared/sound/speech`); `bench/narrations.py` makes more. Beside the figures stand those
 * of spreading the words over the pieces of speech, and, where Debian's package `pocketsphinx` is there, those of the
 * decoder that the acoustic model was made for, given the same words as one fixed sentence.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { dictionary } from 'cmu-pronouncing-dictionary';
import { gunzipSync } from 'fflate';
import { findPieces } from '@cadence/core/listen/speech/speech.ts';
import { SpeechListener } from '@cadence/core/listen/speech/speechEvidence.ts';
import { sharedOut } from '@cadence/core/programme/woven/script.ts';
import { fromSeconds, toSeconds } from '@cadence/core/time/ticks.ts';
import { SURE } from '@cadence/core/weave/confidence.ts';
import { languageNamed } from '@cadence/core/weave/languages/languages.ts';
import { letterToSoundOf } from '@cadence/core/weave/letterToSound.ts';
import { openWeaver } from '@cadence/core/weave/openWeaver.ts';
import type { Pin, Woven } from '@cadence/core/weave/woven.ts';
import { VoiceListener } from '@cadence/core/weave/voiceListener.ts';
import { openSound } from '@cadence/node/sound.ts';

const acoustic = (name: string) => readFileSync(`packages/core/acoustic/${name}`);
const files = {
  model: acoustic('english.gz'),
  spelling: acoustic('spelling.gz'),
  song: acoustic('song.gz'),
};

interface TruthWord {
  readonly start: number | null;
  readonly end: number | null;
  readonly unknown?: boolean;
  readonly onlyStart?: boolean;
}
interface Truth {
  readonly language?: string;
  readonly background?: string;
  readonly words?: readonly TruthWord[];
}
interface Found {
  readonly start: number | null;
  readonly end: number | null;
  readonly sure?: boolean;
}

/** Counts over some sounds. */
class Tally {
  words = 0;
  in100 = 0;
  in50 = 0;
  in150 = 0;
  ends = 0;
  endsIn100 = 0;
  sure = 0;
  sureRight = 0;
  unsaid = 0;
  calledSo = 0;
  readonly errors: number[] = [];

  add(truth: readonly TruthWord[], found: readonly Found[]): void {
    truth.forEach((word, at) => {
      if (word.unknown) return;
      const { start = null, end = null, sure = false } = found[at] ?? {};
      const error = word.start === null || start === null ? Infinity : Math.abs(start - word.start);
      if (sure) this.sure++;
      if (sure && error <= 0.1) this.sureRight++;
      if (word.start === null) {
        this.unsaid++;
        if (start === null) this.calledSo++;
        return;
      }
      this.words++;
      this.errors.push(error);
      if (error <= 0.15) this.in150++;
      if (error <= 0.1) this.in100++;
      if (error <= 0.05) this.in50++;
      if (word.end === null || word.onlyStart) return;
      this.ends++;
      if (end !== null && Math.abs(end - word.end) <= 0.1) this.endsIn100++;
    });
  }

  tell(name: string): void {
    if (this.words === 0 && this.unsaid === 0) return;
    const share = (some: number, all: number) =>
      all > 0 ? `${((100 * some) / all).toFixed(1)} %` : '-';
    const sorted = this.errors.sort((a, b) => a - b);
    const median = sorted[sorted.length >> 1] ?? Infinity;
    console.log(
      `${name.padEnd(34)} ${String(this.words).padStart(5)} words: within 100 ms ${share(this.in100, this.words)}, ` +
        `50 ms ${share(this.in50, this.words)}, 150 ms ${share(this.in150, this.words)}, median ${(1000 * median).toFixed(1)} ms; ` +
        `ends ${share(this.endsIn100, this.ends)}; ` +
        `sure ${share(this.sure, this.words + this.unsaid)}, right of them ${share(this.sureRight, this.sure)}; ` +
        `not said and called so ${share(this.calledSo, this.unsaid)} of ${String(this.unsaid)}`,
    );
  }
}

const bandsOf = async (path: string) => {
  const sound = await openSound(path);
  const voice = new VoiceListener(sound.sampleRate);
  const speech = new SpeechListener(voice.loweredRate);
  for await (const channels of sound.chunks()) speech.push(voice.push(channels));
  return { bands: voice.finish(), pieces: findPieces(speech.evidence()) };
};

/** The decoder that the model was made for, where it is installed. */
function peer(path: string, words: readonly string[]): Found[] | undefined {
  const model = '/usr/share/pocketsphinx/model/en-us/en-us';
  if (!existsSync(model)) return undefined;
  const english = languageNamed('en', {
    dictionary,
    letterToSound: letterToSoundOf(gunzipSync(files.spelling)),
  });
  const folder = mkdtempSync(join(tmpdir(), 'cadence-peer-'));
  try {
    const entries: string[] = [];
    const names = words.flatMap((word, at) => {
      const [reading] = english.readings(word);
      if (!reading) return [];
      // One of each way to say it, all parts of a reading as one word.
      const phones = reading.flatMap((part) => english.sounds(part)[0] ?? []);
      entries.push(`W${String(at)} ${phones.join(' ')}`);
      return [`W${String(at)}`];
    });
    const at = (name: string) => join(folder, name);
    writeFileSync(at('words.dict'), `${entries.join('\n')}\n`);
    writeFileSync(
      at('words.gram'),
      `#JSGF V1.0;\ngrammar words;\npublic <words> = ${names.join(' ')};\n`,
    );
    writeFileSync(at('one.ctl'), 'sound\n');
    spawnSync('ffmpeg', ['-v', 'error', '-i', path, '-ar', '16000', '-ac', '1', at('sound.wav')]);
    const options =
      `-hmm ${model} -dict ${at('words.dict')} -jsgf ${at('words.gram')} -ctl ${at('one.ctl')} ` +
      `-cepdir ${folder} -cepext .wav -adcin yes -adchdr 44 -hypseg ${at('out.seg')} -remove_silence no ` +
      '-beam 1e-120 -wbeam 1e-100 -pbeam 1e-120 -maxhmmpf -1 -bestpath no';
    spawnSync('pocketsphinx_batch', options.split(' '), { timeout: 600_000 });
    if (!existsSync(at('out.seg'))) return undefined;
    const found: Found[] = words.map(() => ({ start: null, end: null }));
    const line = readFileSync(at('out.seg'), 'utf8').trim().split(/\s+/);
    const places = line.flatMap((part, place) => (/^W\d+$/.test(part) ? [place] : []));
    for (const place of places) {
      const index = Number((line[place] ?? '').slice(1));
      // Each word stands after its first frame and two scores, and before the first frame of the next.
      const [before, after] = [line[place - 3], line[place + 1]];
      found[index] = { start: Number(before) / 100, end: Number(after) / 100 };
    }
    return found;
  } finally {
    rmSync(folder, { recursive: true });
  }
}

interface Given {
  /** Which words of the script are woven. */
  readonly part: readonly number[];
  readonly pins: readonly Pin[];
}

/** What is woven of a script: all of it where nothing else is asked for. */
type Ways = (words: readonly string[], truth: readonly TruthWord[]) => readonly Given[];

const every = (count: number) => Array.from({ length: count }, (_, at) => at);
const whole: Ways = (words) => [{ part: every(words.length), pins: [] }];

/** Of every `step` words one is pinned where it is said. */
const pinned =
  (step: number): Ways =>
  (words, truth) => [
    {
      part: every(words.length),
      pins: truth.flatMap(({ start, unknown }, index): Pin[] =>
        index % step === step >> 1 && start !== null && !unknown
          ? [{ index, start: fromSeconds(start) }]
          : [],
      ),
    },
  ];

const parts: Ways = ({ length }) =>
  [
    (at: number) => at < length / 2,
    (at: number) => at >= length / 2,
    (at: number) => at < length / 3 || at >= (2 * length) / 3,
    (at: number) => at >= length / 4 && at < (3 * length) / 4,
  ].map((of) => ({ part: every(length).filter(of), pins: [] }));

async function judge(folders: readonly string[], ways: Ways): Promise<void> {
  const tallies = new Map<string, Tally>();
  const tallyOf = (name: string): Tally => {
    const tally = tallies.get(name) ?? new Tally();
    tallies.set(name, tally);
    return tally;
  };
  for (const folder of folders)
    for (const file of readdirSync(folder).sort()) {
      const base = join(folder, file.replace(/\.truth\.json$/, ''));
      if (!file.endsWith('.truth.json') || !existsSync(`${base}.txt`)) continue;
      const {
        words: truth,
        language = 'en',
        background = '',
      } = JSON.parse(readFileSync(join(folder, file), 'utf8')) as Truth;
      if (!truth) continue;
      const path = [`${base}.wav`, `${base}.flac`].find((name) => existsSync(name));
      if (path === undefined) continue;
      const words = readFileSync(`${base}.txt`, 'utf8').split(/\s+/).filter(Boolean);
      const { bands, pieces } = await bandsOf(path);
      const group = `${language}, ${background || file}`;
      for (const { part, pins } of ways(words, truth)) {
        const weaver = openWeaver(files, language);
        await weaver.hear(bands);
        const seconds = (time: Woven['start']) => (time === null ? null : toSeconds(time));
        const found = (
          await weaver.weave(
            part.map((at) => words[at] as string),
            { pins },
          )
        ).map(({ start, end, confidence }) => ({
          start: seconds(start),
          end: seconds(end),
          sure: start !== null && confidence >= SURE,
        }));
        const fixed = new Set(pins.map(({ index }) => index));
        const judged = part.flatMap((at, place) => (fixed.has(at) ? [] : [[at, place] as const]));
        tallyOf(group).add(
          judged.map(([at]) => truth[at] as TruthWord),
          judged.map(([, place]) => found[place] as Found),
        );
      }
      if (ways !== whole) continue;
      const spread = sharedOut(
        words.map((word) => [[{ text: word }]]),
        pieces,
      );
      tallyOf(`${group}, spread`).add(
        truth,
        spread.map(({ start, end }) => ({ start: toSeconds(start), end: toSeconds(end) })),
      );
      const other = language === 'en' ? peer(path, words) : undefined;
      if (other) tallyOf(`${group}, peer`).add(truth, other);
    }
  for (const [name, tally] of [...tallies].sort(([a], [b]) => (a < b ? -1 : 1))) tally.tell(name);
}

/** How many words are called sure of scripts that belong to another sound: of the next one in the folder. */
async function strange(folder: string): Promise<void> {
  const names = readdirSync(folder)
    .filter((name) => /\.(?:wav|flac)$/.test(name))
    .sort();
  let [all, sure] = [0, 0];
  for (const [at, name] of names.entries()) {
    const next = names[(at + 1) % names.length] ?? name;
    const script = join(folder, next.replace(/\.\w+$/, '.txt'));
    const words = readFileSync(script, 'utf8').split(/\s+/).filter(Boolean);
    const weaver = openWeaver(files, 'en');
    await weaver.hear((await bandsOf(join(folder, name))).bands);
    const woven = await weaver.weave(words);
    all += words.length;
    sure += woven.filter(({ confidence }) => confidence >= SURE).length;
  }
  console.log(`scripts of another sound: ${String(sure)} of ${String(all)} words are called sure`);
}

/** How long a sound takes, part by part, and how much memory. */
async function long(sound: string, script: string): Promise<void> {
  let since = performance.now();
  const lap = (what: string) => {
    const now = performance.now();
    console.log(
      `${what}: ${((now - since) / 1000).toFixed(1)} s, ${(process.resourceUsage().maxRSS / 1000).toFixed(0)} MB at most`,
    );
    since = performance.now();
  };
  const weaver = openWeaver(files, 'en');
  lap('open');
  const opened = await openSound(sound);
  const voice = new VoiceListener(opened.sampleRate);
  for await (const channels of opened.chunks()) voice.push(channels);
  lap('listen');
  await weaver.hear(voice.finish());
  lap('learn the room');
  const words = readFileSync(script, 'utf8').split(/\s+/).filter(Boolean);
  const woven = await weaver.weave(words);
  lap(`weave ${String(words.length)} words`);
  const [first, last] = [woven[100], woven[129]];
  const [start, end] = [first?.start ?? null, last?.end ?? null];
  if (start === null || end === null) return;
  await weaver.weave(words.slice(100, 130), { within: { start, end } });
  lap('30 words again');
}

const args = process.argv.slice(2);
if (args[0] === '--long') await long(args[1] ?? '', args[2] ?? '');
else if (args[0] === '--pins') await judge(args.slice(2), pinned(Number(args[1])));
else if (args[0] === '--parts') await judge(args.slice(1), parts);
else if (args[0] === '--strange') await strange(args[1] ?? '');
else await judge(args, whole);
