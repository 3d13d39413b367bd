/** The same lines drawn in a window, in a worker and on Node, to be compared bit by bit. */
import { layOut } from '@cadence/core/scene/layout.ts';
import { subtitleStyle } from '@cadence/core/programme/defaults.ts';
import { linesOf } from '@cadence/core/text/lines.ts';
import { drawScene, type Canvas2D } from '@cadence/paint/drawScene.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';

export const SAMPLES: Readonly<Record<string, string>> = {
  kerning: 'AV To Wa fjord',
  ligatures: 'difficult waffle office',
  composed: 'café Ångström',
  decomposed: 'cafe\u0301 A\u030angstro\u0308m',
  greek: 'Το πορθμείο ξυπνά',
  cyrillic: 'Паром просыпается',
  arabic: 'العبّارة تستيقظ قبل القرية',
  combining: 'नाव गाँव से पहले जागती है',
  mixed: 'ferry עברית 12 boats',
};

const FRAME = { width: 640, height: 160 };
/** Where the line stands, off the whole pixel in both directions. */
const OFFSETS = [
  [0, 0],
  [0.25, 0.5],
  [0.333, 0.875],
] as const;

export interface Drawn {
  readonly name: string;
  /** RGBA of the whole frame. */
  readonly pixels: Uint8ClampedArray;
}

export async function drawSamples(
  shelf: FontShelf,
  makePath: (data: string) => Path2D,
  canvasOf: (width: number, height: number) => CanvasRenderingContext2D,
): Promise<Drawn[]> {
  const drawn: Drawn[] = [];
  const style = { ...subtitleStyle(720), margin: 50 };
  for (const [name, text] of Object.entries(SAMPLES)) {
    const lines = linesOf(text);
    await shelf.prepare(style.family, lines);
    const layout = layOut(lines, style, FRAME, shelf);
    for (const [x, y] of OFFSETS) {
      const context = canvasOf(FRAME.width, FRAME.height);
      const moved = {
        ...layout,
        lines: layout.lines.map((line) => ({
          ...line,
          x: line.x + x,
          baseline: line.baseline + y,
        })),
      };
      const box = { x: 0, y: 0, w: FRAME.width, h: FRAME.height };
      drawScene(
        context as unknown as Canvas2D,
        {
          ...FRAME,
          items: [
            { kind: 'backdrop', colour: '#46606a', box, opacity: 1 },
            { kind: 'text', text, cue: name, box: layout.box, opacity: 1, layout: moved },
          ],
        },
        { shelf, makePath },
      );
      drawn.push({
        name: `${name} at ${x}, ${y}`,
        pixels: context.getImageData(0, 0, FRAME.width, FRAME.height).data,
      });
    }
  }
  return drawn;
}
