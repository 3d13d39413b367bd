/**
 * The sheet: the plain text of a roll or a crawl, as a person would type it, and what each of its lines is.
 *
 * Roles and names are parted by tabs, two or more spaces, a colon, dots or whatever the editor chose; a row without a
 * role adds names to the one before. Blank lines are space. What cannot be guessed is marked in square brackets, on a line
 * of its own or before a text; docs/sheet.md shows all of it.
 */
import { separatorIn, separatorOf, type Separator } from './separator.ts';
import { isRule, sheetLines } from './sheetLines.ts';

/** A text, and the line of the sheet on which it stands, from 0. */
export interface Placed {
  readonly text: string;
  readonly line: number;
  /** Set on a name that is never left out to make the rest fit. */
  readonly stays?: true;
}

export type Measure = 'usual' | 'larger' | 'smaller';
/** Where a line or a picture stands from side to side of what the roll takes up; in the middle unless said. */
export type Stand = 'left' | 'centre' | 'right';

/** What holds for lines by the marks above them. */
interface Marked {
  /** From 0, of the line of the sheet on which it begins. */
  readonly line: number;
  readonly measure: Measure;
  readonly stand?: Exclude<Stand, 'centre'>;
  /** Whether it is never left out to make the rest fit. */
  readonly stays: boolean;
  /** Whether it stands beside the lines before the blank one above, and goes in step with them. */
  readonly beside?: true;
  /** Parts of one number are not torn apart: they stand in sight together. */
  readonly group?: number;
}

export type SheetPart =
  | (Marked & { readonly kind: 'title' | 'heading' | 'text'; readonly text: string })
  | (Marked & { readonly kind: 'row'; readonly role: string; readonly names: readonly Placed[] })
  | (Marked & {
      readonly kind: 'columns';
      readonly count: number;
      /** Whether all columns have as many names, or each is filled before the next. */
      readonly balanced: boolean;
      readonly names: readonly Placed[];
    })
  | (Marked & { readonly kind: 'picture'; readonly name: string })
  | (Marked & { readonly kind: 'rule' })
  | (Marked & { readonly kind: 'space'; readonly lines: number });

/** A mark that nobody understands, and the line on which it stands. */
export interface NotUnderstood {
  readonly line: number;
  readonly mark: string;
}

export interface ReadSheet {
  readonly parts: readonly SheetPart[];
  /** What parts roles from names; undefined where there are no rows. */
  readonly separator: Separator | undefined;
  readonly notUnderstood: readonly NotUnderstood[];
}

/** Columns that fit beside each other at the most. */
export const MOST_COLUMNS = 6;

/** A mark, and what it is before: one space goes with it, and an indent stays. */
const MARK = /^\s*\[([^\]]*)\] ?(.*)$/;
const COMMENT = /^\s*\/\//;
const COLUMNS = /^(?:in\s+)?([2-9])\s+columns?(?:\s*,\s*(balanced|filled))?$/;

/** What a mark says; undefined where it says nothing that is known. */
type Says =
  | { readonly kind: 'title' | 'heading' | 'rule' | 'stays' | 'together' | 'beside' }
  | { readonly kind: 'measure'; readonly measure: Measure }
  | { readonly kind: 'stand'; readonly stand: Stand }
  | { readonly kind: 'columns'; readonly count: number; readonly balanced: boolean }
  | { readonly kind: 'picture'; readonly name: string };

function said(mark: string): Says | undefined {
  const text = mark.trim().replace(/\s+/g, ' ');
  const low = text.toLowerCase();
  const columns = COLUMNS.exec(low);
  if (columns && Number(columns[1]) <= MOST_COLUMNS)
    return { kind: 'columns', count: Number(columns[1]), balanced: columns[2] !== 'filled' };
  if (low === 'title' || low === 'heading' || low === 'rule' || low === 'stays' || low === 'beside')
    return { kind: low };
  if (low === 'keep together' || low === 'together') return { kind: 'together' };
  if (low === 'larger' || low === 'smaller' || low === 'usual')
    return { kind: 'measure', measure: low };
  if (low === 'left' || low === 'centre' || low === 'right') return { kind: 'stand', stand: low };
  const picture = /^picture (.+)$/i.exec(text);
  return picture ? { kind: 'picture', name: picture[1] as string } : undefined;
}

/** A line with text, after its mark was taken off. */
interface Written {
  readonly text: string;
  readonly line: number;
  readonly afterBlank: boolean;
  readonly marks: readonly Says[];
}

const usual = { measure: 'usual' as Measure, stays: false };

