/** Reading EBU STL (EBU Tech 3264, "Specification of the EBU Subtitling Data Exchange Format", 1991). */
import { isBlank, type Line, type SpanStyle } from '../../text/lines.ts';
import { frames, type FrameRate } from '../../time/frameRate.ts';
import { subtract, TICKS_PER_SECOND, ZERO, type Ticks } from '../../time/ticks.ts';
import {
  endBeforeStart,
  progressReporter,
  Unreadable,
  withEnds,
  type Caption,
  type CaptionPlace,
  type Captions,
  type OnProgress,
  type Warning,
} from '../captions.ts';
import { SpanWriter } from '../markup.ts';
import { decodeTable, TABLES, type CodeTable } from './codePages.ts';
import { CODES, FIELDS, GSI, LAST_BLOCK, ROWS, TEXT, TTI, USER_DATA } from './layout.ts';

/** Numbers of blocks go from 0 to 0xEF, and then there is the last. */
const MOST_BLOCKS = 0xf1;

/** Disk format codes name 25 or 30 frames a second; others are seen, and mean what they say. */
const diskFormat = /^STL(\d\d)/;

/**
 * Reads the bytes of an EBU STL file. Times are from the start of the programme, whose timecode the file
 * names; where cues lie before it they are from midnight. Comments are left out and told.
 *
 * Warnings count TTI blocks, from 1, where other formats count lines.
 *
 * @param start  the timecode of the programme's first frame, instead of the file's own
 * @throws Unreadable where the bytes are no EBU STL, or hold no subtitle
 */
export function readStl(bytes: Uint8Array, start?: Ticks, onProgress?: OnProgress): Captions {
  const ascii = (from: number, count: number) =>
    String.fromCharCode(...bytes.subarray(from, from + count));
  const field = (name: keyof typeof FIELDS) => {
    const [from, length] = FIELDS[name];
    return ascii(from, length).trim();
  };
  const named = diskFormat.exec(field('diskFormat'));
  if (bytes.length < GSI + TTI || !named)
    throw new Unreadable('This is not EBU STL: the first block is not a GSI block.');
  const warnings: Warning[] = [];
  const rate: FrameRate = { num: Number(named[1]) || 25, den: 1, dropFrame: false };
  const given = field('codeTable');
  const table = TABLES.find((each) => each === given) ?? '00';
  if (given !== table)
    warnings.push({
      kind: 'code table',
      line: 1,
      message: `The file names an unknown code table ("${given}"). Latin is assumed.`,
    });
  const rows = Number(field('rows')) || ROWS;
  const teletext = /[12]/.test(field('display'));
  const all: Caption[] = [];
  let comments = 0;
  let parts: Uint8Array[] = [];
  const count = Math.floor((bytes.length - GSI) / TTI);
  if ((bytes.length - GSI) % TTI !== 0)
    warnings.push({
      kind: 'cut off',
      line: count + 1,
      message: 'The file ends within a block. All whole blocks were read.',
    });
  const reading = progressReporter(onProgress, count, 2000);
  for (let at = 0; at < count; at++) {
    reading(at);
    const block = bytes.subarray(GSI + at * TTI, GSI + (at + 1) * TTI);
    const extension = block[3] ?? LAST_BLOCK;
    if (extension === USER_DATA) continue;
    parts.push(block.subarray(TTI - TEXT));
    // Blocks of one subtitle are numbered up to the last, which is 0xFF. More than can be numbered are damage.
    if (extension !== LAST_BLOCK && at < count - 1 && parts.length < MOST_BLOCKS) continue;
    const text = joined(parts);
    parts = [];
    if (block[15] === 1) {
      comments++;
      continue;
    }
    const caption = subtitle(block, text, {
      rate,
      table,
      teletext,
      rows,
      block: at + 1,
      place: all.length,
    });
    warnings.push(...caption.warnings);
    if (caption.read) all.push(caption.read);
  }
  if (comments > 0)
    warnings.push({
      kind: 'comment',
      line: 1,
      message: `${comments} of the subtitles are comments, which are not shown. They were left out.`,
    });
  if (all.length === 0) throw new Unreadable('No subtitle was found in this EBU STL file.');
  const own = timecode(field('programmeStart'), rate);
  const zero = start ?? own ?? ZERO;
  const early = all.some((caption) => caption.start < zero);
  if (early)
    warnings.push({
      kind: 'start',
      line: 1,
      message: 'Some subtitles start before the programme. Times count from midnight.',
    });
  const by = early ? ZERO : zero;
  const title = decodeTable(bytes.subarray(16, 48), '00').trim();
  return {
    captions: withEnds(all)
      .map((caption) => ({
        ...caption,
        start: subtract(caption.start, by),
        end: subtract(caption.end, by),
      }))
      .sort((a, b) => a.start - b.start),
    warnings,
    metadata: {
      frameRate: String(rate.num),
      ...(own !== undefined && {
        startTimecode: field('programmeStart').replace(/(..)(?=.)/g, '$1:'),
      }),
      ...(title !== '' && { title }),
    },
  };
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(parts.length * TEXT);
  parts.forEach((part, at) => all.set(part, at * TEXT));
  return all;
}

/** `HHMMSSFF` as ticks; undefined where it is none. */
function timecode(digits: string, rate: FrameRate): Ticks | undefined {
  const parts = /^(\d\d)(\d\d)(\d\d)(\d\d)$/.exec(digits);
  return parts ? instant(parts.slice(1).map(Number), rate) : undefined;
}

