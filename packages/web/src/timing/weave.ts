/** The weave of each strand's cloth, as a canvas pattern. */
import type { Dyes } from '../app/dyes.ts';

const known = new Map<string, CanvasPattern>();

/** Plain weave in indigo: threads over and under in turn, for subtitles. */
export function plainWeave(context: CanvasRenderingContext2D, dyes: Dyes): CanvasPattern | string {
  const scale = window.devicePixelRatio;
  const key = `${dyes.indigo} ${scale}`;
  const found = known.get(key);
  if (found) return found;
  const tile = document.createElement('canvas');
  tile.width = tile.height = Math.round(6 * scale);
  const threads = tile.getContext('2d');
  if (!threads) return dyes.indigo;
  threads.scale(tile.width / 6, tile.width / 6);
  threads.fillStyle = dyes.indigo;
  threads.fillRect(0, 0, 6, 6);
  threads.fillStyle = 'rgb(255 255 255 / 13%)';
  threads.fillRect(0, 0.9, 3, 1.2);
  threads.fillRect(3, 3.9, 3, 1.2);
  threads.fillStyle = 'rgb(0 0 0 / 16%)';
  threads.fillRect(0.9, 3, 1.2, 3);
  threads.fillRect(3.9, 0, 1.2, 3);
  const pattern = context.createPattern(tile, 'repeat');
  if (!pattern) return dyes.indigo;
  pattern.setTransform(new DOMMatrix().scale(6 / tile.width));
  known.set(key, pattern);
  return pattern;
}
