import { createCanvas, Path2D as NodePath } from '@napi-rs/canvas';
import { USUAL_JOURNEY, type Roll } from '@cadence/core/programme/passage.ts';
import { layOut } from '@cadence/core/scene/layout.ts';
import { leaning } from '@cadence/core/scene/lean.ts';
import { rollItems } from '@cadence/core/scene/rollItems.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { subtitleStyle } from '@cadence/core/programme/defaults.ts';
import { at25, programmeWithCues } from '@cadence/core/programme/samples.ts';
import { linesOf, type Line } from '@cadence/core/text/lines.ts';
import type { Canvas2D, Studio } from './canvas.ts';
import { drawScene } from './drawScene.ts';
import { BrokenFont, Face, familyNameOf } from './face.ts';
import { nodeShelf, shelfFiles } from '@cadence/node/fonts.ts';
import { readFile } from 'node:fs/promises';
import type { FontShelf } from './fontShelf.ts';
import { SHELF } from './shelf.ts';

const shelf = nodeShelf();
async function shaped(text: string, family = 'Noto Sans') {
  const line = linesOf(text)[0] ?? [];
  await shelf.prepare(family, [line]);
  return shelf.shape(line, family, 100);
}
/** What drawing needs here beside a list. */
const studioWith = (of: FontShelf): Studio => ({
  shelf: of,
  makePath: (data: string) => new NodePath(data) as unknown as Path2D,
  make: (width, height) => createCanvas(width, height) as unknown as OffscreenCanvas,
});
const glyphCount = (line: { runs: readonly { glyphs: readonly unknown[] }[] }) =>
  line.runs.reduce((sum, run) => sum + run.glyphs.length, 0);

describe('shaping', () => {
  it('kerns', async () => {
    const [pair, a, v] = [await shaped('AV'), await shaped('A'), await shaped('V')];
    expect(pair.width).toBeLessThan(a.width + v.width);
  });

  it('makes ligatures where the font has them', async () => {
    expect(glyphCount(await shaped('ffi', 'Noto Sans'))).toBeLessThan(3);
  });

  it('gives accents the same width, composed or not', async () => {
    expect((await shaped('cafe\u0301')).width).toBeCloseTo((await shaped('café')).width, 3);
  });

  it('joins Arabic letters and runs from the right', async () => {
    const word = await shaped('عبّارة');
    const apart = [...'عبارة'].map((letter) => shaped(letter));
    const widths = (await Promise.all(apart)).map((line) => line.width);
    expect(word.width).toBeLessThan(widths.reduce((a, b) => a + b, 0));
    expect(word.borrowed).toEqual(['Noto Sans Arabic']);
  });

  it('sets mixed directions in visual order', async () => {
    const mixed = await shaped('ferry עברית 12');
    expect(mixed.runs.map((run) => run.face.split('/')[0])).toEqual([
      'noto-sans',
      'noto-sans',
      'noto-sans-hebrew',
    ]);
    expect(mixed.missing).toEqual([]);
  });

  it('reorders and stacks Devanagari', async () => {
    expect(glyphCount(await shaped('क्षत्रिय'))).toBeLessThan([...'क्षत्रिय'].length);
  });

  it('borrows what a family lacks, and says so', async () => {
    expect(await shaped('Яхта', 'Barlow Condensed')).toMatchObject({
      borrowed: ['Noto Sans'],
      missing: [],
    });
  });

  it('names what no family has', async () => {
    expect((await shaped('boat 𓊝')).missing).toEqual(['𓊝']);
  });

  it('takes the italic face where there is one, and slants where there is none', async () => {
    const italic: Line = [{ text: 'winch', italic: true }];
    await shelf.prepare('Roboto Slab', [italic]);
    expect(shelf.shape(italic, 'Noto Sans', 50).runs[0]).toMatchObject({
      slanted: false,
      face: expect.stringContaining('Italic'),
    });
    expect(shelf.shape(italic, 'Roboto Slab', 50).runs[0]?.slanted).toBe(true);
  });
});

describe('fonts', () => {
  it('that are none are refused with a sentence', () => {
    const of = { family: 'x', bold: false, italic: false };
    expect(() => new Face('x', new TextEncoder().encode('The ferry wakes first.'), of)).toThrow(
      BrokenFont,
    );
    expect(() => new Face('x', new Uint8Array(0), of)).toThrow(BrokenFont);
  });

  it('say their own name', async () => {
    const file = shelfFiles().get('noto-sans-hebrew/NotoSansHebrew_600SemiBold.ttf') ?? '';
    expect(familyNameOf(await readFile(file))).toMatch(/^Noto Sans Hebrew/);
  });

  it('of the shelf all exist', async () => {
    const files = [...shelfFiles().values()];
    expect(files).toHaveLength(SHELF.flatMap((family) => family.faces).length);
    await expect(Promise.all(files.map((file) => readFile(file)))).resolves.toBeDefined();
  });
});

