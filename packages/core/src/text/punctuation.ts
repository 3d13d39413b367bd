/** Quotes, dashes, ellipses and figures as they are set in print, from how they are typed. */

/** What is made proper. */
export interface Proper {
  readonly quotes: boolean;
  readonly dashes: boolean;
  readonly ellipses: boolean;
  readonly figures: boolean;
}

/** Words that begin with an apostrophe, where letters were left out. */
const elided =
  /^(?:tis|twas|twere|twill|em|til|till|cause|bout|round|neath|gainst|n|cos)(?![\p{L}\p{N}])/iu;

function quotesIn(text: string): string {
  return text.replace(/["']/g, (mark, at: number) => {
    const before = text.slice(0, at).at(-1) ?? ' ';
    const rest = text.slice(at + 1);
    const opens = /[\s([{–—“‘/-]/u.test(before) && /^\S/u.test(rest);
    if (mark === '"') return opens ? '“' : '”';
    if (/[\p{L}\p{N}]/u.test(before)) return '’';
    if (opens && (elided.test(rest) || /^\d\ds?(?!\d)/.test(rest))) return '’';
    return opens ? '‘' : '’';
  });
}

const dashesIn = (text: string): string =>
  text
    .replace(/(?<=\S)\s*---\s*(?=\S)/g, '—')
    .replace(/(?<=\S) -{1,2} (?=\S)/g, ' – ')
    .replace(/(?<=\p{L})--(?=\p{L})/gu, ' – ')
    .replace(/--(?=["”’']?\s*$)/gm, '–')
    // Who speaks in turn: a dash at the start of a line.
    .replace(/^(\s*)-{1,2}(?=\s?\p{L})/gmu, '$1–')
    // From one figure to another; dates and numbers of telephones have more than one.
    .replace(
      /(?<![\p{L}\p{N}.,:/-])(\d+(?:[.:]\d+)?)-(\d+(?:[.:]\d+)?)(?![\p{L}\p{N}-])/gu,
      '$1–$2',
    );

/** Three dots are an ellipsis; what is over ends the sentence. */
const ellipsesIn = (text: string): string =>
  text
    .replace(/(?<!\.)\. \. \.(?!\.)/g, '...')
    .replace(/\.{3,}/g, (dots) => '…'.repeat(dots.length / 3) + '.'.repeat(dots.length % 3));

/** Units that are set apart from their figure by a space that does not break. */
const units =
  /(\d) (?=(?:km|m|cm|mm|kg|g|t|l|ml|s|min|h|Hz|kHz|MHz|kB|MB|GB|px|%|°C|°F|kn|mph|a\.m\.|p\.m\.)(?![\p{L}\p{N}]))/gu;
const fractions: Readonly<Record<string, string>> = {
  '1/2': '½',
  '1/4': '¼',
  '3/4': '¾',
  '1/3': '⅓',
  '2/3': '⅔',
};

const figuresIn = (text: string): string =>
  text
    .replace(units, '$1\u00a0')
    .replace(/\b(No\.|p\.|pp\.) (?=\d)/g, '$1\u00a0')
    .replace(/(?<![\p{L}\p{N}/.])([123])\/([234])(?![\p{N}/])/gu, (all) => fractions[all] ?? all)
    .replace(/(?<=\d) ?x ?(?=\d)/g, ' × ')
    .replace(/(?<=^|[\s(])-(?=\d)/gm, '−')
    // From ten thousand on; years have four figures, and what begins with a nought is a code.
    .replace(/(?<![\p{L}\p{N}.,:/−-])[1-9]\d{4,}(?![\p{L}\p{N}/:-]|\.\d*[\p{L}])/gu, (number) =>
      number.replace(/\B(?=(?:\d{3})+$)/g, ','),
    );

function once(text: string, proper: Proper): string {
  let result = text;
  if (proper.ellipses) result = ellipsesIn(result);
  if (proper.dashes) result = dashesIn(result);
  if (proper.figures) result = figuresIn(result);
  return proper.quotes ? quotesIn(result) : result;
}

/**
 * Text with its marks made proper. Doing it again changes nothing: what one mark became can make
 * the next one plain, and it is gone over until nothing is left. Every turn uses up typed marks,
 * so there is a last one.
 */
export function withProperMarks(text: string, proper: Proper): string {
  const result = once(text, proper);
  return result === text ? result : withProperMarks(result, proper);
}
