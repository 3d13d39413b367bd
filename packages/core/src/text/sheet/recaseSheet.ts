/** Capitals and small letters in a sheet: in its headings, its roles, its names or its lines. */
import type { Casing } from '../language/casing.ts';
import { keptIn, recase } from '../language/casing.ts';
import { readSheet, type SheetPart } from './sheet.ts';

export const SHEET_TEXTS = ['headings', 'roles', 'names', 'lines'] as const;
export type SheetTexts = (typeof SHEET_TEXTS)[number];

/** A text of a sheet that would be written in other letters. */
export interface RecasedText {
  /** The line of the sheet on which it is, from 0. */
  readonly line: number;
  readonly old: string;
  readonly text: string;
}

/** The texts of a part, where they stand, and which of the four they are. */
function textsOf(part: SheetPart): { of: SheetTexts; text: string; line: number }[] {
  switch (part.kind) {
    case 'title':
    case 'heading':
      return [{ of: 'headings', text: part.text, line: part.line }];
    case 'text':
      return [{ of: 'lines', text: part.text, line: part.line }];
    case 'row':
    case 'columns':
      return [
        ...(part.kind === 'row'
          ? [{ of: 'roles' as const, text: part.role, line: part.line }]
          : []),
        ...part.names.map(({ text, line }) => ({ of: 'names' as const, text, line })),
      ];
    default:
      return [];
  }
}

/**
 * The texts of a sheet that would be written in other letters, in order. Abbreviations and names keep the capitals that
 * they have elsewhere in it.
 *
 * @param separator  as `readSheet` takes it
 * @param known  words that are names besides, as they are written
 */
export function recasedTexts(
  sheet: string,
  separator: string | undefined,
  which: ReadonlySet<SheetTexts>,
  casing: Casing,
  known: readonly string[] = [],
): RecasedText[] {
  const all = readSheet(sheet, separator).parts.flatMap(textsOf);
  const kept = keptIn(
    all.map(({ text }) => text),
    known,
  );
  return all.flatMap(({ of, text: old, line }) => {
    const text = which.has(of) ? recase(old, casing, kept) : old;
    return text === old ? [] : [{ line, old, text }];
  });
}

/** A sheet with texts in the place of others that stand on the same lines. */
export function withTexts(sheet: string, texts: readonly RecasedText[]): string {
  const lines = sheet.split('\n');
  /** How much of a line is written already: one text comes after the other. */
  const from = new Map<number, number>();
  for (const { line, old, text } of texts) {
    const whole = lines[line] ?? '';
    const at = whole.indexOf(old, from.get(line) ?? afterMarks(whole));
    if (at < 0) continue;
    lines[line] = whole.slice(0, at) + text + whole.slice(at + old.length);
    from.set(line, at + text.length);
  }
  return lines.join('\n');
}

/** Where the text of a line begins that may have marks before it. */
const afterMarks = (line: string): number => /^(?:\s*\[[^\]]*\])*/.exec(line)?.[0].length ?? 0;
