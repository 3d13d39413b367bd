/**
 * Reading cues from a table: CSV (RFC 4180) or its like with semicolons, tabs or bars between the columns.
 *
 * The columns are known by their headings, in any order; without headings they are start, end and text. Times
 * are seconds, clock times or timecodes.
 */
import Papa from 'papaparse';
import { linesOf } from '../../text/lines.ts';
import { parseRate, type FrameRate } from '../../time/frameRate.ts';
import { add, fromSeconds, type Ticks } from '../../time/ticks.ts';
import { parseTimecode } from '../../time/timecode.ts';
import {
  endBeforeStart,
  endWithout,
  Unreadable,
  withEnds,
  type Caption,
  type Captions,
  type Warning,
} from '../captions.ts';
import { clockTime } from '../clock.ts';
import { putRow, type Block, type Sheet } from '../sheet/blocks.ts';
import { trimSpaces } from '../../text/spaces.ts';

const COLUMNS = {
  start: [
    'start',
    'in',
    'from',
    'begin',
    'start time',
    'time in',
    'in time',
    'timecode in',
    'tc in',
  ],
  end: ['end', 'out', 'to', 'stop', 'end time', 'time out', 'out time', 'timecode out', 'tc out'],
  length: ['duration', 'length', 'dur'],
  text: [
    'text',
    'subtitle',
    'caption',
    'line',
    'lines',
    'words',
    'title',
    'lyric',
    'lyrics',
    'dialogue',
  ],
  speaker: ['speaker', 'who', 'character', 'voice', 'role'],
  id: ['id', 'number', 'no', 'no.', '#', 'cue'],
} as const;
type Column = keyof typeof COLUMNS;

/** The number of rows that tell what a column holds. */
const TRIED = 50;
const TWENTY_FIVE = parseRate('25') as FrameRate;

interface Row {
  /** Counted from 1: the line of the file that the row begins on. */
  readonly line: number;
  readonly cells: readonly string[];
}

/**
 * Reads a table of cues.
 *
 * @param frameRate  of timecodes such as 00:00:01:12; 25 frames a second where nothing is said
 * @throws Unreadable where no row has a time
 */
export function readCsv(text: string, frameRate: FrameRate = TWENTY_FIVE): Captions {
  const warnings: Warning[] = [];
  const { rows } = rowsOf(text, warnings);
  const [head] = rows;
  const headed = head ? columnsOf(head.cells, rows.slice(1, TRIED)) : undefined;
  const columns = headed?.start === undefined ? { start: 0, end: 1, text: 2 } : headed;
  const body = headed?.start === undefined ? rows : rows.slice(1);
  const cell = ({ cells }: Row, name: Column): string =>
    trimSpaces(cells[(columns as Partial<Record<Column, number>>)[name] ?? -1] ?? '');
  const found: { row: Row; start: Ticks; end: Ticks | undefined }[] = [];
  for (const row of body) {
    const start = timeOf(cell(row, 'start'), frameRate);
    if (start === undefined) {
      noTime(row, cell(row, 'start'), warnings);
      continue;
    }
    const length = timeOf(cell(row, 'length'), frameRate);
    const end =
      timeOf(cell(row, 'end'), frameRate) ??
      (length === undefined ? undefined : add(start, length));
    found.push({ row, start, end });
  }
  if (found.length === 0)
    throw new Unreadable(
      'No times were found in this table. It needs columns named start, end and text.',
    );
  const captions = found.map(({ row, start, end }, at): Caption => {
    const speaker = cell(row, 'speaker');
    const id = cell(row, 'id');
    const until = endOf(row, at, start, end, found[at + 1]?.start, warnings);
    return {
      start,
      end: until,
      text: linesOf(cell(row, 'text'), speaker === '' ? {} : { speaker }),
      ...(id !== '' && { id }),
    };
  });
  return { captions: withEnds(captions), warnings };
}

const ROLES = ['role', 'roles', 'credit', 'function', 'job', 'task', 'part', 'character'];
const NAMES = ['name', 'names', 'person', 'people', 'who', 'cast', 'crew'];
const SECTIONS = ['section', 'heading', 'department', 'group'];

/**
 * Reads a table of roles and names, with a section where a column is called so. Without headings the first
 * column has the roles and the others the names.
 *
 * @throws Unreadable where the table is empty
 */
export function readCsvSheet(text: string): Sheet {
  const warnings: Warning[] = [];
  const { rows, separator } = rowsOf(text, warnings);
  const heads = (rows[0]?.cells ?? []).map((cell) => cell.trim().toLowerCase());
  const [role, name, section] = [ROLES, NAMES, SECTIONS].map((known) =>
    heads.findIndex((head) => known.includes(head)),
  ) as [number, number, number];
  const headed = role >= 0 || name >= 0;
  const body = headed ? rows.slice(1) : rows;
  if (body.length === 0) throw new Unreadable('There is nothing in this table.');
  const blocks: Block[] = [];
  let under = '';
  const left = role >= 0 ? role : name === 0 ? -1 : 0;
  for (const { cells } of body) {
    const heading = (cells[section] ?? '').trim();
    if (heading !== '' && heading !== under) blocks.push({ kind: 'heading', text: heading });
    under = heading || under;
    const names = cells.filter(
      (_, at) => at !== left && at !== section && (name < 0 || at >= name),
    );
    if (cells.length === 1) blocks.push({ kind: 'line', text: trimSpaces(cells[0] ?? '') });
    else putRow(blocks, cells[left] ?? '', names);
  }
  return { blocks, separator, warnings };
}

