import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import { programmeWithCues } from '@cadence/core/programme/samples.ts';
import { commandLine } from './commandLine.samples.ts';

const { cadence, folder } = commandLine();

interface Travels {
  readonly height: number;
  readonly width: number;
  readonly size: number;
  readonly travel: number;
  readonly duration: number;
  readonly frames: number;
  readonly speedPxPerFrame: number;
  readonly wholePixel: boolean;
  readonly onScreen: { readonly line: number };
  readonly longest: { readonly text: string; readonly needs: number };
  readonly options: readonly { readonly speedPxPerFrame: number; readonly duration: number }[];
  readonly fit?: {
    readonly leaveOut: readonly number[] | null;
    readonly moreTime: number;
    readonly size: number | null;
  };
}
const pace = (...args: string[]) => cadence('pace', ...args, '--json').json as unknown as Travels;

beforeAll(() => {
  const rows = Array.from({ length: 40 }, (_, at) => `Deck ${at}\tJonty Abelwhite ${at}`);
  writeFileSync(join(folder(), 'credits.txt'), `The Ferry\n\n${rows.join('\n')}\n`);
  writeFileSync(
    join(folder(), 'notices.txt'),
    'The ferry will not cross on Monday.\n[stays] Boats keep west of the buoy.\nA dance is held at Brae End.\n',
  );
});

describe('pace roll', () => {
  it('gives the speed for a time, with whole speeds on either side', () => {
    const roll = pace('roll', 'credits.txt', '--duration', '54', '--size', '42');
    expect(roll.travel).toBeCloseTo(roll.height + 1080, 6);
    expect(roll.frames).toBe(1350);
    expect(roll.speedPxPerFrame).toBeCloseTo(roll.travel / 1350, 6);
    expect(roll.longest).toEqual({ text: 'Jonty Abelwhite 10', needs: 0.9 });
    expect(roll.onScreen.line).toBeCloseTo(1080 / roll.speedPxPerFrame / 25, 6);
    const speeds = roll.options.map((each) => each.speedPxPerFrame);
    expect(speeds.every(Number.isInteger)).toBe(true);
    expect(speeds.some((speed) => speed < roll.speedPxPerFrame)).toBe(true);
    expect(speeds.some((speed) => speed > roll.speedPxPerFrame)).toBe(true);
  });

  it('gives the time for a speed, and the size for both', () => {
    const timed = pace(
      'roll',
      'credits.txt',
      '--speed',
      '4',
      '--frame',
      '1280x720',
      '--size',
      '28',
    );
    expect(timed).toMatchObject({ wholePixel: true, frames: Math.ceil(timed.travel / 4) });
    const sized = pace('roll', 'credits.txt', '--speed', '4', '--duration', '30');
    expect(sized.travel).toBeLessThanOrEqual(4 * 750);
    const larger = pace('roll', 'credits.txt', '--speed', '4', '--size', String(sized.size + 1));
    expect(larger.frames).toBeGreaterThan(750);
  });

  it('refuses what makes no sense, and an empty sheet', () => {
    const wrong = (...args: string[]) => cadence('pace', ...args, '--json').status;
    expect(wrong('roll', 'credits.txt', '--speed', '0')).toBe(2);
    expect(wrong('roll', 'credits.txt', '--frame', 'wide')).toBe(2);
    expect(wrong('drift', 'credits.txt')).toBe(2);
    writeFileSync(join(folder(), 'empty.txt'), '// nothing yet\n');
    const { status, json } = cadence('pace', 'roll', 'empty.txt', '--json');
    expect([status, (json as { error?: { kind: string } }).error?.kind]).toEqual([1, 'no text']);
  });
});

describe('pace crawl', () => {
  it('travels through its window, and says what would make it fit', () => {
    const args = ['crawl', 'notices.txt', '--window', '200,1720', '--size', '49'];
    const free = pace(...args, '--speed', '8');
    expect(free.travel).toBeCloseTo(free.width + 1520, 6);
    expect(free.fit).toBeUndefined();
    const held = pace(...args, '--speed', '8', '--duration', '14');
    expect(held.fit?.moreTime).toBeCloseTo(free.duration - 14, 6);
    expect(held.fit?.leaveOut).toContain(2);
    expect(held.fit?.leaveOut).not.toContain(1);
    const smaller = String(held.fit?.size);
    const fits = pace(
      'crawl',
      'notices.txt',
      '--window',
      '200,1720',
      '--size',
      smaller,
      '--speed',
      '8',
    );
    expect(fits.duration).toBeLessThanOrEqual(14);
  });
});

describe('still', () => {
  it('draws the pictures that are beside the programme, or in a folder, and says which are not', async () => {
    const canvas = createCanvas(64, 36);
    const context = canvas.getContext('2d');
    context.fillStyle = '#2f8a83';
    context.fillRect(0, 0, 64, 36);
    const bytes = canvas.toBuffer('image/png');
    const programme = programmeWithCues([]);
    const harbour = {
      id: 'm',
      hash: createHash('sha256').update(bytes).digest('hex'),
      name: 'harbour.png',
      kind: 'image',
      bytes: bytes.length,
      length: 0,
      sound: null,
      picture: { width: 64, height: 36, frameRate: null, codec: 'png', shown: true },
      family: null,
      remarks: [],
    };
    writeFileSync(
      join(folder(), 'board.json'),
      JSON.stringify({
        format: FILE_FORMAT,
        programme: {
          ...programme,
          facts: { ...programme.facts, backdrop: { colour: '#000000', image: 'm' } },
          materials: { m: harbour },
        },
      }),
    );
    const still = (...more: string[]) =>
      cadence('still', 'board.json', '--at', '1s', 'board.png', '--height', '36', ...more).json;
    const middle = async () => {
      const drawn = createCanvas(64, 36).getContext('2d');
      drawn.drawImage(await loadImage(readFileSync(join(folder(), 'board.png'))), 0, 0);
      return [...drawn.getImageData(32, 18, 1, 1).data];
    };
    expect(still()).toMatchObject({ without: ['harbour.png'] });
    expect(await middle()).toEqual([0, 0, 0, 255]);
    // What was dropped is it, though the application stored it anew with other bytes.
    context.fillStyle = '#a33327';
    context.fillRect(0, 0, 64, 36);
    writeFileSync(join(folder(), 'harbour.png'), canvas.toBuffer('image/png'));
    expect(still()).not.toHaveProperty('without');
    expect(await middle()).toEqual([0xa3, 0x33, 0x27, 255]);
    writeFileSync(join(folder(), 'harbour.png'), bytes);
    expect(still()).not.toHaveProperty('without');
    expect(await middle()).toEqual([0x2f, 0x8a, 0x83, 255]);
    mkdirSync(join(folder(), 'kept'));
    writeFileSync(join(folder(), 'kept', harbour.hash), bytes);
    writeFileSync(join(folder(), 'harbour.png'), 'no picture');
    expect(still('--material', 'kept')).not.toHaveProperty('without');
    expect(await middle()).toEqual([0x2f, 0x8a, 0x83, 255]);
  });
});
