/**
 * Reading Rich Text Format (Microsoft, "Rich Text Format Specification 1.9.1") as a sheet: its paragraphs,
 * tabs and table cells, letters of any code page and of Unicode. Fonts, pictures and embedded objects are
 * passed over.
 */
import type { SpanStyle } from '../../text/lines.ts';
import { Unreadable, type Warning } from '../captions.ts';
import { decodeAs, decodeText } from '../decodeText.ts';
import type { Stand } from '../../text/sheet/sheet.ts';
import { blocksOf, type Sheet } from '../sheet/blocks.ts';
import { DOS_PAGES } from './dosPages.ts';
import { carrying, withSpans } from '../sheet/spanStyles.ts';
import { laidParagraphs, type SetParagraph } from '../sheet/setParagraphs.ts';

/** Destinations whose text is not part of the manuscript. */
const passedOver = new Set([
  ...[
    'fonttbl',
    // Bullets and numbers that lists are drawn with.
    'listtext',
    'pntext',
    // Entries of an index and of a table of contents.
    'xe',
    'rxe',
    'tc',
    'tcn',
    'annotation',
    'atnid',
    'atnauthor',
    // What readers show that know no tables in tables.
    'nonesttables',
    'filetbl',
    'revtbl',
    'colortbl',
    'stylesheet',
    'info',
    'pict',
    'object',
    'header',
    'headerl',
    'headerr',
  ],
  ...['headerf', 'footer', 'footerl', 'footerr', 'footerf', 'footnote', 'listtable', 'rsidtbl'],
  ...[
    'listoverridetable',
    'generator',
    'themedata',
    'fldinst',
    'datastore',
    'latentstyles',
    'xmlnstbl',
  ],
]);

/** Control words that stand for a character. */
const characters: Readonly<Record<string, string>> = {
  tab: '\t',
  line: '\n',
  lquote: '‘',
  rquote: '’',
  ldblquote: '“',
  rdblquote: '”',
  endash: '–',
  emdash: '—',
  bullet: '•',
  emspace: '\u2003',
  enspace: '\u2002',
  '~': '\u00a0',
  _: '\u2011',
  cell: '\t',
  nestcell: '\t',
};
/** Where lines stand; justified ones begin on the left. */
const stands: Readonly<Record<string, Stand | undefined>> = {
  ql: 'left',
  qj: 'left',
  qc: 'centre',
  qr: 'right',
};
const ends = new Set(['par', 'sect', 'page', 'row', 'nestrow']);
/** Of letters of which no size is said, in half points. */
const USUAL_SIZE = 24;

interface Group {
  readonly skipped: boolean;
  /** Whether its text is hidden, or was deleted while changes were tracked. */
  readonly isHidden: boolean;
  readonly isDeleted: boolean;
  readonly inFonts: boolean;
  /** Whether it was passed over before a destination began that is there twice, the second time in Unicode. */
  readonly skippedBefore: boolean;
  /** Of its letters, in half points. */
  readonly size: number;
  readonly spanStyle: SpanStyle;
  readonly stand: Stand | undefined;
  /** Bytes that stand in for a Unicode character where it is not known. */
  readonly fallbacks: number;
  /** The number of its font; undefined for that of the document. */
  readonly font: number | undefined;
}

const token = /\\([a-z]+)(-?\d+)? ?|\\'([0-9a-f]{2})|\\(.|\r|\n)|([{}])|[\r\n]+|([^\\{}\r\n]+)/giy;

