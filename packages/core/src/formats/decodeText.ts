/** Bytes to text, with the encoding found out. */
import chardet from 'chardet';

export interface DecodedText {
  readonly text: string;
  /** The name of the encoding in the WHATWG Encoding Standard, such as `utf-8` or `windows-1252`. */
  readonly encoding: string;
}

const strict = (bytes: Uint8Array, label: string): string | undefined => {
  try {
    return new TextDecoder(label, { fatal: true }).decode(bytes);
  } catch {
    return undefined;
  }
};

/** UTF-16 without a mark: nearly every second byte of Western text is zero. */
function unmarkedUtf16(bytes: Uint8Array): string | undefined {
  const head = bytes.subarray(0, 4096);
  let [even, odd] = [0, 0];
  head.forEach((byte, at) => {
    if (byte !== 0) return;
    if (at % 2) odd++;
    else even++;
  });
  if (odd > head.length * 0.3 && even < head.length * 0.05) return 'utf-16le';
  return even > head.length * 0.3 && odd < head.length * 0.05 ? 'utf-16be' : undefined;
}

/**
 * Decodes a text file. A byte-order mark decides; then UTF-16 by its zero bytes; then UTF-8 where it
 * is valid; else what the detector thinks likeliest, with ISO-8859-1 read as Windows-1252 as the web
 * does. Line ends become `\n`.
 *
 * @param label  an encoding to use instead of guessing; throws RangeError where it is unknown
 */
export function decodeText(bytes: Uint8Array, label?: string): DecodedText {
  const encoding = label ? new TextDecoder(label).encoding : guess(bytes);
  return { text: decodeAs(bytes, encoding).replace(/\r\n?/g, '\n'), encoding };
}

/**
 * Bytes as text of an encoding.
 *
 * @throws RangeError where it is unknown
 */
export function decodeAs(bytes: Uint8Array, label: string): string {
  const decoder = new TextDecoder(label);
  const decoded = decoder.decode(bytes);
  return decoder.encoding === 'windows-1252' ? withoutControls(decoded) : decoded;
}

/** What Windows-1252 has at 0x80 to 0x9F; a space stands for a place it leaves free. */
const upperControls = '€ ‚ƒ„…†‡ˆ‰Š‹Œ Ž  ‘’“”•–—˜™š›œ žŸ';

/** Some decoders take Windows-1252 for ISO-8859-1, which has control characters there. */
const withoutControls = (text: string): string =>
  text.replace(/[\x80-\x9f]/g, (control) => {
    const character = upperControls[control.charCodeAt(0) - 0x80];
    return character && character !== ' ' ? character : control;
  });

function guess(bytes: Uint8Array): string {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8';
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const wide = unmarkedUtf16(bytes);
  if (wide) return wide;
  if (strict(bytes, 'utf-8') !== undefined) return 'utf-8';
  const likely = chardet.detect(bytes.subarray(0, 65_536)) ?? 'windows-1252';
  try {
    return new TextDecoder(likely).encoding;
  } catch {
    return 'windows-1252';
  }
}
