/** What separates a role from the names of those who did it, in a list such as credits. */

export interface Separator {
  readonly separator: string;
  readonly pattern: RegExp;
  /** What stands for it in a line here and there, beside lines that have it: another dash, one mark for two. */
  readonly near?: RegExp;
}

/** Spaces of any width, but no tab. */
const SPACE = '[ \\u00a0\\u2000-\\u200a\\u3000]';
const DASHES = '[-‒–—―−]';

/** A dash between spaces, which stands for any separator in a line here and there. */
export const BETWEEN_DASHES = new RegExp(`\\s+${DASHES}+\\s+`);

const TAB: Separator = {
  separator: '\t',
  pattern: /\t+/,
  near: new RegExp(`(?<=\\S)${SPACE}{2,}(?=\\S)`),
};
/** Of a sheet where any two spaces separate; those that indent a line put one more name under the others. */
const TWO_SPACES: Separator = {
  separator: '  ',
  pattern: new RegExp(`(?<=\\S)${SPACE}{2,}(?=\\S)|^${SPACE}{2,}(?=\\S)`),
  near: /\t+/,
};
/** What separates a role from its names, the surest first. */
const SURE: readonly Separator[] = [
  TAB,
  { separator: '::', pattern: /\s*:{2,}\s*/, near: /\s*:\s+/ },
  { separator: '|', pattern: /\s*\|+\s*/ },
  {
    separator: '....',
    pattern: /\s*(?:\.{4,}|…{2,}|(?:[.·•] ){4,}[.·•]?|[·•]{3,})\s*(?=[^\s.…])/,
    near: /\s*(?:\.{2,}|…)\s*(?=[^\s.…])/,
  },
];
const MANY_SPACES = new RegExp(`(?<=\\S)${SPACE}{3,}(?=\\S)`);
/** These stand in prose too. */
const IN_PROSE: readonly Separator[] = [
  ...[...'>=~_#<^+\\»'].map(twice),
  { separator: '//', pattern: /\s*(?<![:/])\/{2,}\s*/ },
  { separator: '..', pattern: /\s*(?:\.{2,}|…+)\s*(?=[^\s.…])/ },
  {
    separator: ' - ',
    pattern: new RegExp(`(?:^|\\s+)${DASHES}+\\s+|\\s*-{2,}\\s*`),
    near: new RegExp(`\\s*[‒–—―−]\\s*|\\s+-|-\\s+`),
  },
  ...[...'=>→~•·'].map((mark) => ({
    separator: mark,
    pattern: new RegExp(`(?:^|\\s+)${mark}\\s+`),
    near: new RegExp(`\\s*${mark}\\s*`),
  })),
  { separator: ':', pattern: /(?:^|\s*):\s+(?=\S)/, near: /\s*(?<!\d):(?![\d/])\s*|\s*：\s*/ },
  { separator: ';', pattern: /(?:^|\s*);\s+(?=\S)/ },
];

/** A mark that is written two times or more. */
function twice(mark: string): Separator {
  const one = quoted(mark);
  return {
    separator: mark + mark,
    pattern: new RegExp(`\\s*(?:${one}){2,}\\s*`),
    near: new RegExp(`(?:^|\\s+)${one}\\s+`),
  };
}

function quoted(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}

/** The part of the lines with text that must have a separator, for those that stand in prose too. */
const SHARE = 0.25;

/** Whether a separator has something on either side in a line: else it is an indent, or trails off. */
const isBetween = (line: string, pattern: RegExp): boolean =>
  pattern.test(line) && line.split(pattern).filter((part) => part.trim() !== '').length > 1;

/**
 * The surest separator that enough lines have; undefined where none is likely. One that never stands in prose is enough
 * on one line, but for dots, which may trail off once.
 */
export function separatorIn(lines: readonly string[]): Separator | undefined {
  const written = lines.map((line) => line.trim()).filter((line) => line !== '');
  const most = Math.max(1, SHARE * written.length);
  const isIn = ({ pattern }: Pick<Separator, 'pattern'>, least: number): boolean =>
    written.filter((line) => isBetween(line, pattern)).length > least;
  const sure = SURE.find((each) => isIn(each, each.separator === '....' ? 1 : 0));
  if (sure) return sure;
  const dashes = IN_PROSE.findIndex(({ separator }) => separator === ' - ');
  const first = IN_PROSE.slice(0, dashes + 1).find((each) => isIn(each, most));
  if (first) return first;
  if (isIn({ pattern: MANY_SPACES }, 0)) return TWO_SPACES;
  // Two spaces after a sentence are no separator.
  const spaced = written.filter((line) => AFTER_NO_SENTENCE.test(line)).length;
  if (spaced > most) return TWO_SPACES;
  return IN_PROSE.slice(dashes + 1).find((each) => isIn(each, most));
}
const AFTER_NO_SENTENCE = new RegExp(`(?<=\\S)(?<![.!?:;])${SPACE}{2,}(?=\\S)`);

/** A separator of the editor's choice: any text, spaces around it counting for nothing; or tabs, or two spaces and more. */
export function separatorOf(text: string): Separator {
  const own = text.trim();
  if (own === '') return text.includes('\t') ? TAB : TWO_SPACES;
  const known = [...SURE, ...IN_PROSE].find(({ separator }) => separator === text);
  if (known) return known;
  const [mark = ''] = own;
  if (own.length > 1 && [...own].every((each) => each === mark)) return twice(mark);
  return { separator: text, pattern: new RegExp(`\\s*${quoted(own)}\\s*`) };
}
