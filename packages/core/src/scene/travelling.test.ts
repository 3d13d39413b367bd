import { atSpeed } from '../pace/travel.ts';
import { newStrand } from '../programme/defaults.ts';
import {
  USUAL_JOURNEY,
  type Crawl,
  type Journey,
  type Passage,
  type Roll,
} from '../programme/passage.ts';
import type { Cue, Material, Programme } from '../programme/programme.ts';
import { at25, programmeWithCues } from '../programme/samples.ts';
import type { DrawingItem } from './drawing.ts';
import { squareShaper } from './samples.ts';
import { sceneAt } from './sceneAt.ts';
import { laidRoll, wayOf } from './travelling.ts';

const { shaper } = squareShaper();

const roll = (sheet: string, look: Roll['look'] = {}, journey: Partial<Journey> = {}): Roll => ({
  id: 'p',
  kind: 'roll',
  title: 'Closing roll',
  sheet,
  look: { size: 40, lineSpacing: 1.5, behindOpacity: 0, ...look },
  journey: { ...USUAL_JOURNEY, ...journey },
});
const crawl = (sheet: string, look: Crawl['look'] = {}, journey: Partial<Journey> = {}): Crawl => ({
  ...roll('', {}, journey),
  kind: 'crawl',
  sheet,
  look: { size: 40, between: '  ', ...look },
});

/** A programme with a passage that lasts a number of frames, from frame 100 on. */
function showing(passage: Passage, count: number): Programme {
  const base = programmeWithCues([]);
  const cue: Cue = {
    id: 'c',
    strand: 't',
    start: at25(100),
    end: at25(100 + count),
    text: [[{ text: '' }]],
    style: {},
    words: [],
    passage: 'p',
  };
  return {
    ...base,
    strands: { ...base.strands, t: newStrand(passage.kind, 't', 1080) },
    cues: { c: cue },
    passages: { p: passage },
  };
}
const textsAt = (programme: Programme, frame: number) =>
  sceneAt(programme, at25(frame), shaper).items.filter(
    (item): item is DrawingItem & { kind: 'text' } => item.kind === 'text',
  );

