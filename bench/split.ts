/**
 * Splitting to fit: `npx tsx bench/split.ts [LINES] [SEED]`. Made-up sentences of 5 to 60 words are cut to two
 * lines of 42 characters; told are the lines that exceed them, and the breaks that tear an article or a
 * preposition from its noun.
 */
import { countCharacters } from '@cadence/core/text/graphemes.ts';
import { splitToFit } from '@cadence/core/text/breakLines.ts';

const count = Number(process.argv[2] ?? 500);
let state = Number(process.argv[3] ?? 1);
const random = (): number => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;

const articles = ['the', 'a', 'an', 'his', 'our', 'every', 'that'];
const prepositions = [
  'of',
  'in',
  'to',
  'at',
  'by',
  'for',
  'from',
  'with',
  'on',
  'under',
  'between',
  'behind',
  'across',
];
const adjectives = [
  'old',
  'rusty',
  'patient',
  'grey',
  'second',
  'never-ending',
  'small',
  'unremarkable',
];
const nouns = [
  'ferry',
  'chain',
  'winch',
  'bell',
  'harbour board',
  'tide',
  'Skerrymoor',
  'grandmother',
  'oilskin',
  'correspondence',
  'mud',
  'Orlo Penhaligon',
];
const verbs = [
  'lifts',
  'complains',
  'has forgotten',
  'was waiting',
  'remembers',
  'sings',
  'crossed',
  'will not hear',
];
const phrase = () => `${one(articles)} ${random() < 0.5 ? `${one(adjectives)} ` : ''}${one(nouns)}`;
function sentence(words: number): string {
  let text = phrase();
  while (text.split(' ').length < words) {
    text += ` ${one(verbs)}`;
    for (let more = Math.floor(random() * 3); more >= 0; more--)
      text += ` ${one(prepositions)} ${phrase()}`;
    text += random() < 0.3 ? `, ${one(['and', 'but', 'while', 'because'])} ${phrase()}` : '';
    if (random() < 0.2) text += `. ${phrase()}`;
  }
  return `${text}.`;
}

let [over, breaks, torn, parts, many] = [0, 0, 0, 0, 0];
const begun = performance.now();
for (let at = 0; at < count; at++) {
  const text = sentence(5 + Math.floor(random() * 56));
  const cues = splitToFit(text, { lines: 2, longestLine: 42 });
  parts += cues.length;
  many += cues.filter((lines) => lines.length > 2).length;
  const lines = cues.flat().map(({ from, to }) => text.slice(from, to));
  over += lines.filter((line) => countCharacters(line) > 42).length;
  breaks += lines.length - 1;
  torn += lines
    .slice(0, -1)
    .filter((line) => [...articles, ...prepositions].includes(line.split(' ').at(-1) ?? '')).length;
}
console.log(
  `${count} made-up lines became ${parts} cues in ${(performance.now() - begun).toFixed(0)} ms`,
);
console.log(`lines over 42 characters: ${over}; cues of more than 2 lines: ${many}`);
console.log(`breaks: ${breaks}, torn ${torn} (${((100 * torn) / breaks).toFixed(2)} %)`);
