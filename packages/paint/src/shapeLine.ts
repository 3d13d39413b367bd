/**
 * Shaping a line of text with HarfBuzz.
 *
 * The line is cut into stretches of one direction (Unicode Bidirectional Algorithm, UAX 9), one face and one slant. Each
 * is shaped whole, so that ligatures, kerning, joining and combining marks are right inside it, and they are set side by
 * side in visual order. Colour and underline never cut a stretch: they are paint over a range of its glyphs.
 */
import bidiFactory from 'bidi-js';
import * as hb from 'harfbuzzjs';
import type {
  GlyphRun,
  PlacedGlyph,
  ShapedLetter,
  ShapedLine,
} from '@cadence/core/scene/shaper.ts';
import { Recent } from '@cadence/core/scene/recent.ts';
import { graphemes } from '@cadence/core/text/graphemes.ts';
import type { Line, SpanStyle } from '@cadence/core/text/lines.ts';
import { plainLine } from '@cadence/core/text/lines.ts';
import type { Face } from './face.ts';

const bidi = bidiFactory();

interface Stretch {
  /** From where up to where it stands in the line, in UTF-16 units. */
  readonly from: number;
  to: number;
  readonly level: number;
  readonly slanted: boolean;
  readonly face: Face;
  /** How its text is painted, from which UTF-16 unit of it on. */
  readonly paints: { readonly from: number; readonly paint: Paint }[];
}

type CutStretch = Readonly<Stretch> & { readonly text: string };

type Paint = Pick<GlyphRun, 'colour' | 'underline'>;

const samePaint = (a: Paint, b: Paint): boolean =>
  a.colour === b.colour && a.underline === b.underline;

/** What a line is cut into, and what no face has. */
interface Cut {
  /** In the order of the text. */
  readonly stretches: readonly CutStretch[];
  readonly missing: ReadonlySet<string>;
  readonly borrowed: ReadonlySet<string>;
  readonly lent: ReadonlySet<string>;
}

/** Text in which nothing goes from right to left: what stands before Hebrew, punctuation, and the writing of East Asia. */
const goesOneWay = /^[ -\u058f\u2010-\u2027\u2030-\u205e\u3000-\u9fff]*$/;

function cutUp(line: Line, families: readonly Face[][]): Cut {
  const text = plainLine(line);
  let candidates: readonly Face[] = [];
  const levels = goesOneWay.test(text) ? [] : bidi.getEmbeddingLevels(text).levels;
  const missing = new Set<string>();
  const borrowed = new Set<string>();
  const lent = new Set<string>();
  const stretches: Stretch[] = [];
  const family = families[0]?.[0]?.family;
  let at = 0;
  let [span, spanEnd] = [-1, 0];
  let spanStyle: SpanStyle = {};
  let paint: Paint = { colour: undefined, underline: false };
  for (const character of graphemes(text)) {
    // A character is set as its first part is, where two spans share it.
    const before = span;
    while (at >= spanEnd && span < line.length - 1) spanEnd += line[++span]?.text.length ?? 0;
    if (span !== before || at === 0) {
      spanStyle = line[span] ?? {};
      candidates = facesFor(spanStyle, families);
      paint = { colour: spanStyle.colour, underline: spanStyle.underline ?? false };
    }
    const last = stretches.at(-1);
    const face = faceFor(character, candidates, last?.face);
    if (!hasAll(face, character)) missing.add(character);
    else if (face.family !== family) {
      borrowed.add(face.family);
      lent.add(character);
    }
    const level = levels[at] ?? 0;
    const slanted = (spanStyle.italic ?? false) && !face.italic;
    if (last && last.face === face && last.level === level && last.slanted === slanted) {
      const before = last.paints.at(-1);
      if (!before || !samePaint(before.paint, paint))
        last.paints.push({ from: at - last.from, paint });
      last.to = at + character.length;
    } else
      stretches.push({
        ...{ from: at, to: at + character.length, level, slanted, face },
        paints: [{ from: 0, paint }],
      });
    at += character.length;
  }
  return {
    stretches: stretches.map((stretch) => ({
      ...stretch,
      text: text.slice(stretch.from, stretch.to),
    })),
    missing,
    borrowed,
    lent,
  };
}

/** The stretches of a line as they stand beside each other, each with its clusters; and how wide the line is. */
function shapeAfresh(
  { stretches }: Cut,
  size: number,
  spacing: number,
): { readonly shaped: readonly (readonly [CutStretch, Cluster[]])[]; readonly width: number } {
  let pen = 0;
  const shaped = visualOrder(stretches).map((stretch) => {
    const clusters = shapeStretch(stretch, size, pen, spacing !== 0);
    if (spacing !== 0) spaceOut(clusters, stretch.text, spacing);
    pen = clusters.at(-1)?.end ?? pen;
    return [stretch, clusters] as const;
  });
  // Nothing is after the last letter.
  return { shaped, width: pen > 0 ? pen - spacing : pen };
}

/** A line as it is shaped. */
interface Shaped extends ReturnType<typeof shapeAfresh> {
  readonly cut: Cut;
  readonly families: readonly Face[][];
  readonly size: number;
  readonly spacing: number;
}

