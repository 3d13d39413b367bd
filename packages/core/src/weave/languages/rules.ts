/** Languages whose spelling tells how they are said: rules from letters to the nearest phones of the model. */
import { distinct, inTurn, type Language } from './language.ts';

/**
 * What begins at a letter, and the phones it is said with: a regular expression that is tried there and names of
 * phones with spaces between; ways that are as likely are parted by "|".
 */
export type Rule = readonly [RegExp, string];

export interface Spelled {
  readonly rules: readonly Rule[];
  /** A whole number in words. */
  readonly cardinal: (figures: bigint) => string;
  /** What stands between the figures of a decimal. */
  readonly point: string;
  /** Signs and short forms, as they are said. */
  readonly short: Readonly<Record<string, readonly string[]>>;
  /** The text in the letters that the rules know. */
  readonly letters?: (text: string) => string;
}

const MOST_WAYS = 6;

/** Each way in which a word can be said. Letters without a rule are silent. */
function saidBy(rules: readonly Rule[], word: string): string[][] {
  let all: string[][] = [[]];
  let at = 0;
  while (at < word.length) {
    let length = 1;
    for (const [pattern, phones] of rules) {
      pattern.lastIndex = at;
      const match = pattern.exec(word);
      if (!match || match[0].length === 0) continue;
      length = match[0].length;
      const ways = phones.split('|').map((way) => way.split(' ').filter(Boolean));
      all = ways.flatMap((way) => all.map((begun) => [...begun, ...way])).slice(0, MOST_WAYS);
      break;
    }
    at += length;
  }
  return all.filter((phones) => phones.length > 0);
}

/** The rules with a sticky flag each, made once. */
const compiled = (rules: readonly Rule[]): Rule[] =>
  rules.map(([pattern, phones]) => [new RegExp(pattern.source, 'uy'), phones]);

const MOST_FIGURES = 15;

export function spelled({ rules, cardinal, point, short, letters }: Spelled): Language {
  const known = compiled(rules);
  const number = (figures: string): string[][] => {
    const words = (text: string) =>
      text
        .toLowerCase()
        .split(/[\s-]+/)
        .filter(Boolean);
    if (figures.length > MOST_FIGURES)
      return [Array.from(figures.slice(0, 40), (figure) => cardinal(BigInt(figure)))];
    return [words(cardinal(BigInt(figures)))];
  };
  const part = (text: string): (readonly string[])[] => {
    const figures = /^(\d+(?:[.\u00a0]\d{3})*)(?:[.,:](\d+))?$/u.exec(text);
    if (figures) {
      const whole = number((figures[1] ?? '').replace(/\D/g, ''));
      if (figures[2] === undefined) return whole;
      const rest = number(figures[2]);
      return whole.flatMap((head) =>
        rest.flatMap((tail) => [
          [...head, point, ...tail],
          [...head, ...tail],
        ]),
      );
    }
    const said = short[text];
    return said ? said.map((words) => words.split(' ')) : [[text]];
  };
  return {
    own: false,
    readings: (token) => {
      const text = (letters?.(token) ?? token).normalize('NFC').toLowerCase();
      const parts = Array.from(
        text.matchAll(/\d+(?:[.,:]\d+)*|[\p{L}\p{M}]+\.?|[%&€$£°]/gu),
        ([all]) => (Object.hasOwn(short, all) ? all : all.replace(/\.$/, '')),
      );
      return distinct(inTurn(parts.map(part)));
    },
    sounds: (word) => saidBy(known, word),
  };
}
