/** `sound`: the mixdown of a programme as a WAVE file. */
import { LoudnessMeter, type Level } from '@cadence/core/listen/signal/loudness.ts';
import { PcmWriter, wavFrame, type CuePoint } from '@cadence/core/formats/wav/writeWav.ts';
import { loudnessGain } from '@cadence/core/mix/loudnessGain.ts';
import { mixdown, sampleAt, type OpenSource } from '@cadence/core/mix/mixdown.ts';
import type { StereoChunk } from '@cadence/core/mix/stereo.ts';
import { soundsHeard } from '@cadence/core/programme/heard.ts';
import { marksInOrder } from '@cadence/core/programme/order.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { contains, type Range } from '@cadence/core/time/range.ts';
import { add, ZERO } from '@cadence/core/time/ticks.ts';
import { formatTimecode, parseTypedTime } from '@cadence/core/time/timecode.ts';
import { fileOf } from '@cadence/node/material.ts';
import { openSound } from '@cadence/node/sound.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { WrongUsage } from './failure.ts';
import { writeWhole } from './files.ts';
import { folderOf, readProgramme } from './programmeFile.ts';
import { Progress } from './progress.ts';

/** Of the mixdown, in samples a second. */
const RATE = 48_000;

interface SoundOptions {
  readonly range?: string | undefined;
  readonly loudness?: string | undefined;
  readonly bits?: string | undefined;
  readonly material?: string | undefined;
}

/** The range that is asked for: two times of the programme, the second after the first. */
function rangeOf({ facts }: Programme, asked: string | undefined): Range {
  if (asked === undefined) return { start: ZERO, end: facts.length };
  const { frameRate, startTimecode, length } = facts;
  const [start, end, ...more] = asked
    .split('-')
    .map((part) => parseTypedTime(part, frameRate, startTimecode));
  if (start === undefined || end === undefined || more.length > 0 || start < 0 || end <= start)
    throw new WrongUsage(
      `--range takes two times of the programme, such as ${formatTimecode(startTimecode, frameRate)}-${formatTimecode(add(startTimecode, length), frameRate)}.`,
    );
  if (end > length)
    throw new WrongUsage(
      `The programme ends at ${formatTimecode(add(startTimecode, length), frameRate)}. Nothing was written.`,
    );
  return { start, end };
}

/** A target of loudness, in LUFS. */
function targetOf(asked: string | undefined): number | undefined {
  if (asked === undefined) return undefined;
  const target = Number(asked);
  if (!(target >= -60 && target <= -5))
    throw new WrongUsage('--loudness takes LUFS from -60 to -5, such as -23.');
  return target;
}

function bitsOf(asked = '24'): 16 | 24 {
  if (asked !== '16' && asked !== '24') throw new WrongUsage('--bits takes 16 or 24.');
  return asked === '16' ? 16 : 24;
}

/** Measures a mixdown as it is. */
async function measured(pieces: AsyncIterable<StereoChunk>): Promise<Level> {
  const meter = new LoudnessMeter(RATE);
  for await (const piece of pieces) meter.push(piece);
  return meter.level();
}

/** The JSON of `sound`: the mixdown is measured first, then written; an hour takes no more memory than a minute. */
export async function soundCommand(
  name: string,
  out: string,
  options: SoundOptions,
): Promise<object> {
  const [target, bits] = [targetOf(options.loudness), bitsOf(options.bits)];
  const programme = await readProgramme(name);
  const range = rangeOf(programme, options.range);
  if (!soundsHeard(programme).some(({ muted }) => !muted))
    throw new Unusable('silent', 'No sound is heard in this programme.', name);
  const folder = folderOf(name, options.material);
  const paths = new Map<string, string>();
  for (const { material } of soundsHeard(programme)) {
    const file = programme.materials[material];
    if (file) paths.set(material, await fileOf(folder, file));
  }
  const open: OpenSource = async (material) => {
    const path = paths.get(material);
    return path === undefined ? undefined : openSound(path);
  };
  const length = sampleAt(range.end, RATE) - sampleAt(range.start, RATE);
  const progress = new Progress(2 * length);
  const pieces = (doing: string) =>
    progress.of(doing, mixdown(programme, range, RATE, open), ([left]) => left.length);
  const level = await measured(pieces('Measuring'));
  const { gain, isHeldBack } = loudnessGain(level, target);
  const points = marksInOrder(programme)
    .filter(({ at }) => contains(range, at))
    .map((mark): CuePoint => ({
      sample: sampleAt(mark.at, RATE) - sampleAt(range.start, RATE),
      name: mark.name,
    }));
  const { head, tail } = wavFrame({ sampleRate: RATE, channels: 2, bits, length }, points);
  const factor = 10 ** (gain / 20);
  async function* content(): AsyncGenerator<Uint8Array> {
    yield head;
    const writer = new PcmWriter(bits);
    for await (const piece of pieces('Writing'))
      yield writer.bytes(piece.map((side) => side.map((sample) => sample * factor)));
    yield tail;
  }
  await writeWhole(out, content());
  const after = (value: number | null) =>
    value === null ? null : Number((value + gain).toFixed(2));
  return {
    file: out,
    duration: length / RATE,
    sampleRate: RATE,
    channels: 2,
    bits,
    sound: { lufs: after(level.integratedLufs), truePeakDb: after(level.truePeakDb) },
    gainDb: Number(gain.toFixed(2)),
    ...(isHeldBack && { heldBackByPeaks: true }),
    marks: points.length,
  };
}
