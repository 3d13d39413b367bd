/** One face of a font: its glyphs' outlines and what HarfBuzz needs to shape with it. */
import * as hb from 'harfbuzzjs';

/** A file that is no font, or one that cannot be read. */
export class BrokenFont extends Error {
  override readonly name = 'BrokenFont';
}

export class Face {
  readonly id: string;
  readonly family: string;
  readonly bold: boolean;
  readonly italic: boolean;
  /** Font units in the height of the text. */
  readonly unitsPerEm: number;
  /** Height above and depth below the baseline, in font units. */
  readonly ascent: number;
  readonly descent: number;
  readonly font: hb.Font;
  readonly #outlines = new Map<number, string>();
  readonly #covered: ReadonlySet<number>;

  /**
   * @param bytes  of a TTF or OTF file
   * @throws BrokenFont where they are none
   */
  constructor(
    id: string,
    bytes: Uint8Array,
    of: { family: string; bold: boolean; italic: boolean },
  ) {
    const face = new hb.Face(new hb.Blob(bytes));
    const { unitsPerEm } = readHead(face);
    this.id = id;
    this.family = of.family;
    this.bold = of.bold;
    this.italic = of.italic;
    this.unitsPerEm = unitsPerEm;
    this.#covered = new Set(face.collectUnicodes());
    if (this.#covered.size === 0) throw new BrokenFont('This font has no characters.');
    this.font = new hb.Font(face);
    this.font.setScale(unitsPerEm, unitsPerEm);
    const extents = this.font.hExtents();
    this.ascent = extents.ascender;
    this.descent = -extents.descender;
  }

  has(codePoint: number): boolean {
    return this.#covered.has(codePoint);
  }

  /** The outline of a glyph as SVG path data in font units, y upwards; empty for a blank glyph. */
  outline(glyph: number): string {
    let path = this.#outlines.get(glyph);
    if (path === undefined) this.#outlines.set(glyph, (path = this.font.glyphToPath(glyph)));
    return path;
  }
}

/** The `head` table tells a font from any other file: its magic number is always the same. */
function readHead(face: hb.Face): { unitsPerEm: number } {
  const table = face.referenceTable('head');
  if (!table || table.length < 54)
    throw new BrokenFont('This file is not a TrueType or OpenType font.');
  const view = new DataView(table.buffer, table.byteOffset, table.byteLength);
  const unitsPerEm = view.getUint16(18);
  if (view.getUint32(12) !== 0x5f0f3cf5 || unitsPerEm < 16 || unitsPerEm > 16384)
    throw new BrokenFont('This font is damaged: its header makes no sense.');
  return { unitsPerEm };
}

/** The family name that a font gives itself; the typographic one where there are both. */
export function familyNameOf(bytes: Uint8Array): string {
  const face = new hb.Face(new hb.Blob(bytes));
  readHead(face);
  return (face.getName(16, 'en') || face.getName(1, 'en') || 'Unnamed').trim();
}