describe('drawing', () => {
  const programme = programmeWithCues([['Slack water', 0, 50]]);

  async function ink(scale: number, of: FontShelf = shelf) {
    await of.prepare('Noto Sans', linesOf('Slack water'));
    const canvas = createCanvas(1920 * scale, 1080 * scale);
    const context = canvas.getContext('2d');
    const studio = studioWith(of);
    drawScene(context as unknown as Canvas2D, sceneAt(programme, at25(10), of), studio, scale);
    const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
    let [left, right, white] = [canvas.width, 0, 0];
    for (let at = 0; at < data.length; at += 4) {
      if ((data[at] ?? 0) < 250) continue;
      const x = (at / 4) % canvas.width;
      [left, right, white] = [Math.min(left, x), Math.max(right, x), white + 1];
    }
    return { left: left / scale, right: right / scale, white };
  }

  it('puts the text where the layout says, at any scale', async () => {
    const [full, half] = [await ink(1), await ink(0.5)];
    const { box } = layOut(
      linesOf('Slack water'),
      subtitleStyle(1080),
      { width: 1920, height: 1080 },
      shelf,
    );
    expect(Math.abs(full.left - box.x)).toBeLessThan(8);
    expect(Math.abs(full.right - (box.x + box.w))).toBeLessThan(8);
    expect(Math.abs(half.left - full.left)).toBeLessThan(4);
    expect(full.white).toBeGreaterThan(2000);
  });

  it('is the same every time, with a shelf of its own', async () => {
    expect(await ink(0.5, nodeShelf())).toEqual(await ink(0.5));
  });
});

describe('text that travels', () => {
  const frame = { width: 640, height: 360 };
  const sheet = Array.from({ length: 40 }, (_, at) => `Deck ${at}\tPerpetua Lisle`).join('\n');
  const roll: Roll = {
    id: 'p',
    kind: 'roll',
    title: 'Closing roll',
    sheet,
    look: { size: 21 },
    journey: USUAL_JOURNEY,
  };

  /** Rows of pixels of a roll that has come so far. */
  async function rowsAt(offset: number): Promise<Buffer[]> {
    await shelf.prepare('Noto Sans', [[{ text: sheet }]]);
    const canvas = createCanvas(frame.width, frame.height);
    const context = canvas.getContext('2d');
    const sight = { roll, cue: 'c', frame, materials: {}, top: frame.height - offset };
    const items = rollItems({ ...sight, from: 0, to: frame.height }, shelf);
    drawScene(context as unknown as Canvas2D, { ...frame, items }, studioWith(shelf));
    const data = Buffer.from(context.getImageData(0, 0, frame.width, frame.height).data);
    return Array.from({ length: frame.height }, (_, row) =>
      data.subarray(row * frame.width * 4, (row + 1) * frame.width * 4),
    );
  }

  test('at whole pixels a frame is the same picture in every frame, a step further on', async () => {
    const step = 3;
    let before = await rowsAt(500);
    expect(before.some((row) => row.some((value) => value > 0))).toBe(true);
    for (let frameNumber = 1; frameNumber <= 8; frameNumber++) {
      const now = await rowsAt(500 + step * frameNumber);
      // What stood a step lower stands here now, to the last bit, but for the lines that either edge cuts.
      for (let row = 30; row < frame.height - step - 30; row++)
        expect(now[row]?.equals(before[row + step] as Buffer)).toBe(true);
      before = now;
    }
  });
});

