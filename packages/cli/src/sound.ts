/** `sound`: the mixdown of a programme as a WAVE file. */
import { sampleAt } from '@cadence/core/mix/mixdown.ts';
import { WAV_RATE, wavOf } from '@cadence/core/mix/wavOf.ts';
import { isHeard } from '@cadence/core/mix/keySounds.ts';
import { soundsIn } from '@cadence/node/material.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { rangeOf, targetOf } from './asked.ts';
import { WrongUsage } from './failure.ts';
import { writeWhole } from './files.ts';
import { rounded, soundJson } from './output.ts';
import { folderOf, readProgramme } from './programmeFile.ts';
import { Progress } from './progress.ts';

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
  if (!isHeard(programme))
    throw new Unusable('silent', 'No sound is heard in this programme.', name);
  const open = await soundsIn(folderOf(name, options.material), programme);
  const samples = sampleAt(range.end, WAV_RATE) - sampleAt(range.start, WAV_RATE);
  const progress = new Progress(2 * samples);
  const wav = await wavOf(programme, { range, bits, loudness: target }, open, (pieces, doing) =>
    progress.of(doing === 'measuring' ? 'Measuring' : 'Writing', pieces, ([left]) => left.length),
  );
  await writeWhole(out, wav.content());
  return {
    file: out,
    duration: wav.length / WAV_RATE,
    sampleRate: WAV_RATE,
    channels: 2,
    bits,
    sound: soundJson(wav.level),
    gainDb: rounded(wav.gain),
    ...(wav.isHeldBack && { heldBackByPeaks: true }),
    marks: wav.marks,
  };
}
