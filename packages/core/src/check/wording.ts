/** Slips of the pen in the text of cues: words written twice, wrong spaces, quotes and brackets left open. */
import { plainText } from '../text/lines.ts';
import { wordsOf } from '../text/words.ts';
import type { Cue } from '../programme/programme.ts';
import type { Finding } from './finding.ts';

/** A word, what stands between, and the same word again; not across the end of a sentence. */
const twice = /(?<![\p{L}\p{N}'’-])(\p{L}[\p{L}'’]*)(\s+)\1(?![\p{L}\p{N}'’-])/giu;
/** A space before a comma or full stop, though not before an ellipsis or a number. */
const strayBefore = / +([,.])(?![.\d])/g;

/** Text without the spaces that nobody meant. */
export const withoutStraySpaces = (text: string): string =>
  text
    .split('\n')
    .map((line) =>
      line
        .replace(strayBefore, '$1')
        .replace(/(?<=\S) {2,}(?=\S)/g, ' ')
        .trim(),
    )
    .join('\n');

/** The second of the two stays where a line ends between them. */
const withoutDoubles = (text: string): string =>
  text
    .replace(twice, (_, word: string, between: string) =>
      between.includes('\n') ? `\n${word}` : word,
    )
    .replace(/ +\n/g, '\n');

const pairs = [
  ['“', '”'],
  ['«', '»'],
  ['(', ')'],
  ['[', ']'],
] as const;

/** How many cues later a mark may be closed. */
const REACH = 6;

/** A text without words that stand in it in one run; undefined where they do not, or are all of it. */
function withoutLost(text: string, lost: string): string | undefined {
  const gone = wordsOf(lost).map((word) => word.text);
  const words = wordsOf(text);
  const at = words.findIndex((_, from) =>
    gone.every((word, place) => words[from + place]?.text === word),
  );
  const [first, after] = [words[at], words[at + gone.length]];
  if (gone.length === 0 || !first || gone.length === words.length) return undefined;
  const end = after ? after.from : text.length;
  return (text.slice(0, first.from) + text.slice(end)).trim();
}

const count = (text: string, mark: string): number => text.split(mark).length - 1;

/** The mark in the text at a place whose other half is in no text nearby; undefined where there is none. */
function leftOpen(texts: readonly string[], at: number): string | undefined {
  const text = texts[at] ?? '';
  const around = (from: number, to: number) => texts.slice(Math.max(0, from), to).join('\n');
  for (const [opening, closing] of pairs) {
    const over = count(text, opening) - count(text, closing);
    const after = around(at + 1, at + 1 + REACH);
    const before = around(at - REACH, at);
    if (over > 0 && count(after, closing) <= count(after, opening)) return opening;
    if (over < 0 && count(before, opening) <= count(before, closing)) return closing;
  }
  const isOdd = count(text, '"') % 2 === 1;
  const others = texts.slice(Math.max(0, at - REACH), at + 1 + REACH);
  return isOdd && others.filter((other) => count(other, '"') % 2 === 1).length < 2
    ? '"'
    : undefined;
}

/** The slips in the cues of a strand, in order, with the text that would mend them where it is known. */
export function wordingOf(cues: readonly Cue[]): Finding[] {
  const texts = cues.map(({ text }) => plainText(text));
  return cues.flatMap((cue, place) => {
    const text = texts[place] ?? '';
    const found: Finding[] = [];
    const slip = (finding: Pick<Finding, 'kind' | 'message' | 'mend' | 'place' | 'subject'>) =>
      found.push({ ...finding, severity: 'doubtful', at: cue.start, cue: cue.id, foundIn: text });
    const doubled = [...text.matchAll(twice)][0];
    if (doubled) {
      const [both, word = ''] = doubled;
      slip({
        kind: 'doubled word',
        message: `Repeated word: “${word}”`,
        mend: withoutDoubles(text),
        place: { from: doubled.index, to: doubled.index + both.length },
        subject: word.toLocaleLowerCase('und'),
      });
    }
    const tidy = withoutStraySpaces(text);
    if (tidy !== text) slip({ kind: 'spaces', message: 'Wrong spaces', mend: tidy });
    if (typeof cue.cutShort === 'string') {
      const mend = withoutLost(text, cue.cutShort);
      slip({
        kind: 'cut short',
        message:
          cue.cutShort === ''
            ? 'Cut short: part of it may not be in the sound any longer'
            : `Cut short: “${cue.cutShort}” is not in the sound any longer`,
        ...(mend !== undefined && { mend }),
      });
    }
    const open = leftOpen(texts, place);
    if (open !== undefined) slip({ kind: 'unmatched mark', message: `Unmatched ${open}` });
    return found;
  });
}
