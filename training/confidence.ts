/**
 * What tells how sure a woven word is, and whether it was right: `npx tsx training/confidence.ts OUT.jsonl FOLDER …`.
 *
 * Each FOLDER holds sounds beside their scripts and truths, of `bench/narrations.py` or `singing.py`. Each is woven as it is
 * written, with one word in twelve replaced, and with the script of the next sound. A line for each word that was placed:
 * {group, right, signs}; right is a start within 100 ms. `confidence.py` learns the weights from them.
 */
import { appendFileSync, existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { lineStarts } from '@cadence/core/text/sentences.ts';
import { wordsOf } from '@cadence/core/text/words.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { sureBy } from '@cadence/core/weave/confidence.ts';
import { openWeaver, weavingFiles } from '@cadence/core/weave/openWeaver.ts';
import { bandsOf } from './bands.ts';

interface TruthWord {
  readonly start: number | null;
  readonly unknown?: boolean;
}

const [out = '', ...folders] = process.argv.slice(2);
writeFileSync(out, '');
const files = await weavingFiles((name) => readFile(`packages/core/acoustic/${name}`));
const weaver = openWeaver(files, 'en');

const scriptOf = (base: string): string => readFileSync(`${base}.txt`, 'utf8');
const soundOf = (base: string): string | undefined =>
  [`${base}.wav`, `${base}.flac`].find((name) => existsSync(name));

for (const folder of folders) {
  const bases = readdirSync(folder)
    .filter((file) => file.endsWith('.truth.json'))
    .sort()
    .map((file) => join(folder, file.replace(/\.truth\.json$/, '')))
    .filter((base) => soundOf(base) !== undefined && existsSync(`${base}.txt`));
  for (const [at, base] of bases.entries()) {
    const { words: truth } = JSON.parse(readFileSync(`${base}.truth.json`, 'utf8')) as {
      words: TruthWord[];
    };
    const bands = await bandsOf(soundOf(base) ?? '');
    const weave = async (
      group: string,
      text: string,
      change: (words: string[]) => readonly (TruthWord | undefined)[],
    ) => {
      const words = wordsOf(text).map((word) => word.text);
      const given = change(words);
      await weaver.hear(bands);
      // Lines may be looked for several times: the signs of a word are those by which it is as sure as it is.
      const signsBy = new Map<number, readonly number[]>();
      const onSigns = (told: readonly (readonly number[] | undefined)[]) => {
        for (const own of told)
          if (own) for (const singing of [false, true]) signsBy.set(sureBy(own, singing), own);
      };
      const woven = await weaver.weave(words, { lines: lineStarts(text), onSigns });
      const rows = woven.flatMap(({ start, confidence }, place) => {
        const [word, own] = [given[place], signsBy.get(confidence)];
        if (start === null || !own || word?.unknown) return [];
        const said = word?.start ?? null;
        const right = said !== null && Math.abs(toSeconds(start) - said) <= 0.1 ? 1 : 0;
        return [
          JSON.stringify({ group, right, signs: own.map((sign) => Number(sign.toFixed(5))) }),
        ];
      });
      appendFileSync(out, rows.map((row) => `${row}\n`).join(''));
    };
    const text = scriptOf(base);
    await weave('written', text, () => truth);
    await weave('replaced', text, (words) =>
      truth.map((word, place) => {
        if (place % 12 !== 7) return word;
        words[place] = words[(place * 5 + 2) % words.length] ?? '';
        return undefined;
      }),
    );
    const next = [...bases.slice(at + 1), ...bases].find((one) => scriptOf(one) !== text);
    if (next !== undefined)
      await weave('another', scriptOf(next), (words) => words.map(() => undefined));
  }
}
