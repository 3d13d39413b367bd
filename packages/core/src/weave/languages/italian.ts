/** Italian, by its spelling. */
import { toCardinal } from 'n2words/it-IT';
import { spelled, type Rule } from './rules.ts';

const vowel = '[aeiouàèéìòóù]';
const rules: Rule[] = [
  [new RegExp(`gli(?=${vowel})`), 'L Y'],
  [/gli/, 'L IY'],
  [/gn/, 'N Y'],
  [new RegExp('sci(?=[aouàòù])'), 'SH'],
  [/sc(?=[eièéì])/, 'SH'],
  [/c?ch/, 'K'],
  [/g?gh/, 'G'],
  [/c?ci(?=[aouàòù])/, 'CH'],
  [/g?gi(?=[aouàòù])/, 'JH'],
  [/c?c(?=[eièéì])/, 'CH'],
  [/g?g(?=[eièéì])/, 'JH'],
  [/c?qu/, 'K W'],
  [/c+/, 'K'],
  [/g+/, 'G'],
  [/z+/, 'T S|D Z'],
  [/h/, ''],
  [new RegExp(`(?<=${vowel})s(?=${vowel})`), 'Z|S'],
  [/s(?=[bdglmnrv])/, 'Z'],
  [/s+/, 'S'],
  [new RegExp('i(?=[aeouàèéòóù])'), 'Y'],
  [new RegExp('u(?=[aeioàèéìòó])'), 'W'],
  [/[aà]/, 'AA'],
  [/[eèé]/, 'EH|EY'],
  [/[iìíj]/, 'IY'],
  [/[oòó]/, 'AO|OW'],
  [/[uùú]/, 'UW'],
  [/b+/, 'B'],
  [/d+/, 'D'],
  [/f+/, 'F'],
  [/[kq]+/, 'K'],
  [/l+/, 'L'],
  [/m+/, 'M'],
  [/n+/, 'N'],
  [/p+/, 'P'],
  [/r+/, 'R|D'],
  [/t+/, 'T'],
  [/[vw]+/, 'V'],
  [/x/, 'K S'],
  [/y/, 'IY'],
];

export const italian = () =>
  spelled({
    rules,
    cardinal: toCardinal,
    point: 'virgola',
    short: {
      '%': ['per cento'],
      '&': ['e'],
      '€': ['euro'],
      $: ['dollari'],
      'sig.': ['signor'],
      'dott.': ['dottor'],
      'ecc.': ['eccetera'],
    },
  });
