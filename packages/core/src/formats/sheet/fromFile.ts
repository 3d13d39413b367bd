/** The text of a sheet from a file of any kind that words come in. */
import { plainText } from '../../text/lines.ts';
import { readSheet } from '../../text/sheet/sheet.ts';
import { Unreadable, type Warning } from '../captions.ts';
import { decodeText } from '../decodeText.ts';
import { readFile, recogniseFile, type FileKind } from '../readFile.ts';
import { writeSheet } from './write.ts';
import { plural } from '../../text/plural.ts';

export interface SheetFile {
  readonly format: FileKind;
  readonly text: string;
  readonly warnings: readonly Warning[];
}

/**
 * Plain text as it stands, for that is how a sheet is written; of other files their blocks, of a feed its titles, of
 * captions their lines.
 *
 * @param fileName  tells what text is that does not say it itself
 * @throws Unreadable where there is no text
 */
export async function sheetFromFile(bytes: Uint8Array, fileName: string): Promise<SheetFile> {
  const nothing = new Unreadable('There is no text in this file.');
  if (decodeText(bytes).text.trim() === '') throw nothing;
  const found = await readSheetFile(bytes, fileName);
  if (readSheet(found.text).parts.every(({ kind }) => kind === 'space')) throw nothing;
  return found;
}

async function readSheetFile(bytes: Uint8Array, fileName: string): Promise<SheetFile> {
  const decode = (): string => decodeText(bytes).text;
  if (recogniseFile(bytes, decode, fileName) === 'txt') {
    const text = decode()
      .replace(/^\uFEFF/, '')
      .replace(/\r\n?/g, '\n');
    return { format: 'txt', text, warnings: [] };
  }
  const { format, sheet, items, captions, warnings } = await readFile(bytes, fileName);
  const lines = items?.map(({ title }) => title) ?? captions.map(({ text }) => plainText(text));
  const blocks = sheet?.blocks ?? lines.map((text) => ({ kind: 'line' as const, text }));
  const underlined = (sheet?.blocks ?? []).filter(({ spans }) =>
    spans?.flat().some(({ underline }) => underline),
  ).length;
  const lost: Warning[] =
    underlined > 0
      ? [
          {
            kind: 'left out',
            line: 0,
            message: `A roll has no underlines: those of ${plural(underlined, 'line')} were left out.`,
          },
        ]
      : [];
  return { format, text: writeSheet(blocks), warnings: [...lost, ...warnings] };
}
