/**
 * Damaged files: `npx tsx bench/damaged.ts [FILES] [SEED]`.
 *
 * Files of each format are written, then damaged by a seeded generator (bits turned, parts cut out, repeated
 * or exchanged, giant numbers, nesting, long lines) and read. Told are the errors that are not the readers'
 * own, the longest time of one file and the most memory. With `NODE_OPTIONS=--expose-gc` what earlier files left
 * behind is swept away before each, so that the memory is that of one file.
 */
import { strToU8, zipSync } from 'fflate';
import { writeMidi } from 'midi-file';
import { Unreadable, type Caption } from '@cadence/core/formats/captions.ts';
import { FORMATS } from '@cadence/core/formats/formats.ts';
import { readFile } from '@cadence/core/formats/readFile.ts';
import { linesOf } from '@cadence/core/text/lines.ts';
import { parseRate } from '@cadence/core/time/frameRate.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';

const files = Number(process.argv[2] ?? 10_000);
let state = Number(process.argv[3] ?? 1);

/** Mulberry32: numbers from 0 to 1 that are the same for each seed. */
function random(): number {
  state = (state + 0x6d2b79f5) | 0;
  let mixed = Math.imul(state ^ (state >>> 15), state | 1);
  mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
  return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
}
const upTo = (count: number) => Math.floor(random() * count);
const one = <T>(list: readonly T[]): T => list[upTo(list.length)] as T;

const frameRate = parseRate('25');
if (!frameRate) throw new Error('There is no such rate.');
const captions = Array.from({ length: 40 }, (_, at): Caption => ({
  start: fromSeconds(2 * at),
  end: fromSeconds(2 * at + 1.6),
  text: linesOf(
    at % 3 ? 'Slack water, hold the chain,\nthe tide forgets' : 'Élodie keeps the bell',
    {
      ...(at % 4 === 0 && { italic: true }),
      ...(at % 5 === 0 && { speaker: 'Hesper' }),
      ...(at % 7 === 0 && { colour: '#ffff00' }),
    },
  ),
}));
const whole: [string, Uint8Array][] = FORMATS.map(({ name, write }) => {
  const { content } = write(captions, { frameRate });
  return [`ferry.${name}`, typeof content === 'string' ? strToU8(content) : content];
});
const sheet = 'CREW\n\nBell\tAnnis\nWinch\tTamsin\n\tEwart\n';
whole.push(
  ['crew.txt', strToU8(sheet)],
  [
    'crew.md',
    strToU8('# Crew\n\n| Role | Name |\n|--|--|\n| Bell | Annis |\n\n- one\n  - *two*\n'),
  ],
  ['crew.csv', strToU8('Role,Name\nBell,"Annis, of the bell"\n')],
  [
    'crew.rtf',
    strToU8(
      "{\\rtf1\\ansi{\\fonttbl{\\f0 A;}}\\fs40 Crew\\par\\fs22 Bell\\tab \\'c9lo\\u233?\\par}",
    ),
  ],
  [
    'news.xml',
    strToU8(
      '<?xml version="1.0"?><rss><channel><title>a</title><item><title>b &amp;amp; c</title><description><![CDATA[<p>d</p>]]></description></item></channel></rss>',
    ),
  ],
  [
    'crew.docx',
    zipSync({
      'word/document.xml': strToU8(
        '<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:p><w:r><w:t>Bell</w:t></w:r></w:p></w:body></w:document>',
      ),
      '_rels/.rels': strToU8(
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
      ),
      '[Content_Types].xml': strToU8(
        '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/></Types>',
      ),
    }),
  ],
  [
    'song.mid',
    Uint8Array.from(
      writeMidi({
        header: { format: 0, numTracks: 1, ticksPerBeat: 96 },
        tracks: [
          [
            { type: 'setTempo', meta: true, deltaTime: 0, microsecondsPerBeat: 500_000 },
            { type: 'lyrics', meta: true, deltaTime: 96, text: 'Slack ' },
            { type: 'endOfTrack', meta: true, deltaTime: 96 },
          ],
        ],
      }),
    ),
  ],
);