const shapedBefore = new Recent<Line, Shaped>(16);

/** Shapes a line, once for its width and its letters. */
function shapeAll(line: Line, families: readonly Face[][], size: number, spacing: number): Shaped {
  const known = shapedBefore.get(line);
  if (known?.families === families && known.size === size && known.spacing === spacing)
    return known;
  const cut = cutUp(line, families);
  const shaped = { cut, families, size, spacing, ...shapeAfresh(cut, size, spacing) };
  shapedBefore.keep(line, shaped);
  return shaped;
}

/**
 * @param families  the faces of each family in which to look for a character, the wanted one first
 * @param size      height of the text in pixels
 * @param spacing   between letters besides, in pixels
 */
export function shapeLine(
  line: Line,
  families: readonly Face[][],
  size: number,
  spacing = 0,
): ShapedLine {
  if (families.length === 0 || plainLine(line) === '')
    return { width: 0, runs: [], missing: [], borrowed: [], lent: [] };
  const { cut, shaped, width } = shapeAll(line, families, size, spacing);
  const runs = shaped.flatMap(([stretch, clusters]) => runsOf(stretch, clusters));
  const [missing, borrowed, lent] = [[...cut.missing], [...cut.borrowed], [...cut.lent]];
  return { width, runs, missing, borrowed, lent };
}

/** Moves clusters apart, in the order in which they stand; those that join stay together. */
function spaceOut(clusters: readonly Cluster[], text: string, spacing: number): void {
  let by = 0;
  clusters.forEach((cluster, at) => {
    cluster.start += by;
    cluster.glyphs.forEach((glyph, place) => {
      cluster.glyphs[place] = { ...glyph, x: glyph.x + by };
    });
    const next = clusters[at + 1];
    if (!next || !areTied(cluster, next, text)) by += spacing;
    cluster.end += by;
  });
}

/** Whether a cluster may not be moved away from the one before it in the text. */
const isTied = (cluster: Cluster, before: Cluster, text: string): boolean =>
  cluster.joined || isOneShape(cluster, before, text);

const areTied = (a: Cluster, b: Cluster, text: string): boolean =>
  a.from < b.from ? isTied(b, a, text) : isTied(a, b, text);

/** Arabic letters that join nothing after them: Joining_Type R and U of Unicode's ArabicShaping.txt. */
const joinsNothingAfter =
  /^[\u0621-\u0625\u0627\u0629\u062f-\u0632\u0648\u0671-\u0677\u0688-\u0699\u06c0\u06c3-\u06cb\u06cd\u06cf\u06d2\u06d3\u06d5\u06ee\u06ef]/u;

/** Whether a cluster of Arabic is one shape with what is before it, where no tatweel may part them: lam and alif. */
const isOneShape = (cluster: Cluster, before: Cluster, text: string): boolean => {
  const letters = text.slice(before.from, before.to);
  return cluster.unsafe && /^\p{Script=Arabic}/u.test(letters) && !joinsNothingAfter.test(letters);
};

/**
 * The letters of a line, in the order of its text: what cannot be moved apart without being torn. A letter is a grapheme;
 * a ligature is one letter, and so are letters that are joined.
 *
 * @param families  as {@link shapeLine} has them
 */
export function shapeLetters(
  line: Line,
  families: readonly Face[][],
  size: number,
  spacing = 0,
): readonly ShapedLetter[] {
  if (families.length === 0) return [];
  const { shaped } = shapeAll(line, families, size, spacing);
  const letters: ShapedLetter[] = [];
  for (const [stretch, clusters] of shaped) {
    const { from, text } = stretch;
    const inText = inOrderOfText(clusters);
    inText.forEach((cluster, at) => {
      const before = inText[at - 1];
      if (before && isTied(cluster, before, text)) return;
      let next = at + 1;
      while (
        next < inText.length &&
        isTied(inText[next] as Cluster, inText[next - 1] as Cluster, text)
      )
        next++;
      const group = inText.slice(at, next).sort((a, b) => a.start - b.start);
      letters.push({
        from: from + cluster.from,
        to: from + (inText[next - 1] as Cluster).to,
        start: (group[0] as Cluster).start,
        end: group.length === 1 ? cluster.end : Math.max(...group.map((each) => each.end)),
        runs: runsOf(stretch, group),
      });
    });
  }
  return letters.sort((a, b) => a.from - b.from);
}

const invisible = /^(?:\s|\p{C}|\p{Variation_Selector})$/u;

const covered = new WeakMap<Face, Map<string, boolean>>();

/** Whether a face has all of a character, as it is written or composed. */
function hasAll(face: Face, character: string): boolean {
  const known = covered.get(face) ?? new Map<string, boolean>();
  covered.set(face, known);
  const found = known.get(character);
  if (found !== undefined) return found;
  const covers = (text: string) =>
    [...text].every((each) => invisible.test(each) || face.has(each.codePointAt(0) ?? 0));
  const has = covers(character) || covers(character.normalize('NFC'));
  known.set(character, has);
  return has;
}