describe('a roll', () => {
  const lines = Array.from({ length: 40 }, (_, at) => `Line ${at}`).join('\n');

  test('comes from below the frame and leaves above it, by construction', () => {
    // 40 lines of 60 pixels, and the frame.
    const way = wayOf(roll(lines), { width: 1920, height: 1080 }, shaper);
    expect(way).toEqual({ length: 2400, window: 1080, from: 0, distance: 3480 });
    const programme = showing(roll(lines), 435);
    expect(textsAt(programme, 99)).toEqual([]);
    expect(textsAt(programme, 100)).toEqual([]);
    expect(textsAt(programme, 101)[0]).toMatchObject({ text: 'Line 0', box: { y: 1072 } });
    expect(textsAt(programme, 534).map(({ text, box }) => [text, box.y])).toEqual([
      ['Line 39', -52],
    ]);
    expect(textsAt(programme, 535)).toEqual([]);
  });

  test('every line is in every frame where the equation says, whichever is held', () => {
    for (const journey of [
      { follows: 'speed' as const },
      { follows: 'time' as const, speed: 8 },
      { follows: 'time' as const, speed: 7.35 },
    ]) {
      const programme = showing(roll(lines, {}, journey), 435);
      const speed = journey.follows === 'speed' ? 3480 / 435 : journey.speed;
      for (let frame = 0; frame < 435; frame++)
        for (const { text, box } of textsAt(programme, 100 + frame)) {
          const line = Number(text.slice(5));
          expect(box.y).toBeCloseTo(1080 + 60 * line - speed * frame, 6);
        }
    }
  });

  test('only what is in sight is drawn, and shaped once', () => {
    const counted = squareShaper();
    const programme = showing(
      roll(Array.from({ length: 5000 }, () => 'Maud Pellitory').join('\n')),
      9000,
    );
    const { items } = sceneAt(programme, at25(4000), counted.shaper);
    expect(items.filter(({ kind }) => kind === 'text').length).toBeLessThanOrEqual(20);
    sceneAt(programme, at25(4001), counted.shaper);
    expect(counted.shapings()).toBe(1);
  });

  test('downwards the last line comes first', () => {
    const programme = showing(roll(lines, { downwards: true }), 435);
    expect(textsAt(programme, 101)).toMatchObject([{ text: 'Line 39', box: { y: -52 } }]);
    expect(textsAt(programme, 534)).toMatchObject([{ text: 'Line 0', box: { y: 1072 } }]);
  });

  test('leans and sways as a whole, with all that leaning brings into sight', () => {
    const look = { tilt: 10, sway: 0.05, swayFrames: 100, softEdge: 0.1 };
    const [plain, lively] = [{}, look].map((each) => textsAt(showing(roll(lines, each), 435), 325));
    expect((lively ?? []).length).toBeGreaterThan((plain ?? []).length);
    const first = lively?.find(({ text }) => text === plain?.[0]?.text);
    expect(first?.box).toEqual(plain?.[0]?.box);
    const turned = new Set(lively?.map(({ transform }) => JSON.stringify(transform)));
    expect(turned.size).toBe(1);
    expect(first?.transform?.b).toBeGreaterThan(0.08);
    // Soft edges stay where the frame's are.
    expect(first?.window?.box).toEqual({ x: 0, y: 0, w: 1920, h: 1080 });
  });

  test('stands still on its title at the beginning and on its last lines at the end', () => {
    const sheet = `[title] The Ferry\n\n${lines}\n\nMade at Brae End`;
    const held = roll(sheet, { titleRatio: 1.5 }, { holdStart: 50, holdEnd: 75, easeIn: 20 });
    const programme = showing(held, 1000);
    const middle = ({ box }: DrawingItem) => box.y + box.h / 2;
    const of = (frame: number, text: string) =>
      middle(textsAt(programme, frame).find((item) => item.text.startsWith(text)) as DrawingItem);
    for (const frame of [100, 125, 150]) expect(of(frame, 'THE FERRY')).toBe(540);
    expect(of(152, 'THE FERRY')).toBeLessThan(540);
    for (const frame of [1025, 1099]) expect(of(frame, 'Made')).toBe(540);
    expect(of(1020, 'Made')).toBeGreaterThan(540);
  });

  test('with a whole number of pixels a frame every line stands on whole pixels', () => {
    const programme = showing(
      roll(lines, { size: 42, lineSpacing: 1.3 }, { follows: 'time', speed: 3 }),
      900,
    );
    for (const frame of [200, 201, 617])
      for (const { box, layout } of textsAt(programme, frame))
        for (const value of [box.x, box.y, layout.lines[0]?.baseline ?? NaN])
          expect(Number.isInteger(value)).toBe(true);
  });

  test('roles end at the gutter, names begin at it, and columns share out the width', () => {
    const frame = { width: 1920, height: 1080 };
    const sides = 'Deck\tPerpetua Lisle\n\n[3 columns]\nAbel\nBryony\nCass';
    const programme = showing(roll(sides, { gutter: 1 }), 100);
    const at = (text: string) => {
      const item = [...Array(100).keys()]
        .flatMap((each) => textsAt(programme, 100 + each))
        .find((each) => each.text === text);
      return item?.box ?? { x: NaN, w: NaN };
    };
    expect(at('Deck').x + at('Deck').w).toBe(960 - 20);
    expect(at('Perpetua Lisle').x).toBe(960 + 20);
    expect(at('Bryony').x + at('Bryony').w / 2).toBeCloseTo(frame.width / 2, 0);
    expect(at('Cass').x).toBeGreaterThan(at('Bryony').x + at('Bryony').w);
  });

  test('lines and pictures stand in the middle, or as far out as roles and names do', () => {
    const picture = { width: 400, height: 100 };
    const sides =
      '[left] Abel\n[right] Bryony\n[picture a.png]\n\n[picture a.png]\n[larger]\n[picture a.png]';
    const base = showing(roll(sides, { gutter: 1, sideWidth: 0.25, picture: 2 }), 400);
    const programme = {
      ...base,
      materials: { a: { id: 'a', kind: 'image', name: 'a.png', picture } as unknown as Material },
    };
    const { items } = sceneAt(programme, at25(300), shaper);
    const boxes = items.flatMap(({ kind, box }) =>
      kind === 'image' || kind === 'text' ? [box] : [],
    );
    const [abel, bryony, right, middle, larger] = boxes;
    expect(abel?.x).toBe(960 - 20 - 480);
    expect((bryony?.x ?? 0) + (bryony?.w ?? 0)).toBe(960 + 20 + 480);
    // Two lines of 60 pixels tall, and four times as wide.
    expect(right).toMatchObject({ x: 960 + 20 + 480 - 480, w: 480, h: 120 });
    expect(middle).toMatchObject({ x: 960 - 240 });
    expect(larger).toMatchObject({ w: 624, h: 156 });
  });

  test('a picture that is too wide for the frame keeps its shape', () => {
    const picture = { width: 4000, height: 100 };
    const base = showing(roll('[picture a.png]', { picture: 4 }), 200);
    const programme = {
      ...base,
      materials: { a: { id: 'a', kind: 'image', name: 'a.png', picture } as unknown as Material },
    };
    const image = sceneAt(programme, at25(200), shaper).items.find(({ kind }) => kind === 'image');
    expect(image?.box).toMatchObject({ x: 96, w: 1728, h: 43 });
  });

  test('one that is edited is laid out anew, and one that is not is not', () => {
    const one = roll(lines);
    const frame = { width: 1920, height: 1080 };
    expect(laidRoll(one, frame)).toBe(laidRoll(one, frame));
    const longer = { ...one, sheet: `${lines}\nOne more` };
    expect(laidRoll(longer, frame).layout.height).toBe(2460);
  });
});