/** @throws Unreadable where it is no RTF, or has no text */
export function readRtf(file: Uint8Array): Sheet {
  // RTF is of bytes, each in the code page of its font; some writers put UTF-8 between the control words.
  const utf8 = decodeText(file);
  const isUtf8 = utf8.encoding === 'utf-8';
  const source = isUtf8 ? utf8.text : inBytes(file);
  if (!/^\s*\{\\rtf/.test(source))
    throw new Unreadable('This is not RTF: it does not begin with {\\rtf.');
  const warnings: Warning[] = [];
  const stack: Group[] = [];
  let group: Group = {
    skipped: false,
    isHidden: false,
    isDeleted: false,
    inFonts: false,
    skippedBefore: false,
    size: USUAL_SIZE,
    spanStyle: {},
    stand: undefined,
    fallbacks: 1,
    font: undefined,
  };
  /** The code page of the document, of its fonts where they have another, and the font that most of it is in. */
  let codePage = 1252;
  const fontPages = new Map<number, number>();
  let [usualFont, tableFont] = [0, 0];
  let bytes: number[] = [];
  let toSkip = 0;
  let starred = false;
  const paragraphs: SetParagraph[] = [];
  let [text, size, hides] = ['', 0, false];
  const isSeen = () => !group.skipped && !group.isHidden && !group.isDeleted;
  const write = (part: string) => {
    text += carrying(part, group.spanStyle);
    if (part.trim() !== '') size = Math.max(size, group.size);
  };
  const settle = () => {
    if (bytes.length > 0)
      write(decodePage(Uint8Array.from(bytes), fontPages.get(group.font ?? usualFont) ?? codePage));
    bytes = [];
  };
  const put = (part: string) => {
    settle();
    if (isSeen()) write(part);
    else if (!group.skipped) hides = true;
  };
  const end = () => {
    settle();
    // A paragraph whose end is hidden goes on in the next.
    if (!isSeen()) return;
    // The last cell of a row ends with a tab too.
    const whole = text.replace(/\t+$/, '');
    if (whole !== '' || !hides) paragraphs.push({ text: whole, size, stand: group.stand });
    [text, size, hides] = ['', 0, false];
  };
  /** Letters that stand in the file as they are: bytes of the code page, some the second half of a character. */
  const putLetters = (part: string) => {
    if (isUtf8 && /[^\0-\x7f]/.test(part)) put(part);
    else if (isSeen()) for (const letter of part) bytes.push(letter.charCodeAt(0));
    else if (!group.skipped) hides = true;
  };
  const change = (changed: Partial<Group>) => {
    settle();
    group = { ...group, ...changed };
  };
  token.lastIndex = 0;
  for (let found = token.exec(source); found; found = token.exec(source)) {
    const [, word, number, hex, symbol, brace, letters] = found;
    if (brace === '{') {
      settle();
      stack.push(group);
      starred = false;
    } else if (brace === '}') {
      settle();
      group = stack.pop() ?? group;
      if (stack.length === 0) break;
    } else if (hex !== undefined) {
      if (toSkip > 0) toSkip--;
      else if (isSeen()) bytes.push(parseInt(hex, 16));
      else if (!group.skipped) hides = true;
    } else if (word !== undefined) {
      const value = number === undefined ? undefined : Number(number);
      const name = word.toLowerCase();
      if (name === 'upr') change({ skipped: true, skippedBefore: group.skipped });
      else if (starred && name === 'ud') change({ skipped: group.skippedBefore });
      else if (starred || passedOver.has(name))
        change({ skipped: true, inFonts: name === 'fonttbl' });
      starred = false;
      if (group.inFonts) {
        if (name === 'f') tableFont = value ?? 0;
        const page = name === 'cpg' ? value : name === 'fcharset' ? pageOf[value ?? 0] : undefined;
        if (page !== undefined) fontPages.set(tableFont, page);
      } else if (name === 'ansicpg') codePage = value ?? codePage;
      else if (documentPages[name] !== undefined) codePage = documentPages[name];
      else if (name === 'deff') usualFont = value ?? 0;
      else if (name === 'f') change({ font: value });
      else if (name === 'uc') group = { ...group, fallbacks: Math.max(0, value ?? 1) };
      else if (name === 'u' && value !== undefined) {
        put(String.fromCharCode(value & 0xffff));
        toSkip = group.fallbacks;
      } else if (name === 'bin') token.lastIndex += Math.max(0, value ?? 0);
      else if (characters[name] !== undefined) put(characters[name]);
      else if (name === 'fs') change({ size: value ?? USUAL_SIZE });
      else if (name === 'plain')
        change({
          size: USUAL_SIZE,
          spanStyle: {},
          isHidden: false,
          isDeleted: false,
          font: undefined,
        });
      else if (name === 'v') change({ isHidden: value !== 0 });
      else if (name === 'deleted') change({ isDeleted: value !== 0 });
      else if (name === 'i' || name === 'b' || name === 'ul' || name === 'ulnone') {
        const spanStyle = { i: 'italic', b: 'bold', ul: 'underline', ulnone: 'underline' }[name];
        const isOn = name !== 'ulnone' && value !== 0;
        change({ spanStyle: { ...group.spanStyle, [spanStyle]: isOn } });
      } else if (name === 'pard' || stands[name]) group = { ...group, stand: stands[name] };
      else if (ends.has(name)) end();
    } else if (symbol !== undefined) {
      if (symbol === '*') starred = true;
      else if ('\\{}'.includes(symbol)) {
        if (toSkip > 0) toSkip--;
        else putLetters(symbol);
      } else if (symbol === '\n' || symbol === '\r') end();
      else if (characters[symbol] !== undefined) put(characters[symbol]);
    } else if (letters !== undefined) {
      const rest = letters.slice(Math.min(toSkip, letters.length));
      toSkip -= letters.length - rest.length;
      if (rest !== '') putLetters(rest);
    }
  }
  end();
  if (stack.length > 0)
    warnings.push({
      kind: 'cut off',
      line: source.split('\n').length,
      message: 'The file ends too soon. Everything before that was read.',
    });
  const lines = paragraphs.flatMap(({ text: whole, ...set }) =>
    whole.split('\n').map((line) => ({ ...set, text: line })),
  );
  if (lines.every(({ text: line }) => line.trim() === ''))
    throw new Unreadable('There is no text in this RTF file.');
  const laid = laidParagraphs(lines);
  const { blocks, ...more } = blocksOf(laid.paragraphs, laid.separator);
  return { blocks: withSpans(blocks), ...more, warnings: [...warnings, ...laid.warnings] };
}

/** Bytes as characters of the same numbers. */
function inBytes(file: Uint8Array): string {
  const parts: string[] = [];
  for (let at = 0; at < file.length; at += 8192)
    parts.push(String.fromCharCode(...file.subarray(at, at + 8192)));
  return parts.join('');
}

/** The code page of a document by a control word. */
const documentPages: Readonly<Record<string, number>> = { mac: 10_000, pc: 437, pca: 850 };
/** The code page of a font by its character set; the Western one is that of the document. */
const pageOf: Readonly<Record<number, number>> = {
  77: 10_000,
  128: 932,
  129: 949,
  134: 936,
  136: 950,
  161: 1253,
  162: 1254,
  163: 1258,
  177: 1255,
  178: 1256,
  186: 1257,
  204: 1251,
  222: 874,
  238: 1250,
  254: 437,
  255: 850,
};
/** What code pages are called that are not named after Windows. */
const pageNames: Readonly<Record<number, string>> = {
  866: 'ibm866',
  932: 'shift_jis',
  936: 'gbk',
  949: 'euc-kr',
  950: 'big5',
  10_000: 'macintosh',
  10_007: 'x-mac-cyrillic',
  20_866: 'koi8-r',
  21_866: 'koi8-u',
  65_001: 'utf-8',
};

/** Bytes as text of a code page, by its number in Windows; an unknown one is taken for the Western one. */
function decodePage(bytes: Uint8Array, page: number): string {
  const upper = DOS_PAGES[page];
  if (upper)
    return Array.from(bytes, (byte) =>
      byte < 0x80 ? String.fromCharCode(byte) : upper[byte - 0x80],
    ).join('');
  const iso = page > 28_590 && page < 28_606 ? `iso-8859-${page - 28_590}` : undefined;
  try {
    return decodeAs(bytes, pageNames[page] ?? iso ?? `windows-${page}`);
  } catch {
    return decodeAs(bytes, 'windows-1252');
  }
}
