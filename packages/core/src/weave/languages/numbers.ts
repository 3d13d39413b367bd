/** How figures are read out in English, in every likely way. */
import { toCardinal, toOrdinal } from 'n2words/en-GB';

const words = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[\s-]+/)
    .filter(Boolean);
const cardinal = (figures: string): string[] => words(toCardinal(BigInt(figures)));
const withoutAnd = (reading: readonly string[]): string[] =>
  reading.filter((word) => word !== 'and');

const digits = ['oh', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];

/** Figure by figure, as codes and numbers of telephones are. */
export const oneByOne = (figures: string): string[][] => {
  const said = Array.from(figures, (figure) => digits[Number(figure)] ?? figure);
  if (!figures.includes('0')) return [said];
  return [said, said.map((word) => (word === 'oh' ? 'zero' : word))];
};

/** Two by two, as years and numbers of houses are: "nineteen oh five", "one thirty two". */
function inPairs(figures: string): string[][] {
  if (figures.length < 3 || figures.length > 4 || figures.startsWith('0')) return [];
  const head = cardinal(figures.slice(0, -2));
  const tail = figures.slice(-2);
  if (tail === '00') return [[...head, 'hundred']];
  if (tail.startsWith('0')) return [[...head, 'oh', ...cardinal(tail)]];
  return [[...head, ...cardinal(tail)]];
}

/** The longest number that is read as one. */
const MOST_FIGURES = 15;

/** A whole number, its figures without anything between them. */
export function wholeNumber(figures: string): string[][] {
  if (figures.length > MOST_FIGURES) return oneByOne(figures.slice(0, 40));
  const whole = cardinal(figures);
  const readings = [whole, withoutAnd(whole), ...inPairs(figures)];
  // "A hundred" for "one hundred".
  if (whole[0] === 'one' && whole.length > 1) readings.push(['a', ...whole.slice(1)]);
  if (figures.length > 1 && (figures.startsWith('0') || figures.length < 5))
    readings.push(...oneByOne(figures));
  return readings;
}

/** "1887" as a year comes first: what has four figures and no comma mostly is one. */
export const numberOrYear = (figures: string): string[][] =>
  /^(?:1[1-9]|20[1-9])\d\d?$/.test(figures) && figures.length === 4
    ? [...inPairs(figures), ...wholeNumber(figures)]
    : wholeNumber(figures);

/** "2nd", "1930s". */
export function ordinalNumber(figures: string): string[][] {
  const whole = words(toOrdinal(BigInt(figures.slice(0, MOST_FIGURES))));
  return [whole, withoutAnd(whole), ['the', ...whole]];
}

/** The plural of a number: decades. */
export const pluralOf = (reading: readonly string[]): string[] =>
  reading.map((word, at) =>
    at < reading.length - 1 ? word : word.endsWith('y') ? `${word.slice(0, -1)}ies` : `${word}s`,
  );

/** "3.5": the whole, then figure by figure. */
export const decimal = (whole: string, part: string): string[][] => {
  const heads = whole === '' ? [[], ['nought'], ['zero']] : wholeNumber(whole).slice(0, 2);
  return heads.flatMap((head) => oneByOne(part).map((tail) => [...head, 'point', ...tail]));
};

/** "10:30", "7.05": hours and minutes. */
export function clockTime(hours: string, minutes: string): string[][] {
  const hour = cardinal(hours);
  const next = cardinal(String((Number(hours) % 12) + 1));
  const past = Number(minutes);
  if (past === 0) return [[...hour, "o'clock"], hour, [...hour, 'hundred']];
  const plain = past < 10 ? ['oh', ...cardinal(minutes)] : cardinal(minutes);
  const readings = [[...hour, ...plain]];
  if (past === 30) readings.push(['half', 'past', ...hour], ['half', ...hour]);
  else if (past === 15)
    readings.push(['quarter', 'past', ...hour], ['a', 'quarter', 'past', ...hour]);
  else if (past === 45) readings.push(['quarter', 'to', ...next], ['a', 'quarter', 'to', ...next]);
  else if (past < 30) readings.push([...cardinal(minutes), 'past', ...hour]);
  else readings.push([...cardinal(String(60 - past)), 'to', ...next]);
  return readings;
}

const PARTS: Readonly<Record<string, readonly [string, string]>> = {
  '2': ['half', 'halves'],
  '4': ['quarter', 'quarters'],
};

/** "3/4". */
export function fraction(over: string, under: string): string[][] {
  const [one, many] = PARTS[under] ?? [
    words(toOrdinal(BigInt(under))).join(' '),
    `${words(toOrdinal(BigInt(under))).join(' ')}s`,
  ];
  const count = cardinal(over);
  return [
    [...count, ...words(over === '1' ? one : many)],
    ...(over === '1' ? [['a', ...words(one)], words(one)] : []),
    [...count, 'over', ...cardinal(under)],
    [...count, 'slash', ...cardinal(under)],
  ];
}
