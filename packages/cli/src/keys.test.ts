import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { FIRST, strokeAt } from '../../../demo/ferry/keys.ts';
import { commandLine, demo } from './commandLine.samples.ts';

const { cadence, folder } = commandLine();
const KEYS = join(demo, 'keys.opus');
interface Letter {
  readonly text: string;
  readonly at: number;
  readonly hit?: number | null;
}

describe('keys', () => {
  test('puts letters on the strokes of a recording, not on keys that are let go', () => {
    const { json } = cadence('keys', KEYS, 'The chain holds her across', '--json');
    expect(json).toMatchObject({ without: 0 });
    const letters = json.letters as Letter[];
    expect(letters.map(({ text }) => text).join('')).toBe('The chain holds her across');
    letters.forEach(({ at, hit }, place) => {
      expect(hit).toBe(place);
      expect(Math.abs(at - strokeAt(place))).toBeLessThan(0.02);
    });
    expect(letters[0]?.at).toBeCloseTo(FIRST, 2);
  });

  test('lays a sound of a key under each letter of a file, where it says', () => {
    writeFileSync(join(folder(), 'opening.txt'), 'The ferry\r\nat six.\n');
    const words = ['keys', 'opening.txt', 'opening.wav', '--rate', '7', '--sounds', KEYS];
    const { json } = cadence(...words, '--seed', '3', '--json');
    const letters = json.letters as Letter[];
    expect(letters.map(({ text }) => text).join('')).toBe('The ferry\nat six.');
    const heard = cadence('listen', 'opening.wav', '--only', 'hits', '--json').json;
    const hits = (heard.hits as { start: number }[]).map(({ start }) => start);
    for (const { at } of letters)
      expect(Math.min(...hits.map((start) => Math.abs(start - at)))).toBeLessThan(0.01);
    expect(cadence(...words, '--seed', '3', '--json').json).toEqual(json);
    expect(cadence(...words, '--seed', '4', '--json').json.letters).not.toEqual(json.letters);
  });

  test('says what is wrong', () => {
    const quiet = join(demo, 'emblem.png');
    expect(cadence('keys', quiet, 'The chain', '--json').json.error).toBeDefined();
    expect(cadence('keys', KEYS, '  ', '--json').json.error).toMatchObject({ kind: 'empty' });
    expect(cadence('keys', KEYS, 'x', '--seed', '3').stderr).toContain('--seed goes with --sounds');
    const laid = ['keys', 'The chain', 'out.wav', '--sounds', KEYS];
    expect(cadence(...laid, '--rate', '0').stderr).toContain('--rate takes a number up to 60');
    expect(cadence(...laid, '--seed', '1.5').status).toBe(2);
  });
});
