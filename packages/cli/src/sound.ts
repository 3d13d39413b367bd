/** `sound`: the mixdown of a programme as a WAVE file. */
import { PcmWriter, wavFrame, type CuePoint } from '@cadence/core/formats/wav/writeWav.ts';
import { levelled } from '@cadence/core/mix/levelled.ts';
import { sampleAt } from '@cadence/core/mix/mixdown.ts';
import { soundsHeard } from '@cadence/core/programme/heard.ts';
import { marksInOrder } from '@cadence/core/programme/order.ts';
import { contains } from '@cadence/core/time/range.ts';
import { soundsIn } from '@cadence/node/material.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { rangeOf, targetOf } from './asked.ts';
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

function bitsOf(asked = '24'): 16 | 24 {
  if (asked !== '16' && asked !== '24') throw new WrongUsage('--bits takes 16 or 24.');
  return asked === '16' ? 16 : 24;
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
  const open = await soundsIn(folderOf(name, options.material), programme);
  const length = sampleAt(range.end, RATE) - sampleAt(range.start, RATE);
  const progress = new Progress(2 * length);
  const mix = await levelled(programme, range, RATE, open, target, (pieces, doing) =>
    progress.of(doing === 'measuring' ? 'Measuring' : 'Writing', pieces, ([left]) => left.length),
  );
  const points = marksInOrder(programme)
    .filter(({ at }) => contains(range, at))
    .map((mark): CuePoint => ({
      sample: sampleAt(mark.at, RATE) - sampleAt(range.start, RATE),
      name: mark.name,
    }));
  const { head, tail } = wavFrame({ sampleRate: RATE, channels: 2, bits, length }, points);
  async function* content(): AsyncGenerator<Uint8Array> {
    yield head;
    const writer = new PcmWriter(bits);
    for await (const piece of mix.pieces()) yield writer.bytes(piece);
    yield tail;
  }
  await writeWhole(out, content());
  const rounded = (value: number | null) => (value === null ? null : Number(value.toFixed(2)));
  return {
    file: out,
    duration: length / RATE,
    sampleRate: RATE,
    channels: 2,
    bits,
    sound: { lufs: rounded(mix.level.integratedLufs), truePeakDb: rounded(mix.level.truePeakDb) },
    gainDb: Number(mix.gain.toFixed(2)),
    ...(mix.isHeldBack && { heldBackByPeaks: true }),
    marks: points.length,
  };
}
