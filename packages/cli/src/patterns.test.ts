import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import { patternFile } from '@cadence/core/programme/patternFile.ts';
import { patternShelf } from '@cadence/core/programme/patternShelf.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { programmeWithCues } from '@cadence/core/programme/samples.ts';
import { commandLine } from './commandLine.samples.ts';

const { cadence, folder } = commandLine();
const programme = programmeWithCues([
  ['Slack water', 0, 50],
  ['hold the chain', 60, 120],
]);
const kept = (name: string): Programme =>
  (JSON.parse(readFileSync(join(folder(), name), 'utf8')) as { programme: Programme }).programme;

describe('patterns', () => {
  beforeAll(() =>
    writeFileSync(join(folder(), 'song.json'), JSON.stringify({ format: FILE_FORMAT, programme })),
  );

  test('are listed, and one is given to a strand by its name', () => {
    const { json } = cadence('pattern', 'list', 'song.json', '--json');
    const names = (json.patterns as { name: string }[]).map(({ name }) => name);
    expect(names.length).toBeGreaterThanOrEqual(20);
    expect(new Set(names).size).toBe(names.length);
    const words = ['pattern', 'apply', 'song.json', 'ripple.json', '--json'];
    const applied = cadence(...words, '--pattern', 'ripple').json;
    expect(applied).toMatchObject({ file: 'ripple.json', pattern: 'Ripple' });
    expect(applied.cues).toHaveLength(2);
    const [strand] = Object.values(kept('ripple.json').strands);
    expect(kept('ripple.json').patterns[strand?.pattern ?? '']?.name).toBe('Ripple');
    const again = cadence('pattern', 'list', 'ripple.json', '--json').json.patterns;
    expect(again[0]).toMatchObject({ name: 'Ripple', inProgramme: true, cues: 2 });
  });

  test('come from a file, fitted to the frame', () => {
    const { facts } = programme;
    const frame = { width: facts.frame.width * 2, height: facts.frame.height * 2 };
    const [first] = patternShelf({ ...facts, frame });
    if (!first) throw new Error('The shelf is empty.');
    const text = patternFile({ ...facts, frame }, [{ ...first, id: 'mine', name: 'Mine' }]);
    writeFileSync(join(folder(), 'mine.patterns.json'), text);
    const words = ['pattern', 'apply', 'song.json', 'mine.json', '--json'];
    const { json } = cadence(...words, '--pattern', 'mine.patterns.json');
    expect(json).toMatchObject({ pattern: 'Mine' });
    expect(kept('mine.json').patterns['mine']?.look.size).toBeCloseTo(
      (first.look.size ?? 0) / 2,
      0,
    );
    expect(kept('mine.json').strands['s']?.pattern).toBe('mine');
  });

  test('that are none are named', () => {
    const words = ['pattern', 'apply', 'song.json', 'x.json', '--json'];
    const unknown = cadence(...words, '--pattern', 'Nothing like it');
    expect([unknown.status, unknown.stderr]).toEqual([2, expect.stringContaining('“Splice”')]);
    const none = cadence(...words, '--pattern', 'song.json');
    expect([none.status, none.json.error.kind]).toEqual([1, 'unreadable']);
    expect(cadence(...words, '--pattern', 'gone.json').json.error.kind).toBe('missing');
  });
});