describe('a crawl', () => {
  // Every character is 20 pixels wide: items of 100 and 60 pixels, and 40 between them.
  const programmeOf = (look: Crawl['look'], count = 530) =>
    showing(crawl('Ferry\nSlack'.slice(0, 9), look), count);

  test('comes from beyond one edge and leaves beyond the other', () => {
    const programme = programmeOf({});
    const way = wayOf(crawl('Ferry\nSla'), { width: 1920, height: 1080 }, shaper);
    expect(way).toEqual({ length: 200, window: 1920, from: 0, distance: 2120 });
    expect(textsAt(programme, 100)).toEqual([]);
    expect(textsAt(programme, 101)).toMatchObject([{ text: 'Ferry', box: { x: 1916 } }]);
    expect(textsAt(programme, 629)).toMatchObject([{ text: 'Sla', box: { x: -56 } }]);
  });

  test('keeps to its window, short of the label, and goes the other way if wanted', () => {
    const look = { label: 'Board', insetRight: 100, towards: 'right' as const };
    const programme = programmeOf(look, 200);
    const window = textsAt(programme, 150)[0]?.window?.box;
    const plate = sceneAt(programme, at25(150), shaper).items.find(({ kind }) => kind === 'plate');
    expect(window?.x).toBe(plate?.box.w);
    expect((window?.x ?? 0) + (window?.w ?? 0)).toBe(1820);
    const [first] = textsAt(programme, 101);
    expect(first?.text).toBe('Ferry');
    expect(first?.box.x).toBeLessThan(window?.x ?? 0);
  });

  test('comes by as often as wanted, with the same between', () => {
    const three = crawl('Ferry\nSla', { times: 3 }, { follows: 'time', speed: 4 });
    const way = wayOf(three, { width: 1920, height: 1080 }, shaper);
    expect(way.length).toBe(3 * 200 + 2 * 40);
    const frames = atSpeed(way.distance, 4).frames;
    const programme = showing(three, frames);
    expect(
      textsAt(programme, 400)
        .map(({ text }) => text)
        .filter((text) => text !== '  '),
    ).toEqual(['Ferry', 'Sla', 'Ferry', 'Sla', 'Ferry', 'Sla']);
    expect(textsAt(programme, 400).map(({ box }) => box.x)[4]).toBe(1920 - 1200 + 240);
  });

  test('its band comes and goes', () => {
    const programme = programmeOf({ bandFade: 9, bandOpacity: 1 }, 200);
    const band = (frame: number) =>
      sceneAt(programme, at25(frame), shaper).items.find(({ kind }) => kind === 'band')?.opacity;
    expect(band(100)).toBeCloseTo(0.1, 6);
    expect(band(150)).toBe(1);
    expect(band(299)).toBeCloseTo(0.1, 6);
  });
});