const instant = (
  [hours = 0, minutes = 0, whole = 0, frame = 0]: readonly number[],
  rate: FrameRate,
): Ticks =>
  ((hours * 3600 + minutes * 60 + whole) * TICKS_PER_SECOND + frames(frame, rate)) as Ticks;

interface About {
  readonly rate: FrameRate;
  readonly table: CodeTable;
  readonly teletext: boolean;
  readonly rows: number;
  /** Of the file and of the captions, for warnings. */
  readonly block: number;
  readonly place: number;
}

function subtitle(
  block: Uint8Array,
  text: Uint8Array,
  { rate, table, teletext, rows, block: line, place: cue }: About,
): { read?: Caption; warnings: Warning[] } {
  const warnings: Warning[] = [];
  const [start, end] = [block.subarray(5, 9), block.subarray(9, 13)].map((digits) => {
    const [hours = 0, minutes = 0, whole = 0, frame = 0] = digits;
    const right = hours < 24 && minutes < 60 && whole < 60 && frame < rate.num;
    if (!right)
      warnings.push({
        kind: 'time',
        line,
        message: `The timecode ${[...digits].join(':')} of block ${line} is not valid. Its digits were used as they are.`,
        cues: [cue],
      });
    return instant([...digits], rate);
  }) as [Ticks, Ticks];
  // Lines of double height are two rows apart.
  const twoRows = teletext || text.includes(CODES.doubleHeight);
  const lines = readTextField(text, table, twoRows);
  if (isBlank(lines)) return { warnings };
  if (end < start) warnings.push(endBeforeStart(line, cue));
  const place = captionPlace(
    { row: block[13] ?? rows, high: lines.length * (twoRows ? 2 : 1), rows },
    block[14] ?? 2,
  );
  return { read: { start, end, text: lines, ...(place && { place }) }, warnings };
}

/** How far from the side of the frame text stands that is set by it, as a share of its width. */
const SIDE = 0.07;

/** Rows on which text is where it usually is, from the top or the bottom; further in it has a place of its own. */
const USUAL_ROWS = 3;

function captionPlace(
  { row, high, rows }: Readonly<Record<'row' | 'high' | 'rows', number>>,
  justified: number,
): CaptionPlace | undefined {
  const across = justified === 1 ? 'left' : justified === 3 ? 'right' : 'centre';
  const share = row / rows;
  const down = share < 0.34 ? 'top' : share < 0.6 ? 'middle' : 'bottom';
  const [over, under] = [row - 1, rows - (row - 1 + high)];
  const isInMiddle = Math.abs(over - under) <= 1;
  if (over >= USUAL_ROWS && under >= USUAL_ROWS && !isInMiddle) {
    const x = { left: SIDE, centre: 0.5, right: 1 - SIDE }[across];
    // By the edge of the frame that is nearer.
    return over < under
      ? { across, down: 'top', at: { x, y: over / rows } }
      : { across, down: 'bottom', at: { x, y: (over + high) / rows } };
  }
  return across === 'centre' && down === 'bottom' ? undefined : { across, down };
}

const isLetter = (byte: number): boolean => (byte >= 0x20 && byte < 0x7f) || byte >= 0xa0;

/** The text field: letters of the code table between codes for styles, colours, boxes and new lines. */
function readTextField(bytes: Uint8Array, table: CodeTable, twoRows: boolean): Line[] {
  const writer = new SpanWriter();
  let colour: SpanStyle | undefined;
  /** The letter written last on this line. */
  let last = '';
  const paint = (spanStyle: SpanStyle | undefined) => {
    if (colour) writer.close('colour');
    colour = spanStyle;
    if (colour) writer.open('colour', colour);
  };
  let fresh = false;
  for (let at = 0; at < bytes.length; at++) {
    const byte = bytes[at] as number;
    if (isLetter(byte)) {
      const from = at;
      while (isLetter(bytes[at + 1] ?? CODES.unused)) at++;
      const text = decodeTable(bytes.subarray(from, at + 1), table);
      writer.text(text);
      last = text.at(-1) ?? last;
      continue;
    }
    if (byte === CODES.unused) continue;
    const dye = CODES.colours[byte];
    if (byte === CODES.newLine) {
      if (!(fresh && twoRows)) writer.text('\n');
      paint(undefined);
      last = '';
      fresh = true;
      continue;
    }
    if (dye !== undefined) {
      // The code is shown as a space, which parts words as one that is written does.
      if (last !== '' && last !== ' ') writer.text(' ');
      paint(byte === 7 ? undefined : { colour: dye });
    } else if (byte === CODES.italic) writer.open('i', { italic: true });
    else if (byte === CODES.italicOff) writer.close('i');
    else if (byte === CODES.underline) writer.open('u', { underline: true });
    else if (byte === CODES.underlineOff) writer.close('u');
    fresh = false;
  }
  const lines = writer.lines();
  while (lines.length > 1 && lines.at(-1)?.length === 0) lines.pop();
  return lines.map(withoutEnds);
}

/** A line without spaces at its ends, which fill rows of teletext. */
function withoutEnds(line: Line): Line {
  const spans = line.map((span) => ({ ...span }));
  const [first, last] = [spans[0], spans.at(-1)];
  if (first) first.text = first.text.replace(/^ +/, '');
  if (last) {
    // A pattern would look at each space of a row again and again.
    let { length } = last.text;
    while (last.text[length - 1] === ' ') length--;
    last.text = last.text.slice(0, length);
  }
  return spans.filter(({ text }) => text !== '');
}
