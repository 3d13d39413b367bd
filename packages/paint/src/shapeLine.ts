/**
 * Shaping a line of text with HarfBuzz.
 *
 * The line is cut into stretches of one direction (Unicode Bidirectional Algorithm, UAX 9), one face and one slant. Each
 * is shaped whole, so that ligatures, kerning, joining and combining marks are right inside it, and they are set side by
 * side in visual order. Colour and underline never cut a stretch: they are paint over a range of its glyphs.
 */
import bidiFactory from 'bidi-js';
import * as hb from 'harfbuzzjs';
import type { GlyphRun, PlacedGlyph, ShapedLine } from '@cadence/core/scene/shaper.ts';
import { graphemes } from '@cadence/core/text/graphemes.ts';
import type { Line, SpanStyle } from '@cadence/core/text/lines.ts';
import { plainLine } from '@cadence/core/text/lines.ts';
import type { Face } from './face.ts';

const bidi = bidiFactory();

interface Stretch {
  text: string;
  readonly level: number;
  readonly slanted: boolean;
  readonly face: Face;
  /** How its text is painted, from which UTF-16 unit of it on. */
  readonly paints: { readonly from: number; readonly paint: Paint }[];
}

type Paint = Pick<GlyphRun, 'colour' | 'underline'>;

const samePaint = (a: Paint, b: Paint): boolean =>
  a.colour === b.colour && a.underline === b.underline;

/**
 * @param families  the faces of each family in which to look for a character, the wanted one first
 * @param size      height of the text in pixels
 */
export function shapeLine(line: Line, families: readonly Face[][], size: number): ShapedLine {
  const text = plainLine(line);
  if (families.length === 0 || text === '')
    return { width: 0, runs: [], missing: [], borrowed: [], lent: [] };
  const { levels } = bidi.getEmbeddingLevels(text);
  const missing = new Set<string>();
  const borrowed = new Set<string>();
  const lent = new Set<string>();
  const stretches: Stretch[] = [];
  let at = 0;
  let [span, spanEnd] = [-1, 0];
  for (const character of graphemes(text)) {
    // A character is set as its first part is, where two spans share it.
    while (at >= spanEnd && span < line.length - 1) spanEnd += line[++span]?.text.length ?? 0;
    const spanStyle: SpanStyle = line[span] ?? {};
    const face = faceFor(character, spanStyle, families, stretches.at(-1)?.face);
    if (!hasAll(face, character)) missing.add(character);
    else if (face.family !== families[0]?.[0]?.family) {
      borrowed.add(face.family);
      lent.add(character);
    }
    const level = levels[at] ?? 0;
    const slanted = (spanStyle.italic ?? false) && !face.italic;
    const paint = { colour: spanStyle.colour, underline: spanStyle.underline ?? false };
    const last = stretches.at(-1);
    if (last && last.face === face && last.level === level && last.slanted === slanted) {
      const before = last.paints.at(-1);
      if (!before || !samePaint(before.paint, paint))
        last.paints.push({ from: last.text.length, paint });
      last.text += character;
    } else stretches.push({ text: character, level, slanted, face, paints: [{ from: 0, paint }] });
    at += character.length;
  }
  let pen = 0;
  const runs = visualOrder(stretches).flatMap((stretch) => {
    const clusters = shapeStretch(stretch, size, pen);
    pen = clusters.at(-1)?.end ?? pen;
    return runsOf(stretch, clusters);
  });
  return { width: pen, runs, missing: [...missing], borrowed: [...borrowed], lent: [...lent] };
}

const invisible = /^(?:\s|\p{C}|\p{Variation_Selector})$/u;

function hasAll(face: Face, character: string): boolean {
  const composed = character.normalize('NFC');
  const covers = (text: string) =>
    [...text].every((each) => invisible.test(each) || face.has(each.codePointAt(0) ?? 0));
  return covers(character) || covers(composed);
}

/** The face of the first family that has the character; white space stays with what is before it. */
function faceFor(
  character: string,
  spanStyle: SpanStyle,
  families: readonly Face[][],
  before: Face | undefined,
): Face {
  const inSpanStyle = (faces: readonly Face[]): Face | undefined => {
    const [bold, italic] = [spanStyle.bold ?? false, spanStyle.italic ?? false];
    return (
      faces.find((face) => face.bold === bold && face.italic === italic) ??
      faces.find((face) => face.bold === bold) ??
      faces[0]
    );
  };
  const candidates = families.map(inSpanStyle).filter((face) => face !== undefined);
  if (/^\s+$/.test(character) && before && candidates.includes(before)) return before;
  return candidates.find((face) => hasAll(face, character)) ?? (candidates[0] as Face);
}