const joined = (...parts: Uint8Array[]) => {
  const all = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
};

type Damage = (bytes: Uint8Array) => Uint8Array;
const between: (inner: (bytes: Uint8Array) => Uint8Array) => Damage = (inner) => (bytes) => {
  const [a, b] = [upTo(bytes.length + 1), upTo(bytes.length + 1)].sort((x, y) => x - y) as [
    number,
    number,
  ];
  return joined(bytes.subarray(0, a), inner(bytes.subarray(a, b)), bytes.subarray(b));
};
const numbers = ['9'.repeat(400), '-1', '1e309', 'NaN', '4294967296', '00:99:99,999', '\u0000'];
const nests = [
  '<p>',
  '<div>',
  '{',
  '[',
  '{\\b ',
  '(',
  '> ',
  '- ',
  '<i>',
  '*',
  '"',
  '|',
  '&lt;',
  '<!--',
];
const damages: readonly Damage[] = [
  (bytes) => {
    const turned = bytes.slice();
    for (let count = 1 + upTo(20); count > 0; count--) {
      const at = upTo(turned.length);
      turned[at] = (turned[at] ?? 0) ^ (1 << upTo(8));
    }
    return turned;
  },
  (bytes) => bytes.subarray(0, upTo(bytes.length)),
  (bytes) => bytes.subarray(upTo(bytes.length)),
  between(() => new Uint8Array(0)),
  between((part) =>
    joined(...Array.from({ length: 1 + upTo(300) }, () => part)).subarray(0, 400_000),
  ),
  between(() => strToU8(one(numbers))),
  (bytes) => {
    const text = new TextDecoder().decode(bytes);
    return strToU8(text.replace(/\d+/g, (digits) => (random() < 0.1 ? one(numbers) : digits)));
  },
  between((part) => joined(strToU8(one(nests).repeat(1 + upTo(30_000))), part)),
  between(() => strToU8('x'.repeat(upTo(random() < 0.02 ? 10_000_000 : 200_000)))),
  (bytes) => joined(bytes, one(whole)[1]),
];

const told = new Map<string, number>();
const foreign = new Map<string, number>();
let [read, refused, longest, most] = [0, 0, 0, 0];
let slowest = '';
const slow: string[] = [];
const before = process.memoryUsage().rss;
for (let count = 0; count < files; count++) {
  const [name, bytes] = whole[count % whole.length] as [string, Uint8Array];
  let damaged = bytes;
  for (let times = 1 + upTo(2); times > 0; times--) damaged = one(damages)(damaged);
  globalThis.gc?.();
  const begun = performance.now();
  try {
    const { warnings } = await readFile(damaged, name);
    read++;
    for (const { kind } of warnings) told.set(kind, (told.get(kind) ?? 0) + 1);
  } catch (error) {
    if (error instanceof Unreadable) refused++;
    else {
      const what = `${name}: ${String(error).slice(0, 120)}`;
      foreign.set(what, (foreign.get(what) ?? 0) + 1);
    }
  }
  const took = performance.now() - begun;
  if (took > 1000)
    slow.push(`${name} (file ${count}, ${damaged.length} bytes): ${took.toFixed(0)} ms`);
  if (took > longest) {
    longest = took;
    slowest = `${name}, ${damaged.length} bytes, file ${count}`;
  }
  most = Math.max(most, process.memoryUsage().rss);
}
console.log(
  `${files} damaged files: ${read} read as far as they go, ${refused} refused with a sentence`,
);
console.log(
  `errors that are not the readers' own: ${[...foreign.values()].reduce((a, b) => a + b, 0)}`,
);
for (const [what, times] of foreign) console.log(`  ${times} × ${what}`);
console.log(`the longest took ${longest.toFixed(0)} ms (${slowest})`);
console.log(`over a second: ${slow.length}`);
for (const each of slow) console.log(`  ${each}`);
console.log(`memory ${(before / 1e6).toFixed(0)} MB before, ${(most / 1e6).toFixed(0)} MB at most`);