/** Takes marks and comments off the lines of a sheet. */
function unmarked(text: string): {
  readonly written: Written[];
  readonly blanks: ReadonlyMap<number, number>;
  readonly notUnderstood: NotUnderstood[];
} {
  const written: Written[] = [];
  const notUnderstood: NotUnderstood[] = [];
  /** How many blank lines stand before the written line of an index. */
  const blanks = new Map<number, number>();
  let marks: Says[] = [];
  text.split(/\r\n?|\n/).forEach((whole, line) => {
    if (COMMENT.test(whole)) return;
    let rest = whole;
    for (let found = MARK.exec(rest); found; found = MARK.exec(rest)) {
      const says = said(found[1] as string);
      if (!says) {
        notUnderstood.push({ line, mark: (found[1] as string).trim() });
        break;
      }
      marks.push(says);
      rest = found[2] as string;
    }
    const own = marks.some(({ kind }) => kind === 'picture' || kind === 'rule');
    if (rest.trim() === '' && !own) {
      // A line of marks alone speaks for the one after it; a blank one is space.
      if (whole.trim() === '') blanks.set(written.length, (blanks.get(written.length) ?? 0) + 1);
      return;
    }
    const afterBlank = written.length === 0 || blanks.has(written.length);
    written.push({ text: rest, line, afterBlank, marks });
    marks = [];
  });
  return { written, blanks, notUnderstood };
}

/**
 * Reads a sheet. It never fails: a mark that is not understood is text, and told.
 *
 * @param chosen  what parts roles from names; guessed where nothing is said
 */
export function readSheet(text: string, chosen?: string): ReadSheet {
  const { written, blanks, notUnderstood } = unmarked(text);
  const plain = written.filter(({ marks }) => marks.every(({ kind }) => kind !== 'picture'));
  const separator =
    chosen === undefined ? separatorIn(plain.map(({ text: own }) => own)) : separatorOf(chosen);
  let isSmaller = false;
  const { lines } = sheetLines(
    written.map(({ text: own, afterBlank, marks }) => {
      const kind = marks.find((mark) => mark.kind === 'title' || mark.kind === 'heading')?.kind;
      if (afterBlank) isSmaller = false;
      for (const mark of marks) if (mark.kind === 'measure') isSmaller = mark.measure === 'smaller';
      return {
        text: own,
        afterBlank,
        isSmaller,
        ...(kind && { kind: kind as 'title' | 'heading' }),
      };
    }),
    separator,
  );

  const parts: SheetPart[] = [];
  let group = 0;
  let together: number | undefined;
  let measure: Measure = 'usual';
  let stand: Stand = 'centre';
  let beside = false;
  let columns: { count: number; balanced: boolean } | undefined;
  written.forEach((each, at) => {
    const space = blanks.get(at) ?? 0;
    if (space > 0) {
      // A blank line ends what the marks above began.
      [together, measure, columns, beside] = [undefined, 'usual', undefined, false];
      stand = 'centre';
      if (parts.length > 0)
        parts.push({ kind: 'space', lines: space, line: each.line - space, ...usual });
    }
    let stays = false;
    for (const mark of each.marks) {
      if (mark.kind === 'measure') ({ measure } = mark);
      if (mark.kind === 'stand') ({ stand } = mark);
      if (mark.kind === 'columns') columns = mark;
      if (mark.kind === 'stays') stays = true;
      if (mark.kind === 'beside') beside = true;
      if (mark.kind === 'together') together = ++group;
    }
    const { line } = each;
    const staying = stays ? { stays: true as const } : {};
    const marked = {
      line,
      measure,
      stays,
      ...(stand !== 'centre' && { stand }),
      ...(beside && { beside: true as const }),
      ...(together !== undefined && { group: together }),
    };
    const picture = each.marks.find((mark) => mark.kind === 'picture');
    if (picture) {
      parts.push({ kind: 'picture', name: picture.name, ...marked });
      if (each.text.trim() === '') return;
    }
    if (each.marks.some(({ kind }) => kind === 'rule') || isRule(each.text)) {
      parts.push({ kind: 'rule', ...marked });
      return;
    }
    const own = lines[at];
    if (!own || own.kind === 'separator') return;
    const last = parts.at(-1);
    if (own.kind === 'row' && !columns) {
      const names = own.names
        .map((name) => ({ text: name.trim(), line, ...staying }))
        .filter((name) => name.text !== '');
      const role = own.role.trim();
      if (last?.kind === 'row' && role === '') (last.names as Placed[]).push(...names);
      else parts.push({ kind: 'row', role, names, ...marked });
    } else if (columns && (own.kind === 'line' || own.kind === 'row')) {
      const name = { text: each.text.trim(), line, ...staying };
      if (last?.kind === 'columns') (last.names as Placed[]).push(name);
      else parts.push({ kind: 'columns', ...columns, names: [name], ...marked });
    } else if (own.kind !== 'row')
      parts.push({ kind: own.kind === 'line' ? 'text' : own.kind, text: own.text, ...marked });
  });
  const hasRows = parts.some(({ kind }) => kind === 'row');
  return { parts, separator: hasRows ? separator : undefined, notUnderstood };
}

/** The names of each column: all as long as they can be, or each filled before the next begins. */
export function inColumns<T>(names: readonly T[], count: number, balanced: boolean): T[][] {
  const each = Math.ceil(names.length / count);
  if (!balanced)
    return Array.from({ length: count }, (_, at) => names.slice(at * each, (at + 1) * each));
  // The first ones have a name more where they cannot all have as many.
  const more = names.length % count;
  const least = Math.floor(names.length / count);
  let from = 0;
  return Array.from({ length: count }, (_, at) => {
    const to = from + least + (at < more ? 1 : 0);
    const column = names.slice(from, to);
    from = to;
    return column;
  });
}
