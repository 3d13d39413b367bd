/** What the scene needs of whoever shapes text; HarfBuzz stands behind it in `paint`. */
import type { Line } from '../text/lines.ts';

/** A glyph of a face, where its origin stands from the start of its line, in pixels, y downwards. */
export interface PlacedGlyph {
  readonly glyph: number;
  readonly x: number;
  readonly y: number;
}

/** Glyphs of one face and one colour that follow each other. */
export interface GlyphRun {
  /** Names the face to whoever paints. */
  readonly face: string;
  /** The face has no italic of its own, so that its upright one is to be slanted. */
  readonly slanted: boolean;
  /** Colour where the text sets one; undefined is the colour of the style. */
  readonly colour: string | undefined;
  readonly underline: boolean;
  readonly x: number;
  readonly width: number;
  readonly glyphs: readonly PlacedGlyph[];
  /**
   * What of the glyphs is painted, from where to where on the line, in pixels; null is as far as they reach. Only where
   * one ligature is painted in two colours.
   */
  readonly part?: { readonly from: number | null; readonly to: number | null };
}

export interface ShapedLine {
  /** In pixels, from the first pen position to the last. */
  readonly width: number;
  readonly runs: readonly GlyphRun[];
  /** Characters that no family has. */
  readonly missing: readonly string[];
  /** Families that lent glyphs which the wanted one lacks. */
  readonly borrowed: readonly string[];
  /** The characters that they lent. */
  readonly lent: readonly string[];
}

/** A letter, or what moves as one: a ligature, or letters that are joined. */
export interface ShapedLetter {
  /** Where it is in the plain text of its line, in UTF-16 units. */
  readonly from: number;
  readonly to: number;
  /** Where it stands on the line, in pixels. */
  readonly start: number;
  readonly end: number;
  readonly runs: readonly GlyphRun[];
}

/** Where text is set on the axes of a variable font; as usual where nothing is said. */
export interface Cut {
  /** From 1 to 1000; 400 is the regular weight of most families. */
  readonly weight?: number | null | undefined;
  /** Of letters, in per cent of the usual. */
  readonly width?: number | null | undefined;
}

export interface TextShaper {
  /** Height above and depth below the baseline, in pixels at a size of one pixel. */
  metrics(family: string): { readonly ascent: number; readonly descent: number };
  /**
   * @param size     in pixels
   * @param spacing  between letters besides, in pixels; letters that join stay together
   */
  shape(line: Line, family: string, size: number, spacing?: number, cut?: Cut): ShapedLine;
  /** The letters of a line as {@link TextShaper.shape} sets them, white space too, in the order of the text. */
  letters(
    line: Line,
    family: string,
    size: number,
    spacing?: number,
    cut?: Cut,
  ): readonly ShapedLetter[];
  /** The families at hand that have every character of a text. */
  familiesWith(text: string): readonly string[];
}
