/** The same lines drawn in a window, in a worker and on Node, to be compared bit by bit. */
import { newProgramme } from '@cadence/core/programme/defaults.ts';
import { USUAL_JOURNEY, type Crawl, type Roll } from '@cadence/core/programme/passage.ts';
import { crawlItems } from '@cadence/core/scene/crawlItems.ts';
import type { DrawingItem } from '@cadence/core/scene/drawing.ts';
import { leaning } from '@cadence/core/scene/lean.ts';
import { rollItems } from '@cadence/core/scene/rollItems.ts';
import { setIn } from '@cadence/core/scene/travelFigures.ts';
import { layOut } from '@cadence/core/scene/layout.ts';
import { subtitleStyle } from '@cadence/core/programme/defaults.ts';
import { linesOf, plainText, type Line } from '@cadence/core/text/lines.ts';
import {
  COMES_IN,
  framesLong,
  STILL,
  type ComesIn,
  type Move,
} from '@cadence/core/movement/movement.ts';
import type { Programme, TextStyle } from '@cadence/core/programme/programme.ts';
import { programmeWithCues } from '@cadence/core/programme/samples.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import type { Canvas2D, Studio } from '@cadence/paint/canvas.ts';
import { drawScene } from '@cadence/paint/drawScene.ts';
import type { MakeCanvas } from '@cadence/paint/halved.ts';
import { frames } from '@cadence/core/time/frameRate.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';
import type { FilmFrames } from '@cadence/paint/stage.ts';

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

/** Samples whose second part is painted in another colour, from so many units on: through joins, kerning and a ligature. */
const PAINTED: readonly (readonly [text: string, from: number])[] = [
  ['العبّارة تستيقظ', 4],
  ['AV To Wa', 1],
  ['difficult office', 3],
  ['لا الأولاد', 1],
];

const painted = (text: string, from: number): Line[] => [
  [{ text: text.slice(0, from) }, { text: text.slice(from), colour: '#f4d35e' }],
];

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
  const make: MakeCanvas = (width, height) =>
    canvasOf(width, height).canvas as unknown as OffscreenCanvas;
  const studio: Studio = { shelf, makePath, make };
  const style = { ...subtitleStyle(720), margin: 50 };
  const samples = [
    ...Object.entries(SAMPLES).map(([name, text]) => [name, linesOf(text)] as const),
    ...PAINTED.map(
      ([text, from]) => [`${text}, painted from ${from}`, painted(text, from)] as const,
    ),
  ];
  for (const [name, lines] of samples) {
    const text = plainText(lines);
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
        studio,
      );
      drawn.push({
        name: `${name} at ${x}, ${y}`,
        pixels: context.getImageData(0, 0, FRAME.width, FRAME.height).data,
      });
    }
  }
  for (const [name, items] of [...(await travelling(shelf)), ...(await moving(shelf))]) {
    const context = canvasOf(FRAME.width, FRAME.height);
    drawScene(context as unknown as Canvas2D, { ...FRAME, items }, studio);
    const { data } = context.getImageData(0, 0, FRAME.width, FRAME.height);
    drawn.push({ name, pixels: data });
  }
  drawn.push(...pictured(studio, canvasOf));
  return drawn;
}

/** How large a picture of 641 by 480 is drawn, and where. */
const PLACED = [
  [641, 480, 0, 0],
  [177, 132, 10, 20],
  [177.5, 132.9, 10.25, 7.5],
  [320.5, 240, 3.3, 0.5],
  [60, 45, 1.5, 9],
] as const;

/** A picture with edges and soft colours, half of it see-through, in several sizes. */
function pictured(
  studio: Studio,
  canvasOf: (width: number, height: number) => CanvasRenderingContext2D,
): Drawn[] {
  const source = canvasOf(641, 480);
  const pixels = source.createImageData(641, 480);
  for (let at = 0; at < pixels.data.length; at += 4) {
    const [x, y] = [(at / 4) % 641, Math.floor(at / 4 / 641)];
    const isEdge = (x >> 3) % 2 === (y >> 4) % 2;
    pixels.data.set([isEdge ? 240 : (x * 7) % 256, y % 256, isEdge ? 20 : 90, 255 - (x % 128)], at);
  }
  source.putImageData(pixels, 0, 0);
  return PLACED.map(([w, h, x, y]) => {
    const context = canvasOf(FRAME.width, FRAME.height);
    const box = { x, y, w, h };
    drawScene(
      context as unknown as Canvas2D,
      { ...FRAME, items: [{ kind: 'image', material: 'm', box, opacity: 0.9 }] },
      { ...studio, image: () => source.canvas },
    );
    const { data } = context.getImageData(0, 0, FRAME.width, FRAME.height);
    return { name: `picture ${w} ${h} at ${x}, ${y}`, pixels: data };
  });
}

/** How far the samples that travel have come, in whole pixels and in parts of them. */
const COME = [0, 37, 37.25, 91.6];

