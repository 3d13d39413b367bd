/**
 * Shaping a line of text with HarfBuzz.
 *
 * The line is cut into runs of one direction (Unicode Bidirectional Algorithm, UAX 9), one manner and
 * one face; each is shaped whole, so that ligatures, kerning, joining and combining marks are right
 * inside it, and the runs are set side by side in visual order.
 */
import bidiFactory from 'bidi-js';
import * as hb from 'harfbuzzjs';
import type { GlyphRun, ShapedLine } from '@cadence/core/scene/shaper.ts';
import { graphemes } from '@cadence/core/text/graphemes.ts';
import type { Line, Manner } from '@cadence/core/text/lines.ts';
import { plainLine } from '@cadence/core/text/lines.ts';
import type { Face } from './face.ts';

const bidi = bidiFactory();

interface Stretch {
  text: string;
  readonly level: number;
  readonly manner: Manner;
  readonly face: Face;
}

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
  for (const span of line) {
    for (const character of graphemes(span.text)) {
      const face = faceFor(character, span, families, stretches.at(-1)?.face);
      if (!hasAll(face, character)) missing.add(character);
      else if (face.family !== families[0]?.[0]?.family) {
        borrowed.add(face.family);
        lent.add(character);
      }
      const level = levels[at] ?? 0;
      const last = stretches.at(-1);
      if (last && last.face === face && last.level === level && last.manner === span)
        last.text += character;
      else stretches.push({ text: character, level, manner: span, face });
      at += character.length;
    }
  }
  let pen = 0;
  const runs = visualOrder(stretches).map((stretch): GlyphRun => {
    const run = shapeStretch(stretch, size, pen);
    pen += run.width;
    return run;
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
  manner: Manner,
  families: readonly Face[][],
  before: Face | undefined,
): Face {
  const inManner = (faces: readonly Face[]): Face | undefined => {
    const [bold, italic] = [manner.bold ?? false, manner.italic ?? false];
    return (
      faces.find((face) => face.bold === bold && face.italic === italic) ??
      faces.find((face) => face.bold === bold) ??
      faces[0]
    );
  };
  const candidates = families.map(inManner).filter((face) => face !== undefined);
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

function shapeStretch({ text, level, manner, face }: Stretch, size: number, x: number): GlyphRun {
  const buffer = new hb.Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  buffer.setDirection(level % 2 === 1 ? hb.Direction.RTL : hb.Direction.LTR);
  hb.shape(face.font, buffer);
  const scale = size / face.unitsPerEm;
  const positions = buffer.getGlyphPositions();
  let [penX, penY] = [0, 0];
  const glyphs = buffer.getGlyphInfos().map(({ codepoint }, at) => {
    const position = positions[at];
    const placed = {
      glyph: codepoint,
      x: x + (penX + (position?.xOffset ?? 0)) * scale,
      y: -(penY + (position?.yOffset ?? 0)) * scale,
    };
    penX += position?.xAdvance ?? 0;
    penY += position?.yAdvance ?? 0;
    return placed;
  });
  return {
    face: face.id,
    slanted: (manner.italic ?? false) && !face.italic,
    colour: manner.colour,
    underline: manner.underline ?? false,
    x,
    width: penX * scale,
    glyphs,
  };
}