test('text that leans is turned with its colours, and fades where the edges of the frame are', async () => {
  const [width, height] = [400, 400];
  await shelf.prepare('Noto Sans', [[{ text: 'Winch' }]]);
  const roll: Roll = {
    id: 'p',
    kind: 'roll',
    title: 'Closing roll',
    sheet: Array.from({ length: 60 }, () => 'Winch winch winch').join('\n'),
    look: { size: 12, softEdge: 0.4 },
    journey: USUAL_JOURNEY,
  };
  const frame = { width, height };
  /** How much light there is in a row of pixels, of a roll that leans by an angle. */
  const lightOf = (tilt: number): number[] => {
    const lean = leaning({ tilt, sway: 0, swayFrames: 1 }, 0, 1, frame);
    const sight = { roll, cue: 'c', frame, materials: {}, top: -200, from: -200, to: 600 };
    const items = rollItems(sight, shelf).map((item) => ({
      ...item,
      ...(lean && { transform: lean }),
    }));
    const context = createCanvas(width, height).getContext('2d');
    drawScene(context as unknown as Canvas2D, { width, height, items }, studioWith(shelf));
    const { data } = context.getImageData(0, 0, width, height);
    return Array.from({ length: height }, (_, row) => {
      let sum = 0;
      for (let x = 0; x < width; x++) sum += data[(row * width + x) * 4 + 3] ?? 0;
      return sum;
    });
  };
  const share = (light: number[], from: number, to: number) =>
    light.slice(from, to).reduce((sum, value) => sum + value, 0) /
    light.slice(160, 240).reduce((sum, value) => sum + value, 0);
  for (const tilt of [0, 15, 30]) {
    const light = lightOf(tilt);
    // At the edges next to nothing; half-way to the middle about half of what is there.
    expect(share(light, 0, 16)).toBeLessThan(0.03);
    expect(share(light, 384, 400)).toBeLessThan(0.03);
    expect(share(light, 40, 120)).toBeGreaterThan(0.3);
    expect(share(light, 40, 120)).toBeLessThan(0.7);
  }
});

test('a band that blurs mixes what is under it, and leaves what is beside it', () => {
  const [width, height] = [200, 100];
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  const half = (x: number, colour: string) =>
    ({ kind: 'plate', colour, box: { x, y: 0, w: 100, h: height }, opacity: 1 }) as const;
  const band = { kind: 'band', colour: '#000000', opacity: 0, blur: 8 } as const;
  const items = [
    half(0, '#ff0000'),
    half(100, '#0000ff'),
    { ...band, box: { x: 0, y: 60, w: width, h: 40 } },
  ];
  drawScene(context as unknown as Canvas2D, { width, height, items }, studioWith(shelf));
  const at = (x: number, y: number) => [...context.getImageData(x, y, 1, 1).data];
  expect(at(98, 40)).toEqual([255, 0, 0, 255]);
  const [red = 0, , blue = 0] = at(98, 80);
  expect(Math.min(red, blue)).toBeGreaterThan(80);
  // Not darker at the edge of the frame than away from it.
  expect(at(20, 98)).toEqual([255, 0, 0, 255]);
});

test('a gradient goes over all of a text, from one colour to the other, in every line of it', async () => {
  const frame = { width: 400, height: 200 };
  const text = linesOf('HHHHHHHHHH\nHHHHHHHHHH');
  await shelf.prepare('Noto Sans', text);
  const picture = (angle: number) => {
    const gradient = { colour: '#0000ff', angle };
    const plain = { size: 48, colour: '#ff0000', outlineWidth: 0, down: 'middle' } as const;
    const style = { ...subtitleStyle(frame.height), ...plain, gradient };
    const layout = layOut(text, style, frame, shelf);
    const item = { kind: 'text', text: '', cue: 'c', box: layout.box, opacity: 1, layout } as const;
    const context = createCanvas(frame.width, frame.height).getContext('2d');
    drawScene(context as unknown as Canvas2D, { ...frame, items: [item] }, studioWith(shelf));
    return { data: context.getImageData(0, 0, frame.width, frame.height).data, layout };
  };
  /** How blue the letters are, from 0 to 1, of the pixels that are wholly covered. */
  const blue = (
    { data }: ReturnType<typeof picture>,
    inside: (x: number, y: number) => boolean,
  ) => {
    const found: number[] = [];
    for (let at = 0; at < data.length; at += 4) {
      const [x, y] = [(at / 4) % frame.width, Math.floor(at / 4 / frame.width)];
      if (data[at + 3] === 255 && inside(x, y)) found.push((data[at + 2] ?? 0) / 255);
    }
    expect(found.length).toBeGreaterThan(20);
    return found.reduce((sum, value) => sum + value, 0) / found.length;
  };
  const across = picture(0);
  const { x, y, w, h } = across.layout.box;
  expect(blue(across, (at) => at < x + w * 0.15)).toBeLessThan(0.2);
  expect(blue(across, (at) => at > x + w * 0.85)).toBeGreaterThan(0.8);
  expect(blue(across, (at, row) => at < x + w * 0.15 && row > y + h / 2)).toBeLessThan(0.2);
  const down = picture(90);
  expect(blue(down, (_, row) => row < y + h / 2)).toBeLessThan(0.5);
  expect(blue(down, (_, row) => row > y + h / 2)).toBeGreaterThan(0.5);
});
