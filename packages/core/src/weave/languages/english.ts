/** English: read out, and said by the pronouncing dictionary or letter by letter. */
import { soundedOut, type LetterToSound } from '../letterToSound.ts';
import { distinct, inTurn, MOST_READINGS, type Language } from './language.ts';
import {
  clockTime,
  decimal,
  fraction,
  numberOrYear,
  oneByOne,
  ordinalNumber,
  pluralOf,
  wholeNumber,
} from './numbers.ts';

/** Short forms and signs that are said as other words. */
const said: Readonly<Record<string, readonly string[]>> = {
  mr: ['mister'],
  mrs: ['missus'],
  ms: ['miz'],
  dr: ['doctor', 'drive'],
  st: ['saint', 'street'],
  rd: ['road'],
  ave: ['avenue'],
  mt: ['mount'],
  ft: ['feet', 'foot', 'fort'],
  'in.': ['inches'],
  lb: ['pounds'],
  lbs: ['pounds'],
  oz: ['ounces'],
  kg: ['kilos', 'kilograms'],
  km: ['kilometres', 'kilometers'],
  cm: ['centimetres', 'centimeters'],
  mm: ['millimetres', 'millimeters'],
  m: ['metres', 'meters', 'million'],
  ml: ['millilitres'],
  kn: ['knots'],
  mph: ['miles per hour', 'miles an hour'],
  hz: ['hertz'],
  khz: ['kilohertz'],
  min: ['minutes'],
  sec: ['seconds'],
  hr: ['hours'],
  hrs: ['hours'],
  etc: ['etcetera', 'et cetera'],
  vs: ['versus'],
  'no.': ['number'],
  'nos.': ['numbers'],
  'vol.': ['volume'],
  'approx.': ['approximately'],
  jr: ['junior'],
  sr: ['senior'],
  'e.g.': ['for example', 'e. g.'],
  'i.e.': ['that is', 'i. e.'],
  '&': ['and'],
  '+': ['plus', 'and'],
  '=': ['equals', 'is'],
  '%': ['percent'],
  '@': ['at'],
  '#': ['number', 'hash'],
  '°': ['degrees'],
  '°c': ['degrees', 'degrees celsius'],
  '°f': ['degrees', 'degrees fahrenheit'],
  '×': ['by', 'times'],
  '½': ['half', 'a half', 'one half'],
  '¼': ['quarter', 'a quarter'],
  '¾': ['three quarters'],
  "'em": ["'em", 'them'],
};
const MONEY: Readonly<Record<string, readonly [string, string, string]>> = {
  '£': ['pound', 'pounds', 'pence'],
  $: ['dollar', 'dollars', 'cents'],
  '€': ['euro', 'euros', 'cents'],
};
const AMOUNTS: Readonly<Record<string, string>> = {
  k: 'thousand',
  m: 'million',
  bn: 'billion',
  b: 'billion',
};

const wordsWorker = (text: string): string[] => text.split(' ');
/** The name of a letter, as the dictionary has it. */
const named = (letters: string): string[] =>
  Array.from(letters.toLowerCase(), (letter) => `${letter}.`);

const figures = String.raw`(\d{1,3}(?:,\d{3})+|\d+)`;
const plain = (text: string): string => text.replaceAll(',', '');

/** What begins with a number and has something after it: tried in turn. */
const forms: readonly [RegExp, (match: readonly string[]) => (readonly string[])[]][] = [
  [/^(\d+)(?:st|nd|rd|th)$/, ([, n = '']) => ordinalNumber(n)],
  [/^'?(\d+)'?s$/, ([, n = '']) => numberOrYear(n).map(pluralOf)],
  [/^(\d{1,2})[:.](\d\d)$/, ([, h = '', m = '']) => [...clockTime(h, m), ...decimal(h, m)]],
  [
    /^(\d{1,2})[:.](\d\d)([ap])\.?m\.?$/,
    ([, h = '', m = '', half = '']) =>
      clockTime(h, m).map((reading) => [...reading, ...named(`${half}m`)]),
  ],
  [
    /^(\d{1,2})([ap])\.?m\.?$/,
    ([, h = '', half = '']) => wholeNumber(h).map((reading) => [...reading, ...named(`${half}m`)]),
  ],
  [/^(\d+)\/(\d+)$/, ([, over = '', under = '']) => fraction(over, under)],
  [new RegExp(`^${figures}\\.(\\d+)$`), ([, whole = '', part = '']) => decimal(plain(whole), part)],
  [/^\.(\d+)$/, ([, part = '']) => decimal('', part)],
  [
    new RegExp(`^([£$€])${figures}(?:\\.(\\d\\d))?(k|m|bn|b)?$`),
    ([, sign = '', whole = '', part, amount]) => {
      const [one, many, small] = MONEY[sign] ?? ['', '', ''];
      return wholeNumber(plain(whole)).flatMap((number) => {
        if (amount !== undefined) return [[...number, AMOUNTS[amount] ?? '', many]];
        const unit = whole === '1' ? one : many;
        if (part === undefined) return [[...number, unit], number];
        return wholeNumber(part).flatMap((rest) => [
          [...number, unit, ...rest],
          [...number, unit, 'and', ...rest, small],
          [...number, ...rest],
        ]);
      });
    },
  ],
  [/^\d{1,3}(?:,\d{3})+$/, ([all = '']) => wholeNumber(plain(all))],
  [/^\d+$/, ([all = '']) => numberOrYear(all)],
];

