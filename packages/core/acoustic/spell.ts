/**
 * Learns from the pronouncing dictionary how letters are said, for words that it lacks:
 * `npx tsx packages/core/acoustic/spell.ts`. Every 20th word is held back and tells how good it is.
 *
 * Letters are laid against phones by expectation and maximisation, a letter to none, one or two phones.
 */
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { dictionary } from 'cmu-pronouncing-dictionary';
import { gzipSync } from 'fflate';
import {
  ASKED,
  EDGE,
  LETTERS,
  letterToSoundOf,
  lettersOf,
  soundedOut,
} from '../src/weave/letterToSound.ts';

const TURNS = 6;
/** A branch is worth its place where so many letters of the dictionary bear it out. */
const LEAST = 2;

const words = Object.entries(dictionary)
  .filter(([word]) => /^[a-z']+$/.test(word))
  .map(([word, said]) => ({
    word,
    letters: lettersOf(word),
    phones: said.replace(/\d/g, '').split(' '),
  }));
const taught = words.filter((_, at) => at % 20 !== 0);
const held = words.filter((_, at) => at % 20 === 0);

/** How letters and phones lie against each other: the phones of each letter. */
function laid(letters: number[], phones: string[], cost: (letter: number, said: string) => number) {
  const [rows, columns] = [letters.length + 1, phones.length + 1];
  const best = new Float64Array(rows * columns).fill(Infinity);
  const took = new Uint8Array(rows * columns);
  best[0] = 0;
  for (let row = 1; row < rows; row++)
    for (let column = 0; column < columns; column++)
      for (let count = 0; count <= Math.min(2, column); count++) {
        const before = best[(row - 1) * columns + column - count] as number;
        if (before === Infinity) continue;
        const said = phones.slice(column - count, column).join(' ');
        const value = before + cost(letters[row - 1] as number, said);
        if (value < (best[row * columns + column] as number)) {
          best[row * columns + column] = value;
          took[row * columns + column] = count;
        }
      }
  if (best[rows * columns - 1] === Infinity) return undefined;
  const parts: string[] = [];
  let column = columns - 1;
  for (let row = rows - 1; row > 0; row--) {
    const count = took[row * columns + column] as number;
    parts.unshift(phones.slice(column - count, column).join(' '));
    column -= count;
  }
  return parts;
}

const key = (letter: number, said: string) => `${String(letter)} ${said}`;
let costs = new Map<string, number>();
const cost = (letter: number, said: string): number => {
  const size = said === '' ? 1.5 : said.includes(' ') ? 4 : 1;
  return costs.size === 0 ? size : (costs.get(key(letter, said)) ?? 12 + size);
};
for (let turn = 0; turn < TURNS; turn++) {
  const counts = new Map<string, number>();
  const totals = new Map<number, number>();
  for (const { letters, phones } of taught)
    laid(letters, phones, cost)?.forEach((said, at) => {
      const letter = letters[at] as number;
      counts.set(key(letter, said), (counts.get(key(letter, said)) ?? 0) + 1);
      totals.set(letter, (totals.get(letter) ?? 0) + 1);
    });
  costs = new Map(
    Array.from(counts, ([name, count]) => [
      name,
      -Math.log(count / (totals.get(Number(name.split(' ', 1)[0])) ?? 1)),
    ]),
  );
}

interface Instance {
  readonly neighbours: readonly number[];
  readonly said: string;
}
const instances: Instance[][] = Array.from(LETTERS, () => []);
for (const { letters, phones } of taught)
  laid(letters, phones, cost)?.forEach((said, at) => {
    instances[letters[at] as number]?.push({
      neighbours: ASKED.map((step) => letters[at + step] ?? EDGE),
      said,
    });
  });

const sounds: string[] = [];
const bytes: number[] = [];
const soundAt = (said: string): number => {
  if (!sounds.includes(said)) sounds.push(said);
  return sounds.indexOf(said);
};
function mostly(all: readonly Instance[]): string {
  const counts = new Map<string, number>();
  for (const { said } of all) counts.set(said, (counts.get(said) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? '';
}
/** Writes a node; gives false where it says nothing that its parent does not. */
function write(all: readonly Instance[], depth: number): void {
  const says = mostly(all);
  const groups = new Map<number, Instance[]>();
  if (depth < ASKED.length && all.some(({ said }) => said !== says))
    for (const instance of all) {
      const letter = instance.neighbours[depth] ?? EDGE;
      const group = groups.get(letter);
      if (group) group.push(instance);
      else groups.set(letter, [instance]);
    }
  // A branch in which all is said as without it tells nothing.
  const branches = [...groups].filter(
    ([, group]) => group.length >= LEAST && group.some(({ said }) => said !== says),
  );
  const sound = soundAt(says);
  bytes.push(sound & 255, sound >> 8, branches.length);
  for (const [letter, group] of branches) {
    bytes.push(letter);
    write(group, depth + 1);
  }
}
for (const all of instances) write(all, 0);
const head = `${sounds.map((sound) => sound || '-').join('\n')}\n\n`;
const packed = Uint8Array.from([...Buffer.from(head), ...bytes]);
writeFileSync(
  fileURLToPath(new URL('./spelling.gz', import.meta.url)),
  gzipSync(packed, { level: 9, mtime: 0 }),
);

const learnt = letterToSoundOf(packed);
const right = held.filter(
  ({ word, phones }) => soundedOut(learnt, word).join(' ') === phones.join(' '),
).length;
process.stdout.write(
  `${String(packed.length)} bytes; ${((100 * right) / held.length).toFixed(1)} % of ${String(held.length)} words held back are said to the last sound\n`,
);
