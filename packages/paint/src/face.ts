/** One face of a font: its glyphs' outlines and what HarfBuzz needs to shape with it. */
import * as hb from 'harfbuzzjs';

/** A file that is no font, or one that cannot be read. */
export class BrokenFont extends Error {
  override readonly name = 'BrokenFont';
}

/** The axes that text can be set by, after the OpenType specification: weight, and width in per cent of the usual. */
const AXES = ['wght', 'wdth'] as const;
type Axis = (typeof AXES)[number];
export type AxisValues = { readonly [A in Axis]?: number };

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
  /** Which letters it has, where others of its family have others. */
  readonly part: string | undefined;
  /** The least and the most weight that it has, and width in per cent, where it has more than one. */
  readonly axes: { readonly [A in Axis]?: readonly [least: number, most: number] };
  readonly #face: hb.Face;
  readonly #cuts = new Map<string, Face>();
  readonly #outlines = new Map<number, string>();
  readonly #covered: ReadonlySet<number>;

  /**
   * @param source  the bytes of a TTF or OTF file, or a face that was made of them
   * @param at      where it is on its axes, where it has some
   * @throws BrokenFont where they are none
   */
  constructor(
    id: string,
    source: Uint8Array | hb.Face,
    of: { family: string; bold: boolean; italic: boolean; part?: string | undefined },
    at: AxisValues = {},
  ) {
    const face = source instanceof hb.Face ? source : new hb.Face(new hb.Blob(source));
    const { unitsPerEm } = readHead(face);
    this.id = id;
    this.family = of.family;
    this.bold = of.bold;
    this.italic = of.italic;
    this.part = of.part;
    this.#face = face;
    this.unitsPerEm = unitsPerEm;
    this.#covered = new Set(face.collectUnicodes());
    if (this.#covered.size === 0) throw new BrokenFont('This font has no characters.');
    this.font = new hb.Font(face);
    this.font.setScale(unitsPerEm, unitsPerEm);
    const infos = face.getAxisInfos();
    this.axes = Object.fromEntries(
      AXES.flatMap((axis) => {
        const info = infos[axis];
        return info ? [[axis, [info.min, info.max]]] : [];
      }),
    );
    const values = Object.entries(at);
    if (values.length > 0)
      this.font.setVariations(values.map(([axis, value]) => new hb.Variation(axis, value)));
    const extents = this.font.hExtents();
    this.ascent = extents.ascender;
    this.descent = -extents.descender;
  }

  has(codePoint: number): boolean {
    return this.#covered.has(codePoint);
  }

  /** The face elsewhere on its axes, as near as it goes; the same object each time. */
  cut(wanted: AxisValues, bold: boolean): Face {
    const at = Object.fromEntries(
      Object.entries(wanted).flatMap(([axis, value]) => {
        const range = this.axes[axis as Axis];
        return range ? [[axis, Math.min(range[1], Math.max(range[0], value))]] : [];
      }),
    );
    const key = `${JSON.stringify(at)} ${bold}`;
    const known = this.#cuts.get(key);
    if (known) return known;
    const { family, italic, part } = this;
    const made = new Face(`${this.id} ${key}`, this.#face, { family, bold, italic, part }, at);
    this.#cuts.set(key, made);
    return made;
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
