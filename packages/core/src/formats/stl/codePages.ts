/**
 * The five code tables of EBU Tech 3264: table 00 is ISO/IEC 6937 for Latin letters, where a mark stands
 * before the letter that carries it; 01 to 04 are ISO 8859-5 (Cyrillic), 6 (Arabic), 7 (Greek), 8 (Hebrew).
 */

export const TABLES = ['00', '01', '02', '03', '04'] as const;
export type CodeTable = (typeof TABLES)[number];

const others: Readonly<Record<Exclude<CodeTable, '00'>, string>> = {
  '01': 'iso-8859-5',
  '02': 'iso-8859-6',
  '03': 'iso-8859-7',
  '04': 'iso-8859-8',
};

const decoders = new Map<CodeTable, TextDecoder>();

function decoderOf(table: Exclude<CodeTable, '00'>): TextDecoder {
  const known = decoders.get(table) ?? new TextDecoder(others[table]);
  decoders.set(table, known);
  return known;
}

/** 0xA0 to 0xFF; a full stop stands for a place that is left free or holds a mark, which has its own table. */
const upper = [
  '\u00a0¡¢£$¥#§¤‘“«←↑→↓',
  '°±²³×µ¶·÷’”»¼½¾¿',
  '................',
  '―¹®©™♪¬¦....⅛⅜⅝⅞',
  'ΩÆĐªĦ.ĲĿŁØŒºÞŦŊŉ',
  'ĸæđðħıĳŀłøœßþŧŋ\u00ad',
].join('');

/** Marks that stand before their letter, as combining marks of Unicode. */
const marks: Readonly<Record<number, string>> = {
  0xc1: '\u0300',
  0xc2: '\u0301',
  0xc3: '\u0302',
  0xc4: '\u0303',
  0xc5: '\u0304',
  0xc6: '\u0306',
  0xc7: '\u0307',
  0xc8: '\u0308',
  0xc9: '\u0308',
  0xca: '\u030a',
  0xcb: '\u0327',
  0xcd: '\u030b',
  0xce: '\u0328',
  0xcf: '\u030c',
};

const letterBytes = new Map<string, number>();
for (let byte = 0x20; byte < 0x7f; byte++) letterBytes.set(String.fromCharCode(byte), byte);
[...upper].forEach((letter, at) => {
  if (letter !== '.' && !letterBytes.has(letter)) letterBytes.set(letter, 0xa0 + at);
});
const markBytes = new Map<string, number>();
for (const [byte, mark] of Object.entries(marks))
  if (!markBytes.has(mark)) markBytes.set(mark, Number(byte));

/**
 * Bytes of text in a code table as text. A mark without a letter stands alone; a byte that means nothing is
 * U+FFFD. 0x24 is read as a dollar sign, as files have it, though the table of 1991 has ¤ there.
 */
export function decodeTable(bytes: Uint8Array, table: CodeTable): string {
  if (table !== '00') return decoderOf(table).decode(bytes);
  let text = '';
  let mark = '';
  for (const byte of bytes) {
    const found = marks[byte];
    if (found !== undefined) {
      text += mark;
      mark = found;
      continue;
    }
    text += mark === '' ? latin[byte] : `${latin[byte]}${mark}`;
    mark = '';
  }
  return (text + mark).normalize('NFC');
}

/** The letter of each byte of the Latin table, without floating marks. */
const latin: readonly string[] = Array.from({ length: 256 }, (_, byte) => {
  if (byte === 0x2e) return '.';
  const letter = byte < 0x7f ? String.fromCharCode(byte) : (upper[byte - 0xa0] ?? '.');
  return letter === '.' ? '\ufffd' : letter;
});

/** Letters that ISO 8859-7 has since 2003 only. */
const newer = new Set([0xa4, 0xa5, 0xaa]);

const reversed = new Map<CodeTable, Map<string, number>>();

/** Bytes by letter, for the tables that are ISO 8859. */
function bytesOf(table: Exclude<CodeTable, '00'>): Map<string, number> {
  let known = reversed.get(table);
  if (!known) {
    known = new Map();
    for (let byte = 0x20; byte < 0x100; byte++) {
      if ((byte >= 0x7f && byte < 0xa0) || (table === '03' && newer.has(byte))) continue;
      const letter = decoderOf(table).decode(Uint8Array.of(byte));
      if (letter !== '\ufffd') known.set(letter, byte);
    }
    reversed.set(table, known);
  }
  return known;
}

/** The bytes of one character in a code table; undefined where the table lacks it. */
export function encodeCharacter(character: string, table: CodeTable): number[] | undefined {
  if (table !== '00') {
    const byte = bytesOf(table).get(character);
    return byte === undefined ? undefined : [byte];
  }
  const byte = letterBytes.get(character);
  if (byte !== undefined) return [byte];
  const [letter = '', mark = '', ...more] = character.normalize('NFD');
  const [letterByte, markByte] = [letterBytes.get(letter), markBytes.get(mark)];
  return letterByte !== undefined && markByte !== undefined && more.length === 0
    ? [markByte, letterByte]
    : undefined;
}
