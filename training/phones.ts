/**
 * Where each sound of speech lies in lines that `singing.py` had spoken: `npx tsx training/phones.ts FOLDER`.
 *
 * Beside each `NAME.wav` with `NAME.txt` and `NAME.lines.json` it writes `NAME.phones.json`: of each word its line, start, end
 * and sounds, in seconds; the times are null where the word did not come to lie within its line.
 */
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { openWeaver, weavingFiles } from '@cadence/core/weave/openWeaver.ts';
import { bandsOf } from './bands.ts';

const [folder = ''] = process.argv.slice(2);
const files = await weavingFiles((name) => readFile(`packages/core/acoustic/${name}`));
const weaver = openWeaver(files, 'en');

for (const file of readdirSync(folder).sort()) {
  const base = join(folder, file.replace(/\.lines\.json$/, ''));
  if (!file.endsWith('.lines.json') || existsSync(`${base}.phones.json`)) continue;
  const { lines } = JSON.parse(readFileSync(`${base}.lines.json`, 'utf8')) as {
    lines: [number, number][];
  };
  const words = readFileSync(`${base}.txt`, 'utf8')
    .split('\n')
    .flatMap((text, line) =>
      text
        .split(/\s+/)
        .filter(Boolean)
        .map((word) => ({ word, line })),
    );
  await weaver.hear(await bandsOf(`${base}.wav`));
  const woven = await weaver.weave(words.map(({ word }) => word));
  const phones = woven.map(({ start, end, sounds = [] }, at) => {
    const { word, line } = words[at] as { word: string; line: number };
    const [from, to] = lines[line] as [number, number];
    const isThere =
      start !== null && end !== null && toSeconds(start) > from - 0.1 && toSeconds(end) < to + 0.1;
    return {
      word,
      line,
      start: isThere ? toSeconds(start) : null,
      end: isThere ? toSeconds(end) : null,
      sounds: sounds.map((one) => ({
        name: one.name,
        start: toSeconds(one.start),
        end: toSeconds(one.end),
      })),
    };
  });
  writeFileSync(`${base}.phones.json`, JSON.stringify(phones));
}