/** The face of each family that is nearest to how a span is set. */
function facesFor(
  { bold = false, italic = false }: SpanStyle,
  families: readonly Face[][],
): Face[] {
  return families.flatMap(
    (faces) =>
      faces.find((face) => face.bold === bold && face.italic === italic) ??
      faces.find((face) => face.bold === bold) ??
      faces[0] ??
      [],
  );
}

/** The first face that has the character; white space stays with what is before it. */
function faceFor(character: string, candidates: readonly Face[], before: Face | undefined): Face {
  if (before && candidates.includes(before) && /^\s+$/.test(character)) return before;
  for (const face of candidates) if (hasAll(face, character)) return face;
  return candidates[0] as Face;
}

/** Rule L2 of UAX 9, on whole stretches: from the highest level down, reverse what is at or above. */
function visualOrder(stretches: readonly CutStretch[]): CutStretch[] {
  const order = [...stretches];
  const highest = Math.max(0, ...order.map((each) => each.level));
  for (let level = highest; level > 0; level--) {
    for (let from = 0; from < order.length; from++) {
      let to = from;
      while (to < order.length && (order[to] as CutStretch).level >= level) to++;
      if (to - from > 1) order.splice(from, to - from, ...order.slice(from, to).reverse());
      from = to;
    }
  }
  return order;
}

/** Glyphs that stand for the same characters, in visual order. */
interface Cluster {
  /** From where up to where its characters stand, as UTF-16 units of the stretch. */
  readonly from: number;
  to: number;
  /** Whether it is joined to what is before it in the text. */
  readonly joined: boolean;
  /** Whether it would look different if what is before it in the text were not there. */
  readonly unsafe: boolean;
  readonly glyphs: PlacedGlyph[];
  /** Where it starts and ends on the line, in pixels. */
  start: number;
  end: number;
}

/** Ligatures stay whole where letters are moved apart, so none are made. */
const APART = ['liga', 'clig'].map((tag) => new hb.Feature(tag, 0));

/** One for all: a new one for each line would be kept, with what it has in the module's memory, until garbage is collected. */
const buffer = new hb.Buffer();

function shapeStretch(
  { text, level, face }: CutStretch,
  size: number,
  x: number,
  apart: boolean,
): Cluster[] {
  buffer.reset();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  buffer.setDirection(level % 2 === 1 ? hb.Direction.RTL : hb.Direction.LTR);
  buffer.setFlags(hb.BufferFlag.PRODUCE_SAFE_TO_INSERT_TATWEEL);
  hb.shape(face.font, buffer, apart ? APART : undefined);
  const scale = size / face.unitsPerEm;
  const positions = buffer.getGlyphPositions();
  let [penX, penY] = [0, 0];
  const clusters: Cluster[] = [];
  buffer.getGlyphInfos().forEach(({ codepoint, cluster: from, flags }, at) => {
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
    } else {
      // A tatweel, the stroke that lengthens a join, can stand only where there is one.
      const joined = (flags & hb.GlyphFlag.SAFE_TO_INSERT_TATWEEL) !== 0;
      const unsafe = (flags & hb.GlyphFlag.UNSAFE_TO_BREAK) !== 0;
      clusters.push({ from, to: text.length, joined, unsafe, glyphs: [placed], start, end });
    }
  });
  const inText = inOrderOfText(clusters);
  inText.forEach((cluster, at) => (cluster.to = inText[at + 1]?.from ?? text.length));
  return clusters;
}

/** Clusters as their characters follow each other. */
function inOrderOfText(clusters: readonly Cluster[]): readonly Cluster[] {
  const isSo = clusters.every(
    (cluster, at) => at === 0 || cluster.from > (clusters[at - 1] as Cluster).from,
  );
  return isSo ? clusters : [...clusters].sort((a, b) => a.from - b.from);
}

/** The clusters of a stretch as runs of one paint each. */
function runsOf(stretch: CutStretch, clusters: readonly Cluster[]): GlyphRun[] {
  const { face, slanted, paints } = stretch;
  const [first, last] = [clusters[0], clusters.at(-1)];
  const only = paints.length === 1 ? paints[0]?.paint : undefined;
  // Nearly all text is painted alike: nothing is compared then.
  if (only && first && last) {
    const { colour, underline } = only;
    const [x, width] = [first.start, last.end - first.start];
    const glyphs = first === last ? first.glyphs : clusters.flatMap((cluster) => cluster.glyphs);
    return [{ face: face.id, slanted, colour, underline, x, width, glyphs }];
  }
  const runs: { paint: Paint; start: number; end: number; glyphs: PlacedGlyph[]; part?: Part }[] =
    [];
  for (const { from, to, glyphs, start, end } of clusters) {
    for (const { paint, part, ...place } of paintedParts(stretch, from, to, start, end)) {
      const run = runs.at(-1);
      if (run && !run.part && !part && samePaint(run.paint, paint)) {
        run.glyphs.push(...glyphs);
        run.end = place.end;
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
  { text, level, paints }: CutStretch,
  from: number,
  until: number,
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