/** Parts of a token that are said one after the other: letters, figures, signs. */
const parts =
  /\d[\d.,:/]*\d(?:st|nd|rd|th|'?s)?|\d(?:st|nd|rd|th|'?s)?|[\p{L}][\p{L}'.]*|[&+=%@#×½¼¾]|°[cf]?|[£$€]\d[\d.,]*\d?(?:k|m|bn|b)?/giu;

/** Sounds of a word that the dictionary has under another form. */
function derived(lexicon: Lexicon, word: string): string[][] {
  const stem = /^(.+?)'?s'?$/.exec(word)?.[1];
  if (stem === undefined) return [];
  return lexicon(stem).map((phones) => {
    const last = phones.at(-1) ?? '';
    if (/^(?:S|Z|SH|ZH|CH|JH)$/.test(last)) return [...phones, 'IH', 'Z'];
    return [...phones, /^(?:P|T|K|F|TH)$/.test(last) ? 'S' : 'Z'];
  });
}

type Lexicon = (word: string) => string[][];

/**
 * @param dictionary  words in small letters, others of the same spelling as "word(2)"; their phones with stress
 */
export function english(
  dictionary: Readonly<Record<string, string>>,
  letterToSound: LetterToSound,
): Language {
  const phonesOf = (entry: string): string[] => entry.replace(/\d/g, '').split(' ');
  const lexicon: Lexicon = (word) => {
    const all: string[][] = [];
    for (let at = 1; at < 6; at++) {
      const name = at === 1 ? word : `${word}(${String(at)})`;
      const entry = Object.hasOwn(dictionary, name) ? dictionary[name] : undefined;
      if (entry === undefined) break;
      all.push(phonesOf(entry));
    }
    return all;
  };
  const known = (word: string): boolean => Object.hasOwn(dictionary, word);

  /** One part of a token: letters, figures or a sign. */
  const readPart = (part: string): (readonly string[])[] => {
    const small = part.toLowerCase();
    if (/^[£$€]?\.?\d/.test(small)) {
      for (const [form, read] of forms) {
        const match = form.exec(small);
        if (match) return read(match);
      }
      return [oneByOne(small.replace(/\D/g, '').slice(0, 20))[0] ?? []];
    }
    const short = said[small] ?? said[small.replace(/\.$/, '')];
    const bare = small.replace(/^'+|[.']+$/g, '') || small;
    const readings: (readonly string[])[] = short ? short.map(wordsWorker) : [];
    // Initials: with points, all in capitals, or without a vowel.
    const letters = bare.replace(/[.']/g, '');
    const capitals = part.length > 1 && part === part.toUpperCase() && letters.length < 6;
    if (/^(?:\p{L}\.)+\p{L}?$/u.test(small)) readings.push(named(letters));
    else {
      if (known(small)) readings.push([small]);
      if ((bare !== small || !known(small)) && /\p{L}/u.test(bare)) readings.push([bare]);
      if (capitals || (letters.length > 1 && letters.length < 6 && !/[aeiouy]/.test(letters)))
        readings.splice(known(bare) ? readings.length : (short?.length ?? 0), 0, named(letters));
    }
    return readings;
  };

  return {
    own: true,
    readings: (token) => {
      const text = token
        .normalize('NFC')
        .replace(/[’‘ʼ]/g, "'")
        .replace(/[‐‑–—]/g, '-');
      const inner = text.replace(/^[^\p{L}\p{N}£$€'&+=%@#×½¼¾°]+|[^\p{L}\p{N}'.%°½¼¾]+$/gu, '');
      const small = inner.toLowerCase();
      const whole: (readonly string[])[] = [];
      if (/^[\p{L}'-]+$/u.test(small) && small.includes('-')) {
        if (known(small)) whole.push([small]);
        const closed = small.replaceAll('-', '');
        if (known(closed)) whole.push([closed]);
      }
      // "10–12": from one to the other.
      const range = /^(\d[\d.,:]*)-(\d[\d.,:]*)[.,]?$/.exec(inner);
      const found = range
        ? [range[1] ?? '', 'to', range[2] ?? '']
        : Array.from(
            inner
              .replace(/[.,:]+$/, (end) => (/\p{L}\.$/u.test(inner) ? '.' : end.slice(0, 0)))
              .matchAll(parts),
            ([part]) => part,
          );
      const said_ = found.map((part) =>
        part === 'to' && range ? [['to'], []] : distinct(readPart(part)),
      );
      return distinct([...whole, ...inTurn(said_)]).slice(0, MOST_READINGS);
    },
    sounds: (word) => {
      const all = lexicon(word);
      if (all.length > 0) return all;
      const formed = derived(lexicon, word);
      if (formed.length > 0) return formed;
      return [soundedOut(letterToSound, word)];
    },
  };
}
