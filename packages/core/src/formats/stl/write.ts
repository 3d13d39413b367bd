/** Writing EBU STL (EBU Tech 3264), open subtitles, or teletext where there are colours and no styles. */
import { isBlank, plainText, type Line } from '../../text/lines.ts';
import { graphemes } from '../../text/graphemes.ts';
import { formatTimecode } from '../../time/timecode.ts';
import { nearestFrame, nominalRate, type FrameRate } from '../../time/frameRate.ts';
import { add, ZERO, type Ticks } from '../../time/ticks.ts';
import { Losses, type Caption, type Lost, type Target } from '../captions.ts';
import { encodeCharacter, TABLES, type CodeTable } from './codePages.ts';
import { plainTwin } from './plainTwin.ts';
import { CODES, FIELDS, GSI, LAST_BLOCK, ROWS, TEXT, TTI } from './layout.ts';

/** The cells of a row of teletext. */
const CELLS = 40;
/** The most blocks that a subtitle may take. */
const MOST_BLOCKS = 0xf0;

/**
 * Writes captions as EBU STL, at the nearest frames. The code table is the first that has all letters, or
 * the one that has most; what it lacks is written as its plain twin and counted, as are overlaps in time, bold, speakers,
 * ids, times of words, and colours that are not of the eight or stand beside italics.
 *
 * @param made  the day that the file tells as its own
 */
export function writeStl(
  captions: readonly Caption[],
  { frameRate, start = ZERO, title = '' }: Target,
  made = new Date(),
): { bytes: Uint8Array; lost: Lost[] } {
  const losses = new Losses();
  const rate: FrameRate = {
    num: nominalRate(frameRate) >= 30 ? 30 : 25,
    den: 1,
    dropFrame: false,
  };
  const written = captions.filter(({ text }) => !isBlank(text));
  losses.count('empty cue', captions.length - written.length);
  losses.countOverlaps(written);
  const table = tableFor(written);
  const spans = written.flatMap(({ text }) => text.flat());
  const spanStyles = spans.some(({ italic, underline }) => italic || underline);
  const colours = !spanStyles && spans.some(({ colour }) => colour !== undefined);
  const bodies = written.map((caption) => {
    losses.count('bold', Number(caption.text.flat().some(({ bold }) => bold)));
    losses.countRuby(caption.text.flat());
    losses.countRest(caption);
    losses.countTurn(caption);
    losses.count('size', Number(caption.size !== undefined));
    // Rows are held; how far across it stands is left, middle or right.
    const { at: stands, across, width } = caption.place ?? {};
    losses.count(
      'place',
      Number(width !== undefined || (stands && (across !== 'centre' || stands.x !== 0.5))),
    );
    const at = formatTimecode(nearestFrame(add(start, caption.start), rate), rate);
    return textField(caption.text, { table, colours, spanStyles, at }, losses);
  });
  const blocks = bodies.map((body) =>
    Math.min(MOST_BLOCKS, Math.max(1, Math.ceil(body.length / TEXT))),
  );
  const total = blocks.reduce((sum, count) => sum + count, 0);
  const bytes = new Uint8Array(GSI + total * TTI);
  const longest = Math.max(
    CELLS,
    ...written.map(({ text }) =>
      Math.max(
        ...plainText(text)
          .split('\n')
          .map((line) => line.length),
      ),
    ),
  );
  const digits = (time: Ticks) => formatTimecode(time, rate).replace(/\D/g, '');
  const from = nearestFrame(start, rate);
  const first = written.reduce<Ticks>(
    (least, caption) => (caption.start < least ? caption.start : least),
    (written[0]?.start ?? ZERO) as Ticks,
  );
  const day = made.toISOString().slice(2, 10).replace(/-/g, '');
  writeHead(bytes, {
    codePage: '850',
    diskFormat: `STL${rate.num}.01`,
    display: colours ? '1' : '0',
    codeTable: table,
    language: '00',
    title: latin(title, 32),
    created: day,
    revised: day,
    revision: '00',
    blocks: padded(total, 5),
    subtitles: padded(written.length, 5),
    groups: '001',
    longestRow: padded(Math.min(99, longest), 2),
    rows: String(ROWS),
    timeStatus: '1',
    programmeStart: digits(from),
    firstCue: digits(nearestFrame(add(start, first), rate)),
    disks: '1',
    disk: '1',
    country: '   ',
  });
  let at = GSI;
  written.forEach((caption, number) => {
    const body = bodies[number] ?? [];
    const count = blocks[number] ?? 1;
    losses.count('text over a subtitle’s length', Number(body.length > MOST_BLOCKS * TEXT));
    for (let part = 0; part < count; part++) {
      const block = bytes.subarray(at, at + TTI);
      block.fill(CODES.unused, TTI - TEXT);
      block[1] = number & 0xff;
      block[2] = (number >> 8) & 0xff;
      block[3] = part === count - 1 ? LAST_BLOCK : part;
      [caption.start, caption.end].forEach((time, side) => {
        const code = digits(nearestFrame(add(from, time), rate));
        for (let pair = 0; pair < 4; pair++)
          block[5 + 4 * side + pair] = Number(code.slice(2 * pair, 2 * pair + 2));
      });
      block[13] = rowOf(caption);
      block[14] = { left: 1, centre: 2, right: 3 }[caption.place?.across ?? 'centre'];
      block.set(body.slice(part * TEXT, (part + 1) * TEXT), TTI - TEXT);
      at += TTI;
    }
  });
  return { bytes, lost: losses.list() };
}