/** Whether a table has times: columns named so, or seconds in its first two columns. */
export function isCueTable(text: string): boolean {
  const { rows } = rowsOf(text.slice(0, 20_000), []);
  const columns = columnsOf(rows[0]?.cells ?? [], rows.slice(1, TRIED));
  if (columns.start !== undefined) return true;
  return rows.some(({ cells }) => timeOf((cells[0] ?? '').trim(), TWENTY_FIVE) !== undefined);
}

function endOf(
  { line }: Row,
  at: number,
  start: Ticks,
  end: Ticks | undefined,
  next: Ticks | undefined,
  warnings: Warning[],
): Ticks {
  if (end === undefined) {
    const message = 'This row has no end. It lasts until the next row, at most 3 seconds.';
    warnings.push({ kind: 'no end', line, message, cues: [at] });
    return endWithout(start, next);
  }
  if (end < start) warnings.push(endBeforeStart(line, at));
  return end;
}

function noTime({ line, cells }: Row, written: string, warnings: Warning[]): void {
  const text = cells.filter((each) => each.trim() !== '').join(' ');
  if (text === '') return;
  warnings.push({
    kind: 'time',
    line,
    message: `“${written.slice(0, 40)}” is not a time. The row was left out: “${text.slice(0, 80)}”.`,
  });
}

/** The rows that are not empty, with the line each begins on. */
function rowsOf(text: string, warnings: Warning[]): { rows: Row[]; separator: string } {
  const rows: Row[] = [];
  let separator = ',';
  let [line, from] = [1, 0];
  const whole = text.replace(/^\uFEFF/, '');
  Papa.parse<string[]>(whole, {
    delimitersToGuess: [',', ';', '\t', '|'],
    step: ({ data, errors, meta }) => {
      if (data.some((each) => each.trim() !== '')) rows.push({ line, cells: data });
      for (const { type } of errors)
        if (type === 'Quotes')
          warnings.push({
            kind: 'quotes',
            line,
            message:
              'The quotation marks of this row do not match. It was read as far as possible.',
          });
      for (; from < meta.cursor; from++) if (whole[from] === '\n') line++;
      separator = meta.delimiter;
    },
  });
  return { rows, separator };
}

/** Whether all that stands in a column are times, and there are some. */
function hasTimes(rows: readonly Row[], column: number): boolean {
  const written = rows.map(({ cells }) => (cells[column] ?? '').trim()).filter(Boolean);
  return written.length > 0 && written.every((cell) => timeOf(cell, TWENTY_FIVE) !== undefined);
}

/**
 * Which column is which by the headings; the first that fits counts. Where none is called text, it is the
 * first that is called something else again. Where none is called end, it is the first after the start that
 * holds nothing but times: headings are in many languages.
 *
 * @param rows  some of those under the headings
 */
function columnsOf(
  cells: readonly string[],
  rows: readonly Row[],
): Partial<Record<Column, number>> {
  const names = cells.map((each) => each.trim().toLowerCase().replace(/[_-]/g, ' '));
  const found: Partial<Record<Column, number>> = Object.fromEntries(
    Object.entries(COLUMNS).flatMap(([column, known]) => {
      const at = names.findIndex((name) => (known as readonly string[]).includes(name));
      return at < 0 ? [] : [[column, at]];
    }),
  );
  const taken = new Set(Object.values(found));
  const { start } = found;
  if (start !== undefined && found.end === undefined && found.length === undefined) {
    const end = names.findIndex((_, at) => at > start && !taken.has(at) && hasTimes(rows, at));
    if (end >= 0) {
      found.end = end;
      taken.add(end);
    }
  }
  const other = names.findIndex((name, at) => name !== '' && !taken.has(at));
  return found.text === undefined && other >= 0 ? { ...found, text: other } : found;
}

const CLOCK = /^(?:(\d{1,3}):)?(\d{1,3}):(\d{1,2})(?:[.,](\d{1,9}))?$/;
const SECONDS = /^\d{1,7}(?:[.,]\d{1,12})?$/;

/** Seconds, a clock time or a timecode; undefined where it is none. */
function timeOf(written: string, frameRate: FrameRate): Ticks | undefined {
  if (SECONDS.test(written)) return fromSeconds(Number(written.replace(',', '.')));
  const clock = CLOCK.exec(written);
  if (clock) return clockTime(clock[1], clock[2], clock[3], clock[4]);
  return parseTimecode(written, frameRate);
}
