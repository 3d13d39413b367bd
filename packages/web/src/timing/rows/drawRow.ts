/** Draws one row of the page: ruler, pieces, waveform, words, and the lane with its woven cues. */
import { drawWave, lifted } from '../../kit/drawWave.ts';
import { inMaterial, stretchOf } from '@cadence/core/programme/heard.ts';
import type { Cue, WordTime } from '@cadence/core/programme/programme.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { countFrames, frameAt, frames } from '@cadence/core/time/frameRate.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { add, TICKS_PER_SECOND, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { isUnsure } from '@cadence/core/programme/woven/unsure.ts';
import { stateOf } from '@cadence/core/programme/woven/wordState.ts';
import { clothOf, textOn } from '../../kit/cloth.ts';
import type { Dyes } from '../../kit/dyes.ts';
import { drawBeats, drawHits, drawMarks, drawPieces, drawSections } from './drawFound.ts';
import { levelOf, pixelsOf, WORD_LINE, type Lane } from '@cadence/core/rows/page.ts';
import { fit, FONT, type Across, type RowContent } from './rowContent.ts';

export function drawRow(context: CanvasRenderingContext2D, content: RowContent, dyes: Dyes): void {
  const { page, row } = content;
  const scale = window.devicePixelRatio;
  context.setTransform(scale, 0, 0, scale, 0, 0);
  context.clearRect(0, 0, page.width, page.shape.step);
  const start = (row * page.span) as Ticks;
  const x = (time: number) => pixelsOf(page, time - start);
  drawRuler(context, content, start, dyes);
  drawPieces(context, content, x, dyes);
  drawHits(context, content, x, dyes);
  drawSounds(context, content, start, dyes);
  drawBeats(context, content, x, dyes);
  drawSections(context, content, x, dyes);
  drawEnd(context, content, x, dyes);
  // Where the strand in hand has no words, those of the others say what is said.
  const spoken = content.cues.some(({ words }) => words.length > 0) ? content.cues : content.others;
  const words = spoken
    .flatMap((cue) => cue.words)
    .filter(({ end }) => x(end) > 0)
    .sort((a, b) => a.start - b.start);
  drawWords(context, content, words, x, dyes);
  for (const lane of page.shape.lanes) drawLane(context, content, lane, x, dyes);
  drawMarks(context, content, x, dyes);
}

/** How many seconds lie between two figures of the ruler. */
const figureEvery = (seconds: number): number => (seconds <= 16 ? 1 : seconds <= 30 ? 2 : 5);

function drawRuler(
  context: CanvasRenderingContext2D,
  content: RowContent,
  start: Ticks,
  dyes: Dyes,
): void {
  const { page, frameRate, startTimecode, length } = content;
  const seconds = page.span / TICKS_PER_SECOND;
  const every = figureEvery(seconds);
  context.textBaseline = 'alphabetic';
  for (let second = 0; second < seconds; second += every) {
    const time = (start + second * TICKS_PER_SECOND) as Ticks;
    if (time > length) break;
    const at = pixelsOf(page, second * TICKS_PER_SECOND);
    context.fillStyle = dyes.thread;
    context.fillRect(
      Math.round(at),
      second ? 13 : 0,
      1,
      second ? 4 : (page.shape.lanes[0]?.top ?? 0) - 6,
    );
    const code = formatTimecode(add(time, startTimecode), frameRate);
    context.font = second ? `400 10.5px ${FONT}` : `600 11.5px ${FONT}`;
    context.fillStyle = second ? dyes.slate : dyes.ink;
    context.fillText(second ? code.slice(6, 8) : code.slice(0, 8), at + 4, 11.5);
  }
  if (seconds <= FRAMES_SHOWN) drawFrames(context, content, start, dyes);
}

/** In rows of so few seconds or fewer, every frame has its tick, and every fifth its number. */
const FRAMES_SHOWN = 2;

function drawFrames(
  context: CanvasRenderingContext2D,
  { page, frameRate, startTimecode, length }: RowContent,
  start: Ticks,
  dyes: Dyes,
): void {
  context.font = `400 10px ${FONT}`;
  const first = frameAt(start, frameRate);
  const count = countFrames(page.span, frameRate);
  for (let frame = first; frame <= first + count; frame++) {
    const time = frames(frame, frameRate);
    if (time < start || time > length) continue;
    const at = Math.round(pixelsOf(page, time - start));
    const number = formatTimecode(add(time, startTimecode), frameRate).slice(9);
    const fifth = Number(number) % 5 === 0;
    context.fillStyle = dyes.thread;
    context.fillRect(at, fifth ? 12 : 14, 1, fifth ? 5 : 3);
    context.fillStyle = dyes.slate;
    if (fifth && Number(number) > 0 && at > 64) context.fillText(number, at + 3, 11.5);
  }
}

function drawSounds(
  context: CanvasRenderingContext2D,
  content: RowContent,
  start: Ticks,
  dyes: Dyes,
): void {
  const { page, waves, length } = content;
  const { waveTop, waveHeight } = page.shape;
  const middle = waveTop + waveHeight / 2;
  const inside = Math.min(page.width, pixelsOf(page, length - start));
  context.fillStyle = dyes.thread;
  context.fillRect(0, middle - 0.5, Math.max(0, inside), 1);
  const area = { width: page.width, top: waveTop, height: waveHeight, silence: false };
  for (const { peaks, sound, main } of [...waves].reverse()) {
    if (!peaks) continue;
    const { start: first, end: last } = stretchOf(sound);
    const [left, right] = [pixelsOf(page, first - start), pixelsOf(page, last - start)];
    if (right <= 0 || left >= page.width) continue;
    const stretch = { from: toSeconds(inMaterial(sound, start)), span: toSeconds(page.span) };
    context.save();
    context.beginPath();
    context.rect(left, waveTop, right - left, waveHeight);
    context.clip();
    context.globalAlpha = sound.muted ? 0.25 : 1;
    drawWave(context, peaks, stretch, area, main ? dyes.slate : dyes.thread, lifted);
    context.restore();
  }
}

function drawEnd(
  context: CanvasRenderingContext2D,
  { page, length }: RowContent,
  x: Across,
  dyes: Dyes,
): void {
  const end = x(length);
  if (end >= page.width) return;
  const { inHand, bottom } = page.shape;
  const at = Math.max(0, end);
  context.fillStyle = dyes.ink;
  context.fillRect(at - 2, 17, 2, bottom - 17);
  context.font = `400 11px ${FONT}`;
  context.fillStyle = dyes.slate;
  context.fillText('end of the programme', at + 6, inHand.top + 19);
}

/** The cues of one strand, which stand back where it is left out of the picture. */
function drawLane(
  context: CanvasRenderingContext2D,
  content: RowContent,
  lane: Lane,
  x: Across,
  dyes: Dyes,
): void {
  const { page, length, others } = content;
  const cues =
    lane === page.shape.inHand
      ? content.cues
      : others.filter(({ strand }) => strand === lane.strand);
  context.fillStyle = dyes.flax;
  context.fillRect(0, lane.top + lane.height, Math.min(page.width, Math.max(0, x(length))), 1);
  context.globalAlpha = lane.muted ? 0.4 : 1;
  const place = (cue: Cue) => levelOf(lane, content.levels.get(cue.id) ?? 0);
  for (const cue of cues) drawCue(context, content, cue, { ...lane, ...place(cue) }, x, dyes);
  for (let level = 0; level < lane.levels; level++) {
    const own = cues.filter((cue) => (content.levels.get(cue.id) ?? 0) % lane.levels === level);
    drawSeams(context, page.width, own, { ...lane, ...levelOf(lane, level) }, x, dyes);
  }
  context.globalAlpha = 1;
}

/** How opaque a held note is, in the dye of the words: to be seen by night, and not to outshine them. */
const HELD_ALPHA = 0.5;

/** The words under the waveform, in two lines, never over each other: also where cues overlap. */
function drawWords(
  context: CanvasRenderingContext2D,
  { page }: RowContent,
  words: readonly WordTime[],
  x: Across,
  dyes: Dyes,
): void {
  if (page.shape.words === null) return;
  const base = page.shape.words;
  context.font = `400 11.5px ${FONT}`;
  /** Where each line is free from: the upper, which is used first, and the lower. */
  const free = [0, 0];
  for (const word of words) {
    const [at, end] = [x(word.start), x(word.end)];
    if (end <= 0 || at >= page.width) continue;
    const doubtful = ['doubtful', 'not heard'].includes(stateOf(word));
    // How long it is said, as a thread under it.
    context.strokeStyle = doubtful ? dyes.madder : dyes.thread;
    context.lineWidth = 1;
    context.setLineDash(doubtful ? [3, 3] : []);
    context.beginPath();
    context.moveTo(Math.max(0, at) + 0.5, base + 4.5);
    context.lineTo(Math.min(page.width, end) - 1, base + 4.5);
    context.stroke();
    context.setLineDash([]);
    const atShare = (share: number) => x((word.start + share * (word.end - word.start)) as Ticks);
    // A note that is held: the thread is thicker.
    const whole = context.globalAlpha;
    context.globalAlpha = whole * HELD_ALPHA;
    for (const { from, to } of word.held ?? []) {
      context.fillStyle = doubtful ? dyes.madder : dyes.slate;
      context.fillRect(atShare(from), base + 3, atShare(to) - atShare(from), 3);
    }
    context.globalAlpha = whole;
    for (const { share } of word.syllables ?? []) {
      context.fillStyle = dyes.slate;
      context.fillRect(atShare(share), base + 2, 1, 5);
    }
    if (word.source === 'pinned' && at >= 0) drawKnot(context, at, base + 4.5, dyes);
    const line = free.findIndex((from) => at >= from);
    // Where they crowd still more, a closer look shows the rest.
    if (line < 0 || at < 0) continue;
    context.fillStyle = doubtful ? dyes.ink : dyes.slate;
    context.fillText(word.text, at, base - (line === 0 ? WORD_LINE : 0));
    free[line] = at + context.measureText(word.text).width + 3;
  }
}

/** A pin: a small knot on the thread. */
function drawKnot(context: CanvasRenderingContext2D, x: number, y: number, dyes: Dyes): void {
  context.fillStyle = dyes.weld;
  context.beginPath();
  context.arc(Math.max(2.5, x + 1), y, 2.5, 0, 2 * Math.PI);
  context.fill();
}

function drawCue(
  context: CanvasRenderingContext2D,
  { page, selection, passages, cues, others, slopes }: RowContent,
  cue: Cue,
  { kind, top, height }: Lane,
  x: Across,
  dyes: Dyes,
): void {
  const [from, to] = [x(cue.start), x(cue.end)];
  const [left, right] = [Math.max(0, from), Math.min(page.width, to)];
  if (right - left <= 0) return;
  const chosen = selection.includes(cue.id);
  context.save();
  context.beginPath();
  context.roundRect(left, top, Math.max(1, right - left), height, 2);
  context.fillStyle = clothOf(kind, context, dyes);
  context.fill();
  if (isUnsure(cue)) drawTacked(context, { left, right, top, height }, dyes[textOn(kind)]);
  if (chosen) {
    context.strokeStyle = dyes.ink;
    context.lineWidth = 2;
    context.stroke();
    context.fillStyle = dyes.linen;
    if (from >= 0) context.fillRect(left, top + 8, 4, height - 16);
    if (to <= page.width) context.fillRect(right - 4, top + 8, 4, height - 16);
  }
  const own = cues.indexOf(cue);
  const at = 2 * (own >= 0 ? own : cues.length + others.indexOf(cue));
  const [start, end] = [slopes[at], slopes[at + 1]];
  if (start !== undefined) drawSlope(context, from, x(start), { top, height }, dyes[textOn(kind)]);
  if (end !== undefined) drawSlope(context, to, x(end), { top, height }, dyes[textOn(kind)]);
  // An open edge, torn like cloth, says that it runs on.
  context.fillStyle = dyes.linen;
  if (from < 0) drawTear(context, 0, top, height, 1);
  if (to > page.width) drawTear(context, page.width, top, height, -1);
  const said = cue.passage ? (passages[cue.passage]?.title ?? '') : plainText(cue.text);
  const plain = said.replace(/\s+/g, ' ').trim();
  const text = from < 0 && plain ? `… ${plain}` : plain;
  context.font = `500 ${height < 24 ? 11.5 : 13}px ${FONT}`;
  context.fillStyle = dyes[textOn(kind)];
  context.textBaseline = 'middle';
  const room = right - left - 16 - (to > page.width ? 6 : 0);
  const fitted = text ? fit(context, text, room) : '';
  if (fitted) context.fillText(fitted, left + 9, top + height / 2 + 0.5);
  context.restore();
}

/** A line that is not sure is only tacked on: long stitches along its edges, in the colour of what is written on it. */
function drawTacked(
  context: CanvasRenderingContext2D,
  { left, right, top, height }: Readonly<Record<'left' | 'right' | 'top' | 'height', number>>,
  thread: string,
): void {
  const room = right - left;
  if (room < 6) return;
  context.strokeStyle = thread;
  context.lineWidth = 2;
  context.setLineDash([7, 5]);
  context.strokeRect(left + 3, top + 3, room - 6, height - 6);
  context.setLineDash([]);
}

/**
 * How a text comes in or goes: a fold in the cloth above a slope, from an edge of its band to where it stands whole.
 *
 * @param thread  the colour of what is written on the cloth, #rrggbb: the fold is away from it, so that that can be read
 */
function drawSlope(
  context: CanvasRenderingContext2D,
  edge: number,
  whole: number,
  { top, height }: Pick<Lane, 'top' | 'height'>,
  thread: string,
): void {
  const isLight = Number.parseInt(thread.slice(1, 3), 16) > 127;
  const before = context.globalAlpha;
  context.fillStyle = isLight ? '#000000' : '#ffffff';
  context.globalAlpha = before * 0.34;
  context.beginPath();
  context.moveTo(edge, top);
  context.lineTo(whole, top);
  context.lineTo(edge, top + height);
  context.fill();
  context.globalAlpha = before;
  context.fillStyle = thread;
  context.beginPath();
  context.arc(whole, top + 3, 2.5, 0, 2 * Math.PI);
  context.fill();
}

function drawTear(
  context: CanvasRenderingContext2D,
  x: number,
  top: number,
  height: number,
  into: 1 | -1,
): void {
  context.beginPath();
  context.moveTo(x, top);
  const teeth = 3;
  for (let tooth = 0; tooth < teeth; tooth++) {
    context.lineTo(x + into * 5, top + ((tooth + 0.5) * height) / teeth);
    context.lineTo(x, top + ((tooth + 1) * height) / teeth);
  }
  context.closePath();
  context.fill();
}

/** Stitches across the shared edge of two cues. */
function drawSeams(
  context: CanvasRenderingContext2D,
  width: number,
  cues: readonly Cue[],
  { top, height }: Lane,
  x: Across,
  dyes: Dyes,
): void {
  context.strokeStyle = dyes.linen;
  context.lineWidth = 1.6;
  context.beginPath();
  cues.forEach((cue, at) => {
    if (cues[at + 1]?.start !== cue.end) return;
    const edge = x(cue.end);
    if (edge < 0 || edge > width) return;
    const stitches = height < 24 ? 2 : 4;
    for (let stitch = 0; stitch < stitches; stitch++) {
      const y = top + 4 + (stitch * (height - 8)) / stitches;
      context.moveTo(edge - 4, y);
      context.lineTo(edge + 4, y + 4);
    }
  });
  context.stroke();
}
