/** What parts a role from the names of those who did it, in a list such as credits. */

export interface Separator {
  readonly separator: string;
  readonly pattern: RegExp;
}

/** What may part a role from its names, the surest first. */
const SEPARATORS = [
  { separator: '\t', pattern: /\t+/ },
  { separator: '::', pattern: /\s*::\s*/ },
  { separator: '|', pattern: /\s*\|\s*/ },
  { separator: '....', pattern: /\s*(?:\.{4,}|…{2,}|(?:\. ){4,})\s*(?=\S)/ },
  { separator: ' - ', pattern: /\s+[-–—]\s+/ },
  { separator: '  ', pattern: /(?<=\S) {3,}(?=\S)/ },
  { separator: ':', pattern: /:\s+(?=\S)/ },
] as const satisfies readonly Separator[];

/** The part of the lines with text that must have a separator, for those that stand in prose too. */
const SHARE = 0.25;
const IN_PROSE = new Set([' - ', ':']);

/** Whether a separator has something on either side in a line: else it is an indent, or trails off. */
const isBetween = (line: string, pattern: RegExp): boolean =>
  pattern.test(line) && line.split(pattern).filter((part) => part.trim() !== '').length > 1;

/** The surest separator that enough lines have; undefined where none is likely. */
export function separatorIn(lines: readonly string[]): Separator | undefined {
  const written = lines.map((line) => line.trim()).filter((line) => line !== '');
  const least = (separator: string): number => {
    if (IN_PROSE.has(separator)) return Math.max(1, SHARE * written.length);
    // Dots may trail off once.
    return separator === '....' ? 1 : 0;
  };
  return SEPARATORS.find(
    ({ separator, pattern }) =>
      written.filter((line) => isBetween(line, pattern)).length > least(separator),
  );
}

const quoted = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** A separator of the editor's choice: any text, spaces around it counting for nothing; or tabs, or two spaces and more. */
export function separatorOf(text: string): Separator {
  if (text.trim() !== '') {
    const known = SEPARATORS.find(({ separator }) => separator === text);
    return known ?? { separator: text, pattern: new RegExp(`\\s*${quoted(text.trim())}\\s*`) };
  }
  return text.includes('\t')
    ? { separator: '\t', pattern: /\t+/ }
    : { separator: '  ', pattern: /(?<=\S) {2,}(?=\S)|^ {2,}(?=\S)/ };
}