const padded = (value: number, digits: number): string =>
  String(value).padStart(digits, '0').slice(-digits);

/** Text of the first block, which is in plain Latin letters. */
const latin = (text: string, most: number): string =>
  text
    .normalize('NFD')
    .replace(/[^\x20-\x7e]/g, '')
    .slice(0, most);

function writeHead(bytes: Uint8Array, values: Partial<Record<keyof typeof FIELDS, string>>): void {
  bytes.fill(0x20, 0, GSI);
  for (const [name, value] of Object.entries(values)) {
    const [from] = FIELDS[name as keyof typeof FIELDS];
    [...value].forEach((letter, at) => (bytes[from + at] = letter.charCodeAt(0)));
  }
}

/** The row of the first line, so that text grows from the place where it stands. */
function rowOf({ text, place }: Caption): number {
  const lines = text.length;
  if (place?.at) {
    const first = place.at.y * ROWS - lines * { top: 0, middle: 0.5, bottom: 1 }[place.down];
    return Math.min(Math.max(1, Math.round(first) + 1), ROWS - lines + 1);
  }
  if (place?.down === 'top') return 1;
  if (place?.down === 'middle') return Math.max(1, Math.round(ROWS / 2 - lines / 2));
  return Math.max(Math.ceil(ROWS * 0.6), ROWS - lines);
}

/** The code table that lacks the fewest letters of all. */
function tableFor(captions: readonly Caption[]): CodeTable {
  const letters = new Set(captions.flatMap(({ text }) => graphemes(plainText(text))));
  letters.delete('\n');
  const lacks = (table: CodeTable) =>
    [...letters].filter((letter) => encodeCharacter(letter, table) === undefined).length;
  return TABLES.reduce((best, table) => (lacks(table) < lacks(best) ? table : best));
}

interface Writing {
  readonly table: CodeTable;
  readonly colours: boolean;
  readonly spanStyles: boolean;
  /** The timecode at which the text begins. */
  readonly at: string;
}

const twinBytes = (letter: string, table: CodeTable): number[] =>
  [...plainTwin(letter, table)].flatMap((each) => encodeCharacter(each, table) ?? [0x3f]);

function textField(
  lines: readonly Line[],
  { table, colours, spanStyles, at: begins }: Writing,
  losses: Losses,
): number[] {
  const bytes: number[] = [];
  const missing = new Set<string>();
  let dull = false;
  lines.forEach((line, place) => {
    if (place > 0) bytes.push(CODES.newLine);
    if (colours) bytes.push(CODES.boxStart, CODES.boxStart);
    let shown = '#ffffff';
    line.forEach((span, at) => {
      const colour = span.colour ?? '#ffffff';
      let { text } = span;
      if (colours && colour !== shown) {
        const dye = CODES.colours.indexOf(colour as (typeof CODES.colours)[number]);
        const last = bytes.at(-1);
        // The code takes the cell of a space: the one before it, or the one that the text begins with.
        const parts = at === 0 || last === 0x20 || text.startsWith(' ');
        if (dye < 0 || !parts) dull = true;
        else {
          if (last === 0x20) bytes.pop();
          else if (at > 0) text = text.slice(1);
          bytes.push(dye);
          shown = colour;
        }
      } else if (!colours && span.colour !== undefined) dull = true;
      if (spanStyles && span.italic) bytes.push(CODES.italic);
      if (spanStyles && span.underline) bytes.push(CODES.underline);
      for (const letter of graphemes(text)) {
        const code = encodeCharacter(letter, table);
        if (code === undefined) missing.add(letter);
        bytes.push(...(code ?? twinBytes(letter, table)));
      }
      if (spanStyles && span.underline) bytes.push(CODES.underlineOff);
      if (spanStyles && span.italic) bytes.push(CODES.italicOff);
    });
    if (colours) bytes.push(CODES.boxEnd, CODES.boxEnd);
  });
  losses.count('empty line', Number(colours && lines.some(({ length }) => length === 0)));
  losses.count('letter', Number(missing.size > 0));
  for (const letter of missing)
    losses.tell('letter', `“${letter}” becomes “${plainTwin(letter, table)}” at ${begins}`);
  losses.count('colour', Number(dull));
  return bytes;
}
