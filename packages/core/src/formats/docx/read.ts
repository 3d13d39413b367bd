/**
 * Reading DOCX (ECMA-376, WordprocessingML) as a sheet, by the packages `fflate` and `mammoth`: headings,
 * paragraphs with tabs, and tables whose first column has the roles.
 */
import { strToU8, unzipSync, zipSync, type Unzipped } from 'fflate';
import { Parser } from 'htmlparser2';
import mammoth from 'mammoth';
import { Unreadable, type Warning } from '../captions.ts';
import { decodeText } from '../decodeText.ts';
import { blocksOf, putRow, type Block, type Sheet } from '../sheet/blocks.ts';
import { carrying, withSpans } from '../sheet/spanStyles.ts';
import { laidParagraphs, type LaidParagraph, type SetParagraph } from '../sheet/setParagraphs.ts';
import { withoutHidden } from './hidden.ts';
import { readStyles, standOf, type SetBy } from './styles.ts';
import { plural } from '../../text/plural.ts';
import { trimSpaces } from '../../text/spaces.ts';

/** Bytes that the parts of a manuscript may come to once unpacked. */
const MOST = 80e6;
/** Parts that words are in; pictures and the like are not unpacked. */
const needed = /\.(?:xml|rels)$/i;

/** @throws Unreadable where the bytes are no DOCX, unpack to more than 80 MB, or hold no text */
export async function readDocx(bytes: Uint8Array): Promise<Sheet> {
  const parts = unpacked(bytes);
  const whole = parts['word/document.xml'];
  if (!whole) throw new Unreadable('This is not a DOCX file: it has no document in it.');
  if (Object.values(parts).some(declaresEntities))
    throw new Unreadable('This DOCX declares its own XML entities, which is not allowed.');
  const styles = parts['word/styles.xml'];
  const styleSet = readStyles(styles ? decodeText(styles).text : '');
  const shown = withoutHidden(decodeText(whole).text, (style) => styleSet(style).isHidden);
  // Packed anew, so that nothing is unpacked that was not measured.
  const packed = zipSync({ ...parts, 'word/document.xml': strToU8(shown) }, { level: 0 });
  const sets: SetBy[] = [];
  let html: string;
  let said: readonly { readonly message: string }[];
  try {
    const result = await mammoth.convertToHtml(
      // Which of the two it takes depends on where it runs.
      { buffer: packed, arrayBuffer: packed } as unknown as { buffer: Buffer },
      {
        ignoreEmptyParagraphs: false,
        styleMap: ["p[style-name='Title'] => h1.title:fresh", 'u => u', "br[type='page'] => hr"],
        transformDocument: transforms.paragraph((each) => {
          const own = withoutNotes(each);
          const set = setIn(own, styleSet(each.styleId ?? null));
          return set ? labelled(own, sets.push(set) - 1) : own;
        }),
      },
    );
    html = result.value;
    said = result.messages;
  } catch {
    throw new Unreadable('This DOCX is damaged: the document in it cannot be read.');
  }
  const sheet = sheetOfHtml(html, sets);
  if (sheet.blocks.length === 0) throw new Unreadable('There is no text in this DOCX file.');
  // The package's own messages are for those who write style maps.
  const strange = said.filter(({ message }) => /unrecognised element/.test(message)).length;
  const warnings: Warning[] =
    strange > 0
      ? [
          {
            kind: 'left out',
            line: 0,
            message: `${plural(strange, 'part')} of this document cannot be read. Text in it was left out.`,
          },
        ]
      : [];
  return { ...sheet, warnings: [...warnings, ...sheet.warnings] };
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
        ? 'This file unpacks to more than 80 MB, which is too large.'
        : 'This is not a DOCX file, or it is damaged.',
    );
  }
}

/** Whether a part begins with a document type, looked for where one may stand. */
function declaresEntities(part: Uint8Array): boolean {
  const head = String.fromCharCode(...part.subarray(0, 2000).filter((byte) => byte !== 0));
  return /<!DOCTYPE/i.test(head);
}

/** A part of a document as `mammoth` has read it. */
interface DocumentPart {
  readonly type: string;
  readonly children?: readonly DocumentPart[];
  readonly styleId?: string | null;
  readonly alignment?: string | null;
  /** In points. */
  readonly fontSize?: number | null;
  readonly value?: string;
}

/** A part of the package that its types do not name. */
const { transforms } = mammoth as unknown as {
  transforms: {
    paragraph(change: (each: DocumentPart) => DocumentPart): (whole: unknown) => unknown;
  };
};

/** How a paragraph is set, its style and its letters together; undefined where it has no text. */
function setIn(paragraph: DocumentPart, { size, stand }: SetBy): SetBy | undefined {
  let largest: number | undefined;
  const look = ({ type, value, children, fontSize }: DocumentPart, own = size): void => {
    const points = fontSize ?? own ?? 0;
    if (type === 'text' && value?.trim()) largest = Math.max(largest ?? 0, points);
    children?.forEach((child) => look(child, points));
  };
  look(paragraph);
  const aligned = standOf(paragraph.alignment) ?? stand;
  return largest === undefined ? undefined : { size: largest, stand: aligned };
}

