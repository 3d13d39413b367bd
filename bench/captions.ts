/**
 * How fast captions are read: `npx tsx bench/captions.ts`. SRT of 5,000 and of 100,000 cues, the median of nine
 * readings, from bytes to captions with the encoding detected; and the other formats with 5,000 cues.
 */
import type { Caption } from '@cadence/core/formats/captions.ts';
import { FORMATS } from '@cadence/core/formats/formats.ts';
import { readFile } from '@cadence/core/formats/readFile.ts';
import { longProgramme } from '@cadence/core/programme/samples.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import { DEFAULT_FRAME_RATE } from '@cadence/core/programme/defaults.ts';

const captionsOf = (count: number): Caption[] =>
  cuesInOrder(longProgramme(count), 's').map(({ start, end, text }) => ({ start, end, text }));

async function time(format: (typeof FORMATS)[number], count: number): Promise<void> {
  const { content } = format.write(captionsOf(count), { frameRate: DEFAULT_FRAME_RATE });
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  const times: number[] = [];
  let read = 0;
  for (let turn = 0; turn < 9; turn++) {
    const begun = performance.now();
    read = (await readFile(bytes, `long.${format.name}`)).captions.length;
    times.push(performance.now() - begun);
  }
  const [median = 0] = times.sort((a, b) => a - b).slice(4);
  console.log(
    `${format.name.padEnd(5)} ${read.toLocaleString('en-GB').padStart(8)} cues, ${(bytes.length / 1e6).toFixed(1)} MB: ${median.toFixed(0)} ms`,
  );
}

const srt = FORMATS.find(({ name }) => name === 'srt');
if (!srt) throw new Error('SRT is not there.');
await time(srt, 5000);
await time(srt, 100_000);
for (const format of FORMATS) if (format !== srt && format.read) await time(format, 5000);
