/**
 * Reading DOCX (ECMA-376, WordprocessingML) as a sheet, by the packages `fflate` and `mammoth`: headings,
 * paragraphs with tabs, and tables whose first column has the roles.
 */
import { unzipSync, zipSync, type Unzipped } from 'fflate';
import { Parser } from 'htmlparser2';
import mammoth from 'mammoth';
import { Unreadable, type Warning } from '../captions.ts';
import type { Paragraph } from '../../text/sheetLines.ts';
import { blocksOf, putRow, type Block, type Sheet } from '../sheet/blocks.ts';
import { carrying, withSpans } from '../sheet/manners.ts';

/** Bytes that the parts of a manuscript may come to once unpacked. */
const MOST = 80e6;
/** Parts that words are in; pictures and the like are not unpacked. */
const needed = /\.(?:xml|rels)$/i;

/** @throws Unreadable where the bytes are no DOCX, unpack to more than 80 MB, or hold no text */
export async function readDocx(bytes: Uint8Array): Promise<Sheet> {
  const parts = unpacked(bytes);
  if (!parts['word/document.xml'])
    throw new Unreadable('This is not a DOCX file: it has no document in it.');
  if (Object.values(parts).some(declaresEntities))
    throw new Unreadable('This DOCX declares entities of its own, which no word processor writes.');
  // Packed anew, so that nothing is unpacked that was not measured.
  const packed = zipSync(parts, { level: 0 });
  let html: string;
  let said: readonly { readonly message: string }[];
  try {
    const result = await mammoth.convertToHtml(
      // Which of the two it takes depends on where it runs.
      { buffer: packed, arrayBuffer: packed } as unknown as { buffer: Buffer },
      { styleMap: ["p[style-name='Title'] => h1.title:fresh", 'u => u', "br[type='page'] => hr"] },
    );
    html = result.value;
    said = result.messages;
  } catch {
    throw new Unreadable('This DOCX is damaged: the document in it cannot be read.');
  }
  const sheet = sheetOfHtml(html);
  if (sheet.blocks.length === 0) throw new Unreadable('There is no text in this DOCX file.');
  const warnings = said
    .filter(({ message }) => !message.startsWith('Unrecognised paragraph style'))
    .map(({ message }): Warning => ({ kind: 'left out', line: 0, message }));
  return { ...sheet, warnings };
}

function unpacked(bytes: Uint8Array): Unzipped {
  let total = 0;
  let tooLarge = false;
  try {
    return unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!needed.test(name)) return false;
        total += originalSize;
        tooLarge ||= total > MOST;
        if (tooLarge) throw new RangeError();
        return true;
      },
    });
  } catch {
    throw new Unreadable(
      tooLarge
        ? 'This file unpacks to more than 80 MB, which no manuscript does.'
        : 'This is not a DOCX file, or it is damaged.',
    );
  }
}

/** Whether a part begins with a document type, looked for where one may stand. */
function declaresEntities(part: Uint8Array): boolean {
  const head = String.fromCharCode(...part.subarray(0, 2000).filter((byte) => byte !== 0));
  return /<!DOCTYPE/i.test(head);
}

const manners: Readonly<Record<string, 'italic' | 'bold' | 'underline'>> = {
  em: 'italic',
  strong: 'bold',
  u: 'underline',
};

/** The blocks of the plain HTML that a document becomes. */
function sheetOfHtml(html: string): Pick<Sheet, 'blocks' | 'separator'> {
  const blocks: Block[] = [];
  let separator: string | undefined;
  let run: Paragraph[] = [];
  let [text, apart] = ['', true];
  let row: string[][] | undefined;
  let titled = false;
  const manner = { italic: false, bold: false, underline: false };
  const settle = () => {
    const read = blocksOf(run);
    run = [];
    separator ??= read.separator;
    for (const block of read.blocks)
      if (block.kind === 'row') putRow(blocks, block.role ?? '', block.names ?? []);
      else blocks.push(block);
  };
  const parser = new Parser({
    onopentag: (name, attributes) => {
      const changed = manners[name];
      if (changed) manner[changed] = true;
      if (name === 'tr') row = [];
      else if (name === 'td' || name === 'th') row?.push([]);
      else if (name === 'table') settle();
      else if (name === 'br') text += '\n';
      else if (name === 'hr') {
        settle();
        blocks.push({ kind: 'separator' });
      } else if (name === 'img') {
        settle();
        blocks.push({ kind: 'picture', text: attributes.alt ?? '' });
      } else if (/^(?:p|h[1-6]|li)$/.test(name)) text = '';
      if (name === 'h1' && attributes.class === 'title') titled = true;
    },
    ontext: (part) => {
      text += carrying(part, manner);
    },
    onclosetag: (name) => {
      const changed = manners[name];
      if (changed) manner[changed] = false;
      if (/^(?:p|h[1-6]|li)$/.test(name)) {
        if (row) row.at(-1)?.push(text);
        else if (name.startsWith('h') && text.trim() !== '') {
          settle();
          const isTitle = titled && name === 'h1' && !blocks.some(({ kind }) => kind === 'title');
          blocks.push({ kind: isTitle ? 'title' : 'heading', text: text.trim() });
          titled = false;
          apart = true;
        } else {
          for (const line of text.split('\n')) {
            run.push({ text: line, apart });
            apart = line.trim() === '';
          }
        }
        text = '';
      } else if (name === 'tr' && row) {
        const [role = [], ...names] = row;
        const given = names.flat();
        if (names.length === 0) blocks.push({ kind: 'line', text: role.join(' ').trim() });
        else {
          separator ??= 'table';
          putRow(blocks, role.join(' '), given);
        }
        row = undefined;
      }
    },
  });
  parser.write(html);
  parser.end();
  settle();
  return { blocks: withSpans(blocks), ...(separator !== undefined && { separator }) };
}
