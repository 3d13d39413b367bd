/** Any other language: its text in Latin letters, each said as in most of the languages that use them. */
import anyAscii from 'any-ascii';
import { toCardinal } from 'n2words/en-GB';
import { spelled, type Rule } from './rules.ts';

const rules: Rule[] = [
  [/ch/, 'CH'],
  [/sh/, 'SH'],
  [/zh/, 'ZH'],
  [/th/, 'T|TH'],
  [/ph/, 'F'],
  [/kh/, 'HH|K'],
  [/ts/, 'T S'],
  [/ng/, 'NG'],
  [/ai|ay/, 'AY'],
  [/au|ao/, 'AW'],
  [/ei|ey/, 'EY'],
  [/oi|oy/, 'OY'],
  [/ou/, 'OW|UW'],
  [/a+/, 'AA'],
  [/e+/, 'EH'],
  [/i+/, 'IY'],
  [/o+/, 'AO|OW'],
  [/u+/, 'UW'],
  [/y(?=[aeiou])/, 'Y'],
  [/y/, 'IY'],
  [/b+/, 'B'],
  [/c+/, 'K|S'],
  [/d+/, 'D'],
  [/f+/, 'F'],
  [/g+/, 'G'],
  [/h+/, 'HH'],
  [/j/, 'Y|JH'],
  [/[kq]+/, 'K'],
  [/l+/, 'L'],
  [/m+/, 'M'],
  [/n+/, 'N'],
  [/p+/, 'P'],
  [/r+/, 'R'],
  [/s+/, 'S'],
  [/t+/, 'T'],
  [/v/, 'V'],
  [/w/, 'W|V'],
  [/x/, 'K S|SH'],
  [/z+/, 'Z'],
];

export const otherScript = () =>
  spelled({ rules, cardinal: toCardinal, point: 'point', short: {}, letters: anyAscii });
