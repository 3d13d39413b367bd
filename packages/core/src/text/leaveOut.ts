/** Leaving lines of a sheet out, so that they are still there to be taken in again. */
import type { ReadSheet, SheetPart } from './sheet/sheet.ts';

/** What is left out as one: the lines of the sheet on which it stands, from 0. */
export interface Unit {
  readonly lines: readonly number[];
  /** Whether it is never left out to make the rest fit. */
  readonly stays: boolean;
  readonly heading: boolean;
}

const once = (lines: readonly number[]): number[] => [...new Set(lines)];

function lineNumbersOf(part: SheetPart): number[] {
  switch (part.kind) {
    case 'space':
      return [];
    case 'row':
    case 'columns':
      return once([part.line, ...part.names.map(({ line }) => line)]);
    default:
      return [part.line];
  }
}

/**
 * What can be left out of a sheet, in order: each of its lines; lines that are kept together go together.
 *
 * @param rowsWhole  whether a row goes with all of its names, or name by name
 */
export function unitsOf({ parts }: Pick<ReadSheet, 'parts'>, rowsWhole = false): Unit[] {
  const units: Unit[] = [];
  /** The group of the unit before; undefined where it is in none. */
  let before: number | undefined;
  for (const part of parts) {
    const heading = part.kind === 'heading' || part.kind === 'title';
    const marked = new Set(
      'names' in part ? part.names.flatMap(({ stays, line }) => (stays ? line : [])) : [],
    );
    const lines = lineNumbersOf(part);
    const groups = part.kind === 'row' && rowsWhole ? [lines] : lines.map((line) => [line]);
    for (const own of groups) {
      const stays = own.some((line) => marked.has(line) || (part.stays && line === part.line));
      const last = units.at(-1);
      const together = part.group !== undefined && part.group === before && !heading;
      if (together && last && !last.heading)
        units[units.length - 1] = {
          lines: [...last.lines, ...own],
          stays: last.stays || stays,
          heading,
        };
      else units.push({ lines: own, stays, heading });
      before = part.group;
    }
  }
  return units;
}

/** How many units there are that may be left out by themselves: headings go with what is under them. */
export const howManyMayGo = (units: readonly Unit[]): number =>
  units.filter(({ stays, heading }) => !stays && !heading).length;

/**
 * Places of the last units that may be left out, so many of them, in order; and of headings that have nothing under them
 * then.
 */
export function lastToGo(units: readonly Unit[], count: number): number[] {
  const out: number[] = [];
  let [gone, kept, above] = [0, false, false];
  for (let at = units.length - 1; at >= 0 && count > 0; at--) {
    const { stays, heading } = units[at] as Unit;
    if (heading) {
      if (!stays && !kept) out.unshift(at);
      else kept = true;
      above = true;
      continue;
    }
    // The first text above a heading begins another section.
    if (above) [kept, above] = [false, false];
    if (!stays && gone === count) break;
    if (stays) kept = true;
    else {
      out.unshift(at);
      gone++;
    }
  }
  return out;
}

const COMMENT = '// ';

/** A sheet with lines of it as comments: they are not seen, and stay written. */
export function leaveOut(text: string, lines: readonly number[]): string {
  const gone = new Set(lines);
  return text
    .split('\n')
    .map((line, at) => (gone.has(at) ? `${COMMENT}${line}` : line))
    .join('\n');
}
