/** Finding in text, by words or by a pattern, and what stands there instead. */

export interface Search {
  readonly text: string;
  /** Whether `text` is a regular expression of JavaScript, with Unicode rules. */
  readonly pattern: boolean;
  readonly matchCase: boolean;
  readonly wholeWords: boolean;
}

/** A match, where it stands in UTF-16 units, and what its brackets caught. */
export interface Match {
  readonly from: number;
  readonly to: number;
  readonly groups: readonly (string | undefined)[];
}

/** A pattern that cannot be read. */
export class BrokenPattern extends Error {
  override readonly name = 'BrokenPattern';
}

const escaped = (text: string): string => text.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&');

/** @throws BrokenPattern where the pattern is not one */
function expressionOf({ text, pattern, matchCase, wholeWords }: Search): RegExp {
  const inner = pattern ? text : escaped(text).replace(/'|’/g, "['’]");
  const whole = wholeWords ? `(?<![\\p{L}\\p{N}_])(?:${inner})(?![\\p{L}\\p{N}_])` : inner;
  try {
    return new RegExp(whole, `gmu${matchCase ? '' : 'i'}`);
  } catch (error) {
    const why = error instanceof Error ? error.message.replace(/^.*\/: /, '') : '';
    throw new BrokenPattern(`This pattern cannot be read: ${why.toLowerCase()}.`);
  }
}

/**
 * The matches in a text, in order, none over another; empty ones are left out.
 *
 * Words are found whichever apostrophe they are written with. `^` and `$` stand for the ends of lines.
 *
 * @throws BrokenPattern where the pattern is not one
 */
export function findIn(text: string, search: Search): Match[] {
  if (search.text === '') return [];
  return [...text.matchAll(expressionOf(search))].flatMap((match) =>
    match[0] === ''
      ? []
      : [{ from: match.index, to: match.index + match[0].length, groups: match.slice(1) }],
  );
}

/**
 * What takes the place of a match: for a pattern, `$1` to `$99` stand for what its brackets caught, `$0` for all of
 * it, `$$` for a dollar sign and `\n` for a new line.
 */
export function replacementFor(
  text: string,
  { from, to, groups }: Match,
  by: string,
  { pattern }: Pick<Search, 'pattern'>,
): string {
  if (!pattern) return by;
  return by.replace(/\$(\$|\d{1,2})|\\n/g, (all, which?: string) => {
    if (which === undefined) return '\n';
    if (which === '$') return '$';
    const group = Number(which);
    if (group === 0) return text.slice(from, to);
    return group <= groups.length ? (groups[group - 1] ?? '') : all;
  });
}
