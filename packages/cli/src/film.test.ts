import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { programmeWithCues } from '@cadence/core/programme/samples.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { commandLine, demo } from './commandLine.samples.ts';

const { cadence, folder } = commandLine();
const FILM = 'skerrymoor-cut3.mp4';

/** Five seconds of the demo's film with its own sound, and a word. */
function programme(): Programme {
  const bytes = readFileSync(join(demo, FILM));
  const base = programmeWithCues([['slack', 10, 60]]);
  const size = { width: 1280, height: 720 };
  return {
    ...base,
    facts: { ...base.facts, frame: size, length: fromSeconds(5), picture: 'f', sound: 'f' },
    materials: {
      f: {
        id: 'f',
        hash: createHash('sha256').update(bytes).digest('hex'),
        name: FILM,
        kind: 'film',
        bytes: bytes.length,
        length: fromSeconds(122.92),
        sound: { sampleRate: 48_000, channels: 1, codec: 'aac' },
        picture: { ...size, frameRate: base.facts.frameRate, codec: 'avc', shown: true },
        family: null,
        remarks: [],
      },
    },
  };
}

beforeAll(() =>
  writeFileSync(
    join(folder(), 'five.json'),
    JSON.stringify({ format: FILE_FORMAT, programme: programme() }),
  ),
);
const film = (...args: string[]) =>
  cadence('film', 'five.json', ...args, '--material', demo, '--json');

describe('a film', () => {
  test('is written with its text and sound, in parts that are cleared away', () => {
    const { status, json, stderr } = film('five.mp4', '--size', '180', '--loudness', '-23');
    expect({ status, stderr: stderr.replace(/^(Writing|Joining): \d+ %\n/gm, '') }).toEqual({
      status: 0,
      stderr: '',
    });
    expect(json).toMatchObject({ frames: 125, width: 320, height: 180, rate: '25', duration: 5 });
    expect(json.sound.lufs).toBeCloseTo(-23, 1);
    expect(readdirSync(folder()).sort()).toEqual(['five.json', 'five.mp4']);
  });

  test('is written from one time up to another, at half the rate', () => {
    const { json } = film(
      'part.webm',
      '--size',
      '180',
      '--range',
      '0:01:00-0:03:00',
      '--rate',
      '12.5',
    );
    expect(json).toMatchObject({ frames: 25, rate: '12.5', duration: 2 });
  });

  test('is pictures of its text alone', () => {
    const { json } = film('text.zip', '--size', '90', '--text-only', '--range', '0:00:00-0:00:12');
    expect(json).toMatchObject({ frames: 12, sound: null });
    expect(Object.keys(unzipSync(readFileSync(join(folder(), 'text.zip'))))).toHaveLength(13);
  });

  test('is not written where something is asked for that cannot be', () => {
    for (const [args, says] of [
      [['x.mov'], 'A film is written as .mp4, .webm, .zip.'],
      [['x.webm', '--codec', 'h264'], '.webm takes --codec vp9, av1.'],
      [['x.mp4', '--text-only'], 'name the file .zip'],
      [['x.mp4', '--text-only=yes'], '--text-only takes no value.'],
      [['x.mp4', '--size', 'large'], '--size takes a height'],
      [['x.mp4', '--rate', '24'], '--rate takes that of the programme, 25/1, or its half, 25/2.'],
      [['x.mp4', '--range', '0:01:00-0:09:00'], 'The programme ends at'],
    ] as const) {
      const { status, stderr } = film(...args);
      expect({ status, stderr }).toEqual({ status: 2, stderr: expect.stringContaining(says) });
    }
    const away = cadence('film', 'five.json', 'x.mp4', '--material', folder(), '--json');
    expect(away.status).toBe(1);
    expect(away.json.error.message).toContain(`“${FILM}” is not in`);
    const nowhere = film('no/such/x.mp4', '--size', '90', '--range', '0:00:00-0:00:05');
    expect(nowhere.json.error).toMatchObject({ kind: 'unwritable' });
    expect(existsSync(join(folder(), 'x.mp4'))).toBe(false);
  });
});
