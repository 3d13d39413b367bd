/** Draws the outline of a stretch of sound in thin bars, for every waveform of the interface. */
import { outline, type Peaks } from '@cadence/core/listen/signal/peaks.ts';

interface Stretch {
  /** Start and length in seconds. */
  readonly from: number;
  readonly span: number;
}

interface Area {
  /** In pixels of the interface, from the left edge of the canvas. */
  readonly width: number;
  readonly top: number;
  readonly height: number;
  /** Whether digital silence is drawn, as a line in the middle. */
  readonly silence: boolean;
}

/** Distance between two bars, and the width of one, in pixels. */
const STEP = 2;
const BAR = 1.3;

/** A root lifts quiet speech to where it can be seen, as an ear would hear it. */
export const lifted = (share: number): number => Math.sign(share) * Math.sqrt(Math.abs(share));
export const even = (share: number): number => share;

/**
 * @param curve  from a sample's share of full scale, -1 to 1, to its share of half the height
 */
export function drawWave(
  context: CanvasRenderingContext2D,
  peaks: Peaks,
  { from, span }: Stretch,
  { width, top, height, silence }: Area,
  colour: string,
  curve: (share: number) => number,
): void {
  const columns = Math.floor(width / STEP);
  const pairs = outline(peaks, from, span, columns);
  const y = (value: number) => top + (1 - curve(value / 127)) * (height / 2);
  context.fillStyle = colour;
  for (let column = 0; column < columns; column++) {
    const [least, most] = [pairs[2 * column] ?? 0, pairs[2 * column + 1] ?? 0];
    if (!silence && least === 0 && most === 0) continue;
    context.fillRect(column * STEP, y(most), BAR, Math.max(1, y(least) - y(most)));
  }
}