/** A roll with soft edges and without, and a crawl in its window. */
async function travelling(shelf: FontShelf): Promise<[string, DrawingItem[]][]> {
  const sheet =
    'ON THE BANK\nWinch house\tOrla Fenwether\nChain gang\tTobias Quill-Marsh\n\tAnsel Dray';
  const common = { id: 'p', title: 'Samples', sheet, journey: USUAL_JOURNEY };
  const facts = { ...newProgramme('p', 'Samples', 's').facts, frame: FRAME };
  const found: [string, DrawingItem[]][] = [];
  for (const softEdge of [0, 0.3]) {
    const roll: Roll = { ...common, kind: 'roll', look: { size: 22, softEdge } };
    const { family, lines } = setIn(roll, facts);
    await shelf.prepare(family, lines);
    for (const offset of COME) {
      const sight = { roll, cue: 'c', frame: FRAME, materials: {}, top: 60 - offset };
      const items = rollItems({ ...sight, from: 0, to: FRAME.height }, shelf);
      found.push([`roll ${softEdge} ${offset}`, items]);
    }
    const lean = leaning({ tilt: 12, sway: 0.03, swayFrames: 90 }, 31, 0.7, FRAME);
    const leaned = rollItems(
      { roll, cue: 'c', frame: FRAME, materials: {}, top: 12, from: 0, to: FRAME.height },
      shelf,
    );
    found.push([
      `roll ${softEdge} leaning`,
      leaned.map((item) => ({ ...item, ...(lean && { transform: lean }) })),
    ]);
    const look = { size: 30, softEdge: 200 * softEdge, label: 'Board', insetLeft: 31 };
    const crawl: Crawl = { ...common, kind: 'crawl', look };
    for (const offset of COME)
      found.push([
        `crawl ${softEdge} ${offset}`,
        crawlItems(crawl, 'c', { offset: 500 + offset, shown: 0.5 }, FRAME, shelf),
      ]);
  }
  return found;
}

const seen = { easing: 'linear' } as const;
/** Everything that can move a part of a text. */
const MOVED: Readonly<Record<string, readonly Move[]>> = {
  'seen through': [{ ...seen, what: 'opacity', from: 0 }],
  blurred: [{ ...seen, what: 'blur', from: 9 }],
  'grown and turned': [
    { ...seen, what: 'scale', from: 1.6 },
    {
      ...seen,
      what: 'turn',
      from: -30,
      about: { of: 'word', across: 0, down: 1, onBaseline: true },
    },
  ],
  wiped: [{ ...seen, what: 'wipe', angle: 180 }],
  'wiped softly': [{ ...seen, what: 'wipe', angle: 40, soft: 0.7 }],
  'spread and tinted': [
    { ...seen, what: 'spacing', from: 0.4 },
    { ...seen, what: 'colour', colour: '#f4d35e' },
  ],
  squeezed: [
    { ...seen, what: 'width', from: 0.3 },
    { ...seen, what: 'place', from: 0.7, angle: 250, in: 'em' },
    { ...seen, what: 'opacity', from: 0.2 },
  ],
};
/** Texts that move, each with what it is set in besides. */
const MOVING_TEXTS: readonly (readonly [text: string, dress: Partial<TextStyle>])[] = [
  ['Slack water office', {}],
  ['العبّارة تستيقظ', {}],
  ['नाव गाँव से पहले', {}],
  [
    'Slack water',
    {
      ...{ family: 'Archivo', weight: 730, width: 90, turn: -17, breakAt: 0.3 },
      gradient: { colour: '#58b8b0', angle: 60 },
      shadow: { colour: '#000000', opacity: 0.7, across: 2, down: 3, blur: 4 },
    },
  ],
];

/** Texts that come in by letter and by word, caught on their way. */
async function moving(shelf: FontShelf): Promise<[string, DrawingItem[]][]> {
  const found: [string, DrawingItem[]][] = [];
  for (const [text, dress] of MOVING_TEXTS) {
    const cues = programmeWithCues([[text, 0, 50]]);
    await shelf.prepare(dress.family ?? 'Noto Sans', linesOf(text));
    for (const [name, moves] of Object.entries(MOVED))
      for (const by of ['letter', 'word'] as const) {
        const comesIn: ComesIn = {
          ...COMES_IN,
          ...{ by, moves, when: 'evenly' },
          takes: framesLong(20),
        };
        const own = { ...STILL, comesIn };
        const { s, c1 } = { ...cues.strands, ...cues.cues } as Record<string, object>;
        const programme = {
          ...cues,
          facts: { ...cues.facts, frame: FRAME },
          strands: { s: { ...s, style: { ...subtitleStyle(720), margin: 50, ...dress } } },
          cues: { c1: { ...c1, movement: own } },
        } as unknown as Programme;
        for (const frame of [9, 24])
          found.push([
            `${text}, ${name} by ${by} at ${frame}`,
            [...sceneAt(programme, frames(frame, programme.facts.frameRate), shelf).items],
          ]);
      }
  }
  return found;
}

/** Films of each kind of colour, one turned, one of another codec. */
const FILMS = ['bframes-25.mp4', 'drop-2997.mp4', 'full-range.mp4', 'turned.mp4', 'vp9-2997.webm'];

/** Draws frames of films, larger and smaller than they are. */
export async function drawFilms(
  open: (name: string) => Promise<FilmFrames>,
  canvas: (width: number, height: number) => CanvasRenderingContext2D,
): Promise<Drawn[]> {
  const drawn: Drawn[] = [];
  for (const name of FILMS) {
    const film = await open(name);
    for (const second of [0, 1.5])
      for (const [width, height] of [
        [300, 170],
        [90, 45],
      ] as const) {
        const context = canvas(width, height);
        const picture = await film.frameAt(fromSeconds(second));
        if (picture) context.drawImage(picture, 0, 0, width, height);
        const { data } = context.getImageData(0, 0, width, height);
        drawn.push({ name: `${name} at ${second}, ${width}`, pixels: data });
      }
    await film.close();
  }
  return drawn;
}
