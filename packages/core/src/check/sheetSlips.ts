/**
 * What may be wrong in the text of a sheet: lines without the separator, its spelling, names that are written in two
 * ways, and names that stand twice.
 */
import { unstarred } from '../text/emphasis.ts';
import type { ReadSheet, SheetPart } from '../text/sheet/sheet.ts';
import { misspelt, type Speller } from '../text/language/spelling.ts';
import { folded } from './names.ts';
import { editDistance } from '../text/language/editDistance.ts';

export interface SheetSlip {
  readonly kind: 'spelling' | 'name' | 'twice' | 'separator';
  /** The line of the sheet on which it is, from 0. */
  readonly line: number;
  /** The text that it is about, as it stands in the line. */
  readonly text: string;
  readonly message: string;
  /** What would mend it, in the place of the text, where it is known. */
  readonly mend?: string;
}

/** A name, where it stands, and the list of which it is one. */
interface Named {
  readonly name: string;
  readonly line: number;
  readonly list: number;
}

const namesIn = (parts: readonly SheetPart[]): Named[] =>
  parts.flatMap((part, list) =>
    part.kind === 'row' || part.kind === 'columns'
      ? part.names.map(({ text, line }) => ({ name: unstarred(text), line, list }))
      : [],
  );

/** So many letters may two spellings of a name of so many be apart. */
const nearFor = (length: number): number => (length >= 12 ? 2 : length >= 7 ? 1 : 0);

/** What two names that are near each other have in common: how they begin, or how they end. */
const keysOf = (name: string): string[] => [`<${name.slice(0, 4)}`, `>${name.slice(-4)}`];

function namesTwice(names: readonly Named[]): SheetSlip[] {
  const seen = new Map<string, Named>();
  return names.flatMap(({ name, line, list }): SheetSlip[] => {
    const key = `${list} ${folded(name)}`;
    const first = seen.get(key);
    if (!first) seen.set(key, { name, line, list });
    if (!first || name === '') return [];
    const message = `“${name}” is listed twice here`;
    return [{ kind: 'twice', line, text: name, message }];
  });
}

function namesTwoWays(names: readonly Named[]): SheetSlip[] {
  const spellings = new Map<string, { count: number; first: Named }>();
  for (const named of names) {
    const known = spellings.get(named.name);
    if (known) known.count++;
    else spellings.set(named.name, { count: 1, first: named });
  }
  const all = [...spellings].sort(
    ([, a], [, b]) => b.count - a.count || a.first.line - b.first.line,
  );
  const byKey = new Map<string, string[]>();
  const found: SheetSlip[] = [];
  for (const [name] of all) {
    const own = folded(name);
    const other = keysOf(own)
      .flatMap((key) => byKey.get(key) ?? [])
      .find((each) => {
        const theirs = folded(each);
        const most = nearFor(Math.min(own.length, theirs.length));
        return theirs === own || (most > 0 && editDistance(own, theirs, most) <= most);
      });
    if (other !== undefined)
      for (const each of names.filter((named) => named.name === name))
        found.push({
          kind: 'name',
          line: each.line,
          text: name,
          message: `“${name}” here, “${other}” elsewhere`,
          mend: other,
        });
    for (const key of keysOf(own)) byKey.set(key, [...(byKey.get(key) ?? []), name]);
  }
  return found;
}

/** The part of a group that must be rows for a line in it that is none to be a slip. */
const ROWS_SHARE = 0.75;

/** Lines without the separator among rows that have it. */
function withoutSeparator({
  parts,
  separator,
}: Pick<ReadSheet, 'parts' | 'separator'>): SheetSlip[] {
  if (!separator) return [];
  const groups: SheetPart[][] = [[]];
  for (const part of parts)
    if (part.kind === 'row' || (part.kind === 'text' && part.measure === 'usual' && !part.stays))
      groups.at(-1)?.push(part);
    else groups.push([]);
  return groups.flatMap((group) => {
    const lines = group.flatMap((part, at) => {
      const isBeside = [at - 1, at + 1].every((other) => (group[other]?.kind ?? 'row') === 'row');
      return part.kind === 'text' && isBeside ? [part] : [];
    });
    const rows = group.filter(({ kind }) => kind === 'row').length;
    if (rows < 2 || rows < ROWS_SHARE * group.length) return [];
    return lines.map(({ text, line }): SheetSlip => ({
      kind: 'separator',
      line,
      text,
      message: `“${unstarred(text)}” lacks the separator`,
    }));
  });
}

/** The texts of a sheet that are words and not names: roles, headings, lines. */
const wordsIn = (parts: readonly SheetPart[]): { text: string; line: number }[] =>
  parts.flatMap((part) => {
    const said =
      part.kind === 'row'
        ? part.role
        : part.kind === 'heading' || part.kind === 'text' || part.kind === 'title'
          ? part.text
          : '';
    return said === '' ? [] : [{ text: unstarred(said), line: part.line }];
  });

/**
 * What may be wrong in a sheet, by line.
 *
 * @param speller  knows the words of the language; without one, no spelling is checked
 * @param isRight  whether the editor said that a word is right
 */
export function sheetSlips(
  { parts, separator }: Pick<ReadSheet, 'parts' | 'separator'>,
  speller?: Speller,
  isRight: (word: string) => boolean = () => false,
): SheetSlip[] {
  const names = namesIn(parts);
  // A word that is part of a name here is a name elsewhere too.
  const known = new Set(names.flatMap(({ name }) => name.split(/[\s-]+/)));
  const spelling = !speller
    ? []
    : wordsIn(parts).flatMap(({ text, line }) =>
        misspelt(text, speller, (word) => isRight(word) || known.has(word)).map(
          ({ word }): SheetSlip => ({
            kind: 'spelling',
            line,
            text: word,
            message: `“${word}” is not in the dictionary`,
          }),
        ),
      );
  const slips = [
    ...withoutSeparator({ parts, separator }),
    ...spelling,
    ...namesTwice(names),
    ...namesTwoWays(names),
  ];
  return slips.sort((a, b) => a.line - b.line);
}
