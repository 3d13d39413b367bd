/**
 * Lyrics as they are sung: names of parts such as “Chorus” are not sung, a part that is only named is sung as it was written
 * before, and “x3” says how often a line or a part is sung.
 */
import { plural } from '../../text/plural.ts';
import type { Block } from './blocks.ts';

export interface AsSung {
  readonly blocks: readonly Block[];
  /** How many lines came in that are written once. */
  readonly again: number;
  /** How many lines only name a part. */
  readonly names: number;
}

/** What parts of a song are called, in the languages that are woven, and which are sung the same each time. */
const PARTS =
  'intro|verse|pre-?chorus|post-?chorus|chorus|refrain|hook|bridge|middle (?:eight|8)|break|interlude|instrumental|solo|outro|ending|coda|tag|vamp' +
  '|strophe|vers|refr|zwischenspiel|schluss|couplet|pont|estrofa|estribillo|coro|puente|strofa|ritornello|ponte|finale';
const SAME = /^(?:pre-?chorus|post-?chorus|chorus|refrain|refr|hook|estribillo|coro|ritornello)/u;

/** Names that could be lines of their own. */
const MAY_BE_SUNG = /^(?:break|ending|schluss)$/iu;

/** “x3”, “3x”, “× 3”, “3 times”, “twice”, “repeat”. */
const TIMES = String.raw`(?:[x×]\s*(\d{1,2})|(\d{1,2})\s*[x×]|(\d{1,2})\s+times|(twice)|(repeat|again))`;
const NAME = new RegExp(
  String.raw`^[\s[({*#-]*(?:repeat\s+)?(${PARTS})\.?\s*(\d{1,2}|[ivx]{1,4}|[a-d])?\s*[:.\])}*]*\s*[[(]?\s*${TIMES}?\s*[\])}:.*]*$`,
  'iu',
);
const AT_END = new RegExp(
  String.raw`^(.*?\S)(?:\s+|\s*[[(,–-]\s*)${TIMES}\s*[\])]?\s*[.!]?$`,
  'iu',
);
const ALONE = new RegExp(String.raw`^[[(]?\s*${TIMES}\s*[\])]?[.!]?$`, 'iu');
const MOST_TIMES = 12;

/** How often, by what {@link TIMES} found. */
function timesOf([left, right, said, twice, again]: readonly (string | undefined)[]): number {
  const count = Number(
    left ?? right ?? said ?? (twice !== undefined || again !== undefined ? 2 : 1),
  );
  return count >= 1 && count <= MOST_TIMES ? count : 1;
}

const textOf = ({ kind, text, role, names }: Block): string =>
  kind === 'row' ? [role, ...(names ?? [])].join(' ') : (text ?? '');

/** A part of a song, as it is written. */
interface Part {
  readonly key: string | null;
  readonly times: number;
  readonly lines: Block[];
}

/** Whether words that end a line are a count: “x3”, “(twice)”. “Sing it again” is sung, and so is “Again” alone. */
const isCount = (text: string): boolean =>
  /[[(]\s*[^[(]*[\])]\s*[.!]?$/u.test(text) ||
  /(?:[x×]\s*\d{1,2}|\b\d{1,2}\s*[x×])\s*[.!]?$/iu.test(text);

/** Whether a line is the name of a part: one that could be sung as well, such as “Break”, must be set off. */
const isName = (text: string, name: string): boolean =>
  /[[\](){}:*#\d]/u.test(text) || !MAY_BE_SUNG.test(name);

/** A line without the count at its end. */
function lineTimes(text: string): { readonly text: string; readonly times: number } {
  const [, sung = '', ...counts] = AT_END.exec(text) ?? [];
  return sung !== '' && isCount(text) ? { text: sung, times: timesOf(counts) } : { text, times: 1 };
}

/** The parts of a sheet: each begins at its name, or after a blank line. */
function partsOf(blocks: readonly Block[]): { readonly parts: Part[]; readonly names: number } {
  const parts: Part[] = [];
  /** What has lines. */
  const known = new Set<string | null>();
  let names = 0;
  for (const block of blocks) {
    const text = textOf(block).trim();
    const [, name, number, ...counts] = NAME.exec(text) ?? [];
    const alone = isCount(text) ? ALONE.exec(text) : null;
    const last = parts.at(-1);
    if (name !== undefined && isName(text, name)) {
      names++;
      const kind = name.toLowerCase();
      const key = SAME.test(kind) ? kind : `${kind} ${(number ?? '').toLowerCase()}`;
      parts.push({ key, times: timesOf(counts), lines: [] });
    } else if (alone && last) {
      names++;
      parts[parts.length - 1] = { ...last, times: timesOf(alone.slice(1)) };
    } else {
      // Under a name that was there before, what comes after a blank line is another part.
      const isNamed = last?.lines.length === 0 && !known.has(last.key);
      if (!last || (block.afterBlank && !isNamed)) parts.push({ key: null, times: 1, lines: [] });
      parts.at(-1)?.lines.push(block);
      known.add(parts.at(-1)?.key ?? null);
    }
  }
  return { parts, names };
}

/** Lyrics with their repeats written out, and without the names of parts. */
export function asSung(blocks: readonly Block[]): AsSung {
  const { parts, names } = partsOf(blocks);
  const known = new Map<string, readonly Block[]>();
  let again = 0;
  const said = (lines: readonly Block[]) => lines.map(textOf).join('\n').toLowerCase();
  const sung = parts.flatMap(({ key, times, lines }, at) => {
    const own = lines.flatMap((block): Block[] => {
      if (block.kind === 'row') return [block];
      const { text, times: often } = lineTimes(textOf(block));
      if (often === 1) return [block];
      const { spans: _spans, ...rest } = block;
      again += often - 1;
      return Array.from({ length: often }, () => ({ ...rest, text }));
    });
    const before = key === null ? undefined : known.get(key);
    if (key !== null && own.length > 0 && !before) known.set(key, own);
    const next = said(parts[at + 1]?.lines ?? []);
    // It is written out under its name, after a blank line.
    const isNext = before !== undefined && next !== '' && next === said(before);
    const once = own.length > 0 ? own : isNext ? [] : (before ?? []);
    again += once.length * times - own.length;
    return Array.from({ length: times }, () => once).flat();
  });
  return { blocks: sung, again, names };
}

/** What changes in lyrics that come in as they are sung; nothing where nothing does. */
export const sungAs = ({ again, names }: Pick<AsSung, 'again' | 'names'>): string =>
  [
    ...(again > 0
      ? [`${plural(again, 'line')} sung again ${again === 1 ? 'is' : 'are'} added`]
      : []),
    ...(names > 0
      ? [
          `${plural(names, 'name of a part', 'names of parts')} ${names === 1 ? 'is' : 'are'} left out`,
        ]
      : []),
  ].join(', ');
