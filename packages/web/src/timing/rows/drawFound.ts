/** Draws what was found in the sound and what was marked on it: pieces, hits, beats and marks of a row. */
import type { Dyes } from '../../kit/dyes.ts';
import type { Page } from '@cadence/core/rows/page.ts';
import { sectionName } from '../sectionName.ts';
import { PURPOSE_LOOKS } from '../purposes.ts';
import { fit, FONT, type Across, type RowContent } from './rowContent.ts';

export function drawPieces(
  context: CanvasRenderingContext2D,
  { page, pieces, picked, hand }: RowContent,
  x: Across,
  dyes: Dyes,
): void {
  const { waveTop, waveHeight } = page.shape;
  const edge = hand === 'pieces' ? 2.5 : 1;
  for (const piece of pieces) {
    const [from, to] = [Math.max(0, x(piece.start)), Math.min(page.width, x(piece.end))];
    context.fillStyle = dyes.piece;
    context.fillRect(from, waveTop, to - from, waveHeight);
    context.fillStyle = hand === 'pieces' ? dyes.woad : dyes['piece-edge'];
    if (x(piece.start) >= 0) context.fillRect(from, waveTop, edge, waveHeight);
    if (x(piece.end) <= page.width) context.fillRect(to - edge, waveTop, edge, waveHeight);
    if (piece.kept && hand === 'pieces') {
      if (x(piece.start) >= 0) drawKnot(context, from + 1, waveTop + waveHeight - 4, dyes.woad);
      if (x(piece.end) <= page.width)
        drawKnot(context, to - 1, waveTop + waveHeight - 4, dyes.woad);
    }
    if (picked.includes(piece.id)) frame(context, from, to, page, dyes);
  }
}

/** The outline of what is picked on the waveform. */
function frame(
  context: CanvasRenderingContext2D,
  from: number,
  to: number,
  page: Page,
  dyes: Dyes,
): void {
  context.strokeStyle = dyes.ink;
  context.lineWidth = 2;
  context.strokeRect(from, page.shape.waveTop, Math.max(2, to - from), page.shape.waveHeight);
}

/** A small knot says that the editor fixed this. */
function drawKnot(context: CanvasRenderingContext2D, x: number, y: number, colour: string): void {
  context.fillStyle = colour;
  context.beginPath();
  context.arc(x, y, 3.2, 0, 2 * Math.PI);
  context.fill();
}

export function drawHits(
  context: CanvasRenderingContext2D,
  { page, hits, picked, hand }: RowContent,
  x: Across,
  dyes: Dyes,
): void {
  const { waveTop, waveHeight } = page.shape;
  const bottom = waveTop + waveHeight;
  for (const hit of hits) {
    const [from, to] = [x(hit.start), x(hit.end)];
    const width = Math.max(2, to - from);
    if (hand === 'hits') {
      context.fillStyle = dyes.hit;
      context.fillRect(from, waveTop, width, waveHeight);
      context.fillStyle = dyes.madder;
      context.fillRect(from, waveTop, 1.5, waveHeight);
      if (hit.kept) drawKnot(context, from + 1, bottom - 4, dyes.madder);
    }
    // A bar under the waveform: as long as the sound, whatever is in hand.
    context.fillStyle = dyes.madder;
    context.fillRect(from, bottom - 2, width, 2);
    if (picked.includes(hit.id)) frame(context, from, to, page, dyes);
  }
}

/** Beats as ticks under the waveform, bar lines longer with their metre where it begins. */
export function drawBeats(
  context: CanvasRenderingContext2D,
  { page, beats, picked, hand }: RowContent,
  x: Across,
  dyes: Dyes,
): void {
  const { waveTop, waveHeight } = page.shape;
  const bottom = waveTop + waveHeight;
  for (const beat of beats) {
    const at = Math.round(x(beat.at)) - 0.5;
    const chosen = picked.includes(beat.id);
    context.fillStyle = chosen ? dyes.ink : dyes.weld;
    const [top, width] = beat.bar ? [bottom - 16, 2] : [bottom + 1, 1.5];
    context.fillRect(at - width / 2, top, width, bottom + 8 - top);
    if (hand === 'beats') {
      context.globalAlpha = chosen ? 1 : beat.bar ? 0.75 : 0.4;
      context.fillRect(at - width / 2, waveTop, chosen ? 2 : width / 2 + 0.5, waveHeight);
      context.globalAlpha = 1;
    }
    if (beat.pin) drawKnot(context, at, bottom - 16, chosen ? dyes.ink : dyes.weld);
    if (beat.fixed) drawKnot(context, at, bottom + 5, chosen ? dyes.ink : dyes.weld);
  }
}

/** Where each section of a song begins, with its name: over the waveform, at its foot. */
export function drawSections(
  context: CanvasRenderingContext2D,
  { page, sections }: RowContent,
  x: Across,
  dyes: Dyes,
): void {
  const { waveTop, waveHeight } = page.shape;
  const y = waveTop + waveHeight - 9;
  context.textBaseline = 'middle';
  for (const section of sections) {
    const [from, to] = [x(section.start), Math.min(page.width, x(section.end))];
    const left = Math.max(0, from);
    if (from >= 0) {
      context.fillStyle = dyes.slate;
      context.fillRect(Math.round(from) - 1, waveTop, 1, waveHeight);
    }
    const name = fit(context, sectionName(section), to - left - 10);
    if (name === '') continue;
    context.font = `600 11px ${FONT}`;
    context.fillStyle = dyes.sheet;
    context.globalAlpha = 0.85;
    context.fillRect(left, y - 8, context.measureText(name).width + 9, 16);
    context.globalAlpha = 1;
    context.fillStyle = dyes.slate;
    context.fillText(name, left + 4, y + 0.5);
  }
}

/** Marks as tags at the head of a line through the row; their names beside them where there is room. */
export function drawMarks(
  context: CanvasRenderingContext2D,
  { page, marks, picked }: RowContent,
  x: Across,
  dyes: Dyes,
): void {
  const { waveTop, bottom } = page.shape;
  const y = waveTop + 9;
  context.textBaseline = 'middle';
  marks.forEach((mark, place) => {
    const at = x(mark.at);
    const look = PURPOSE_LOOKS[mark.purpose];
    const chosen = picked.includes(mark.id);
    context.fillStyle = dyes[look.dye];
    context.globalAlpha = chosen ? 1 : 0.7;
    context.fillRect(at - 0.75, waveTop, chosen ? 2 : 1.5, bottom - waveTop);
    context.globalAlpha = 1;
    context.save();
    context.translate(at, y);
    const shape = new Path2D(look.shape);
    context.fill(shape);
    context.strokeStyle = chosen ? dyes.ink : dyes.sheet;
    context.lineWidth = chosen ? 2 : 1;
    context.stroke(shape);
    context.fillStyle = dyes[look.on];
    context.font = `700 9.5px ${FONT}`;
    context.textAlign = 'center';
    context.fillText(look.letter, 0, 0.5);
    context.restore();
    const next = marks[place + 1];
    const room = (next ? x(next.at) : page.width) - at - 22;
    const name = mark.name === '' ? '' : fit(context, mark.name, room);
    if (name === '') return;
    context.font = `600 11px ${FONT}`;
    const width = context.measureText(name).width;
    context.fillStyle = dyes.sheet;
    context.globalAlpha = 0.85;
    context.fillRect(at + 9, y - 7, width + 6, 14);
    context.globalAlpha = 1;
    context.fillStyle = dyes.ink;
    context.fillText(name, at + 12, y + 0.5);
  });
}
