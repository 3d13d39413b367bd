/** The cloth of each kind of strand, by its dye and its weave, as a canvas pattern. */
import type { StrandKind } from '@cadence/core/programme/programme.ts';
import type { Dyes } from './dyes.ts';

/** The side of a tile that repeats, in pixels of the interface. */
const TILE = 12;
const LIGHT = 'rgb(255 255 255 / 13%)';
const SHADE = 'rgb(0 0 0 / 16%)';

interface Cloth {
  readonly dye:
    'indigo' | 'cloth-lyric' | 'cloth-narration' | 'cloth-card' | 'cloth-roll' | 'cloth-crawl';
  readonly text?: 'on-weld';
  readonly weave: (context: CanvasRenderingContext2D) => void;
}

/** A thread from one point to another. */
function thread(
  context: CanvasRenderingContext2D,
  colour: string,
  points: readonly (readonly [x: number, y: number])[],
): void {
  context.strokeStyle = colour;
  context.beginPath();
  points.forEach(([x, y], at) => {
    if (at === 0) context.moveTo(x, y);
    else context.lineTo(x, y);
  });
  context.stroke();
}

const CLOTHS: Readonly<Record<StrandKind, Cloth>> = {
  // Plain weave: threads over and under in turn.
  subtitle: {
    dye: 'indigo',
    weave: (context) => {
      for (const x of [0, 6])
        for (const y of [0, 6]) {
          context.fillStyle = LIGHT;
          context.fillRect(x, y + 0.9, 3, 1.2);
          context.fillRect(x + 3, y + 3.9, 3, 1.2);
          context.fillStyle = SHADE;
          context.fillRect(x + 0.9, y + 3, 1.2, 3);
          context.fillRect(x + 3.9, y, 1.2, 3);
        }
    },
  },
  // Twill: every thread a step further on, which makes diagonals.
  lyric: {
    dye: 'cloth-lyric',
    weave: (context) => {
      for (let from = -TILE; from < 2 * TILE; from += 4) {
        thread(context, LIGHT, [
          [from, TILE + 1],
          [from + TILE + 1, 0],
        ]);
        thread(context, SHADE, [
          [from + 2, TILE + 1],
          [from + TILE + 3, 0],
        ]);
      }
    },
  },
  // Herringbone: twill that turns back.
  narration: {
    dye: 'cloth-narration',
    weave: (context) => {
      for (let y = -6; y < TILE + 6; y += 4) {
        thread(context, LIGHT, [
          [0, y],
          [6, y + 5],
          [TILE, y],
        ]);
        thread(context, SHADE, [
          [0, y + 2],
          [6, y + 7],
          [TILE, y + 2],
        ]);
      }
    },
  },
  // Striped: threads of two shades side by side.
  card: {
    dye: 'cloth-card',
    weave: (context) => {
      context.fillStyle = LIGHT;
      for (const x of [0, 6]) context.fillRect(x, 0, 2, TILE);
      context.fillStyle = SHADE;
      for (const x of [4, 10]) context.fillRect(x, 0, 1, TILE);
    },
  },
  // Basket: threads over and under by twos.
  roll: {
    dye: 'cloth-roll',
    weave: (context) => {
      for (const [x, y] of [
        [0, 0],
        [6, 6],
      ] as const) {
        context.fillStyle = LIGHT;
        context.fillRect(x, y + 0.8, 6, 1.4);
        context.fillRect(x, y + 3.8, 6, 1.4);
        context.fillStyle = SHADE;
        context.fillRect(((x + 6) % TILE) + 0.8, y, 1.4, 6);
        context.fillRect(((x + 6) % TILE) + 3.8, y, 1.4, 6);
      }
    },
  },
  // Ribbed: thick threads across thin ones.
  crawl: {
    dye: 'cloth-crawl',
    text: 'on-weld',
    weave: (context) => {
      for (const y of [0, 4, 8]) {
        context.fillStyle = LIGHT;
        context.fillRect(0, y, TILE, 1.4);
        context.fillStyle = SHADE;
        context.fillRect(0, y + 2.6, TILE, 1.4);
      }
    },
  },
};

/** The dye of text on the cloth of a kind. */
export const textOn = (kind: StrandKind): 'on-dye' | 'on-weld' => CLOTHS[kind].text ?? 'on-dye';

const known = new Map<string, CanvasPattern>();

/** The cloth of a kind of strand, to fill with. */
export function clothOf(
  kind: StrandKind,
  context: CanvasRenderingContext2D,
  dyes: Dyes,
): CanvasPattern | string {
  const { dye, weave } = CLOTHS[kind];
  const scale = window.devicePixelRatio;
  const key = `${kind} ${dyes[dye]} ${scale}`;
  const found = known.get(key);
  if (found) return found;
  const tile = document.createElement('canvas');
  tile.width = tile.height = Math.round(TILE * scale);
  const threads = tile.getContext('2d');
  if (!threads) return dyes[dye];
  threads.scale(tile.width / TILE, tile.width / TILE);
  threads.fillStyle = dyes[dye];
  threads.fillRect(0, 0, TILE, TILE);
  threads.lineWidth = 1;
  weave(threads);
  const pattern = context.createPattern(tile, 'repeat');
  if (!pattern) return dyes[dye];
  pattern.setTransform(new DOMMatrix().scale(TILE / tile.width));
  known.set(key, pattern);
  return pattern;
}