/**
 * What is known of a paragraph does not come through to HTML; its number does, as a text before its own, between
 * characters of the private use area.
 */
const LABEL = /^\ue010(\d+)\ue011/;
const labelled = (paragraph: DocumentPart, number: number): DocumentPart => {
  const text = { type: 'text', value: `\ue010${number}\ue011` };
  return {
    ...paragraph,
    children: [{ type: 'run', children: [text] }, ...(paragraph.children ?? [])],
  };
};

/** A part without its footnotes and endnotes, which would stand at the end of the text. */
const withoutNotes = (part: DocumentPart): DocumentPart =>
  part.children
    ? {
        ...part,
        children: part.children.filter(({ type }) => type !== 'noteReference').map(withoutNotes),
      }
    : part;

const spanStyles: Readonly<Record<string, 'italic' | 'bold' | 'underline'>> = {
  em: 'italic',
  strong: 'bold',
  u: 'underline',
};

/** What comes one after the other in a document: paragraphs, and what is none. */
type Piece = { readonly paragraph: SetParagraph } | { readonly block: Block };

/**
 * The blocks of the plain HTML that a document becomes.
 *
 * @param sets  how each paragraph is set that has a label
 */
function sheetOfHtml(html: string, sets: readonly SetBy[]): Sheet {
  const pieces: Piece[] = [];
  let separator: string | undefined;
  let text = '';
  let row: string[][] | undefined;
  let titled = false;
  const spanStyle = { italic: false, bold: false, underline: false };
  const putParagraph = (whole: string, kind?: 'title' | 'heading') => {
    const { size = 0, stand } = sets[Number(LABEL.exec(whole)?.[1] ?? -1)] ?? {};
    const own = whole.replace(LABEL, '');
    const lines = kind ? [trimSpaces(own)] : own.split('\n');
    for (const line of lines)
      pieces.push({ paragraph: { text: line, size, stand, ...(kind && { kind }) } });
  };
  const parser = new Parser({
    onopentag: (name, attributes) => {
      const changed = spanStyles[name];
      if (changed) spanStyle[changed] = true;
      if (name === 'tr') row = [];
      else if (name === 'td' || name === 'th') row?.push([]);
      else if (name === 'br') text += '\n';
      else if (name === 'hr') pieces.push({ block: { kind: 'separator' } });
      else if (name === 'img')
        pieces.push({ block: { kind: 'picture', text: attributes.alt ?? '' } });
      else if (/^(?:p|h[1-6]|li)$/.test(name)) text = '';
      if (name === 'h1' && attributes.class === 'title') titled = true;
    },
    ontext: (part) => {
      text += (LABEL.exec(part)?.[0] ?? '') + carrying(part.replace(LABEL, ''), spanStyle);
    },
    onclosetag: (name) => {
      const changed = spanStyles[name];
      if (changed) spanStyle[changed] = false;
      if (/^(?:p|h[1-6]|li)$/.test(name)) {
        if (row) row.at(-1)?.push(text.replace(LABEL, ''));
        else if (!name.startsWith('h')) putParagraph(text);
        else if (text.replace(LABEL, '').trim() !== '') {
          const before = pieces.some(
            (piece) => 'paragraph' in piece && piece.paragraph.kind === 'title',
          );
          putParagraph(text, titled && name === 'h1' && !before ? 'title' : 'heading');
          titled = false;
        }
        text = '';
      } else if (name === 'tr' && row) {
        const [role = [], ...names] = row;
        if (names.length === 0)
          pieces.push({ block: { kind: 'line', text: trimSpaces(role.join(' ')) } });
        else {
          separator ??= 'table';
          const given = names.flat();
          pieces.push({ block: { kind: 'row', role: role.join(' '), names: given } });
        }
        row = undefined;
      }
    },
  });
  parser.write(html);
  parser.end();
  return inOrder(pieces, separator);
}

/** Pieces as blocks: paragraphs that follow each other are understood together. */
function inOrder(pieces: readonly Piece[], table: string | undefined): Sheet {
  const {
    paragraphs,
    separator: usual,
    warnings,
  } = laidParagraphs(pieces.flatMap((piece) => ('paragraph' in piece ? [piece.paragraph] : [])));
  const blocks: Block[] = [];
  let separator = table;
  let run: LaidParagraph[] = [];
  const settle = () => {
    const read = blocksOf(run, usual);
    run = [];
    separator ??= read.separator;
    for (const block of read.blocks)
      if (block.kind === 'row') putRow(blocks, block.role ?? '', block.names ?? [], block);
      else blocks.push(block);
  };
  let at = 0;
  for (const piece of pieces) {
    if ('block' in piece) {
      settle();
      const { kind, role = '', names = [] } = piece.block;
      if (kind === 'row') putRow(blocks, role, names);
      else blocks.push(piece.block);
      continue;
    }
    const laid = paragraphs[at++] as LaidParagraph;
    if (piece.paragraph.kind) settle();
    run.push(run.length === 0 ? { ...laid, afterBlank: true } : laid);
    if (piece.paragraph.kind) settle();
  }
  settle();
  return { blocks: withSpans(blocks), ...(separator !== undefined && { separator }), warnings };
}