/** Rule L2 of UAX 9, on whole stretches: from the highest level down, reverse what is at or above. */
function visualOrder(stretches: Stretch[]): Stretch[] {
  const order = [...stretches];
  const highest = Math.max(0, ...order.map((each) => each.level));
  for (let level = highest; level > 0; level--) {
    for (let from = 0; from < order.length; from++) {
      let to = from;
      while (to < order.length && (order[to] as Stretch).level >= level) to++;
      if (to - from > 1) order.splice(from, to - from, ...order.slice(from, to).reverse());
      from = to;
    }
  }
  return order;
}

/** Glyphs that stand for the same characters, in visual order. */
interface Cluster {
  /** The first of its characters, as a UTF-16 unit of the stretch. */
  readonly from: number;
  readonly glyphs: PlacedGlyph[];
  /** Where it starts and ends on the line, in pixels. */
  readonly start: number;
  end: number;
}

function shapeStretch({ text, level, face }: Stretch, size: number, x: number): Cluster[] {
  const buffer = new hb.Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  buffer.setDirection(level % 2 === 1 ? hb.Direction.RTL : hb.Direction.LTR);
  hb.shape(face.font, buffer);
  const scale = size / face.unitsPerEm;
  const positions = buffer.getGlyphPositions();
  let [penX, penY] = [0, 0];
  const clusters: Cluster[] = [];
  buffer.getGlyphInfos().forEach(({ codepoint, cluster: from }, at) => {
    const position = positions[at];
    const placed = {
      glyph: codepoint,
      x: x + (penX + (position?.xOffset ?? 0)) * scale,
      y: -(penY + (position?.yOffset ?? 0)) * scale,
    };
    const start = x + penX * scale;
    penX += position?.xAdvance ?? 0;
    penY += position?.yAdvance ?? 0;
    const end = x + penX * scale;
    const last = clusters.at(-1);
    if (last?.from === from) {
      last.glyphs.push(placed);
      last.end = end;
    } else clusters.push({ from, glyphs: [placed], start, end });
  });
  return clusters;
}

/** The clusters of a stretch as runs of one paint each. */
function runsOf(stretch: Stretch, clusters: readonly Cluster[]): GlyphRun[] {
  const { face, slanted, paints } = stretch;
  const runs: { paint: Paint; start: number; end: number; glyphs: PlacedGlyph[]; part?: Part }[] =
    [];
  const one = paints.length === 1 ? paints[0]?.paint : undefined;
  const starts = one ? [] : clusters.map(({ from }) => from).sort((a, b) => a - b);
  for (const { from, glyphs, start, end } of clusters) {
    const parts = one
      ? [{ paint: one, start, end }]
      : paintedParts(
          stretch,
          from,
          starts.find((other) => other > from),
          start,
          end,
        );
    for (const { paint, part, ...place } of parts) {
      const last = runs.at(-1);
      if (last && !last.part && !part && samePaint(last.paint, paint)) {
        last.glyphs.push(...glyphs);
        last.end = place.end;
      } else runs.push({ paint, ...place, glyphs: [...glyphs], ...(part && { part }) });
    }
  }
  return runs.map(({ paint, start, end, glyphs, part }) => ({
    face: face.id,
    slanted,
    ...paint,
    x: start,
    width: end - start,
    glyphs,
    ...(part && { part }),
  }));
}

type Part = NonNullable<GlyphRun['part']>;

/**
 * How a cluster is painted: whole where its characters are painted alike. A ligature whose characters are not is shared
 * out by them, each as wide as the other, as a caret would be placed in it.
 */
function paintedParts(
  { text, level, paints }: Stretch,
  from: number,
  until = text.length,
  start: number,
  end: number,
): { paint: Paint; start: number; end: number; part?: Part }[] {
  const paintAt = (unit: number): Paint =>
    (paints.findLast((each) => each.from <= unit) ?? paints[0])?.paint ?? {
      colour: undefined,
      underline: false,
    };
  const characters = graphemes(text.slice(from, until));
  const groups: { paint: Paint; count: number }[] = [];
  let at = from;
  for (const character of characters) {
    const paint = paintAt(at);
    const last = groups.at(-1);
    if (last && samePaint(last.paint, paint)) last.count++;
    else groups.push({ paint, count: 1 });
    at += character.length;
  }
  if (groups.length < 2) return [{ paint: groups[0]?.paint ?? paintAt(from), start, end }];
  if (level % 2 === 1) groups.reverse();
  let counted = 0;
  return groups.map(({ paint, count }, place) => {
    const left = start + ((end - start) * counted) / characters.length;
    counted += count;
    const right = start + ((end - start) * counted) / characters.length;
    // What hangs over the ends of the ligature belongs to the outer parts.
    const part = {
      from: place === 0 ? null : left,
      to: place === groups.length - 1 ? null : right,
    };
    return { paint, start: left, end: right, part };
  });
}
