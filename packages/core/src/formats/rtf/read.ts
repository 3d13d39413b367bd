/**
 * Reading Rich Text Format (Microsoft, "Rich Text Format Specification 1.9.1") as a sheet: its paragraphs,
 * tabs and table cells, letters of any code page and of Unicode. Fonts, pictures and embedded objects are
 * passed over.
 */
import type { SpanStyle } from '../../text/lines.ts';
import { Unreadable, type Warning } from '../captions.ts';
import type { Stand } from '../../text/sheet/sheet.ts';
import { blocksOf, type Sheet } from '../sheet/blocks.ts';
import { carrying, withSpans } from '../sheet/spanStyles.ts';
import { laidParagraphs, type SetParagraph } from '../sheet/setParagraphs.ts';

/** Destinations whose text is not part of the manuscript. */
const passedOver = new Set([
  ...[
    'fonttbl',
    // Bullets and numbers that lists are drawn with.
    'listtext',
    'pntext',
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
  /** Of its letters, in half points. */
  readonly size: number;
  readonly spanStyle: SpanStyle;
  readonly stand: Stand | undefined;
  /** Bytes that stand in for a Unicode character where it is not known. */
  readonly fallbacks: number;
  readonly codePage: string;
}

const token = /\\([a-z]+)(-?\d+)? ?|\\'([0-9a-f]{2})|\\(.|\n)|([{}])|\n+|([^\\{}\n]+)/giy;

/** @throws Unreadable where it is no RTF, or has no text */
export function readRtf(source: string): Sheet {
  if (!/^\s*\{\\rtf/.test(source))
    throw new Unreadable('This is not RTF: it does not begin with {\\rtf.');
  const warnings: Warning[] = [];
  const stack: Group[] = [];
  let group: Group = {
    skipped: false,
    size: USUAL_SIZE,
    spanStyle: {},
    stand: undefined,
    fallbacks: 1,
    codePage: 'windows-1252',
  };
  let bytes: number[] = [];
  let toSkip = 0;
  let starred = false;
  const paragraphs: SetParagraph[] = [];
  let [text, size] = ['', 0];
  const write = (part: string) => {
    text += carrying(part, group.spanStyle);
    if (part.trim() !== '') size = Math.max(size, group.size);
  };
  const settle = () => {
    if (bytes.length > 0) write(new TextDecoder(group.codePage).decode(Uint8Array.from(bytes)));
    bytes = [];
  };
  const put = (part: string) => {
    settle();
    if (!group.skipped) write(part);
  };
  const end = () => {
    settle();
    if (group.skipped) return;
    // The last cell of a row ends with a tab too.
    paragraphs.push({ text: text.replace(/\t+$/, ''), size, stand: group.stand });
    [text, size] = ['', 0];
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
      else if (!group.skipped) bytes.push(parseInt(hex, 16));
    } else if (word !== undefined) {
      const value = number === undefined ? undefined : Number(number);
      const name = word.toLowerCase();
      if (starred || passedOver.has(name)) {
        settle();
        group = { ...group, skipped: true };
      }
      starred = false;
      if (name === 'ansicpg') group = { ...group, codePage: encodingOf(value) };
      else if (name === 'mac') group = { ...group, codePage: 'macintosh' };
      else if (name === 'uc') group = { ...group, fallbacks: Math.max(0, value ?? 1) };
      else if (name === 'u' && value !== undefined) {
        put(String.fromCharCode(value & 0xffff));
        toSkip = group.fallbacks;
      } else if (name === 'bin') token.lastIndex += Math.max(0, value ?? 0);
      else if (characters[name] !== undefined) put(characters[name]);
      else if (name === 'fs' || name === 'plain') {
        settle();
        group =
          name === 'fs'
            ? { ...group, size: value ?? USUAL_SIZE }
            : { ...group, size: USUAL_SIZE, spanStyle: {} };
      } else if (name === 'i' || name === 'b' || name === 'ul' || name === 'ulnone') {
        settle();
        const spanStyle = { i: 'italic', b: 'bold', ul: 'underline', ulnone: 'underline' }[name];
        const isOn = name !== 'ulnone' && value !== 0;
        group = { ...group, spanStyle: { ...group.spanStyle, [spanStyle]: isOn } };
      } else if (name === 'pard' || stands[name]) group = { ...group, stand: stands[name] };
      else if (ends.has(name)) end();
    } else if (symbol !== undefined) {
      if (symbol === '*') starred = true;
      else if ('\\{}'.includes(symbol)) {
        if (toSkip > 0) toSkip--;
        else put(symbol);
      } else if (symbol === '\n') end();
      else if (characters[symbol] !== undefined) put(characters[symbol]);
    } else if (letters !== undefined) {
      const rest = letters.slice(Math.min(toSkip, letters.length));
      toSkip -= letters.length - rest.length;
      if (rest !== '') put(rest);
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
  const { blocks, ...more } = blocksOf(laid.paragraphs);
  return { blocks: withSpans(blocks), ...more, warnings: [...warnings, ...laid.warnings] };
}

/** The encoding of a Windows code page, where there is one of that number. */
function encodingOf(page: number | undefined): string {
  const label = page === 10_000 ? 'macintosh' : page === 65_001 ? 'utf-8' : `windows-${page}`;
  const known: Readonly<Record<number, string>> = {
    932: 'shift_jis',
    936: 'gbk',
    949: 'euc-kr',
    950: 'big5',
  };
  try {
    return new TextDecoder(known[page ?? 0] ?? label).encoding;
  } catch {
    return 'windows-1252';
  }
}
