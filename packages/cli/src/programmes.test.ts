import { createHash } from 'node:crypto';
import { copyFileSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import { sampleMaterial, programmeWithCues } from '@cadence/core/programme/samples.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import type { Cue, Programme } from '@cadence/core/programme/programme.ts';
import { fromSeconds, toSeconds } from '@cadence/core/time/ticks.ts';
import { commandLine, demo } from './commandLine.samples.ts';

const { cadence, folder } = commandLine();

const NARRATION = 'narration-hesper.opus';
/** The ferry's narration with its first lines in one cue, whose words have no times yet. */
function ferry(text: string): Programme {
  const path = join(demo, NARRATION);
  copyFileSync(path, join(folder(), NARRATION));
  const bytes = readFileSync(path);
  const material = {
    ...sampleMaterial('m'),
    name: NARRATION,
    hash: createHash('sha256').update(bytes).digest('hex'),
    bytes: bytes.length,
    length: fromSeconds(100),
  };
  const programme = programmeWithCues([[text, 0, 500]]);
  return {
    ...programme,
    facts: { ...programme.facts, sound: 'm', length: fromSeconds(100) },
    materials: { m: material },
  };
}
const keep = (name: string, programme: Programme) =>
  writeFileSync(join(folder(), name), JSON.stringify({ format: FILE_FORMAT, programme }));
const kept = (name: string): Programme =>
  (JSON.parse(readFileSync(join(folder(), name), 'utf8')) as { programme: Programme }).programme;
const inOrder = ({ cues }: Programme): Cue[] =>
  Object.values(cues).sort((a, b) => a.start - b.start);

describe('a programme on the command line', () => {
  test('is woven: its words get their times, and it is written beside', () => {
    const script = 'The ferry at Skerrymoor has no engine of its own.';
    keep('ferry.json', ferry(script));
    const { status, json } = cadence('weave', 'ferry.json', 'woven.json', '--json');
    expect([status, json]).toMatchObject([0, { file: 'woven.json', cues: 1, words: 10 }]);
    const [cue] = inOrder(kept('woven.json'));
    expect(cue?.words.length).toBeGreaterThan(7);
    const starts = cue?.words.map(({ start }) => toSeconds(start)) ?? [];
    expect(starts).toEqual([...starts].sort((a, b) => a - b));
    // What it was made of is as it was.
    expect(inOrder(kept('ferry.json'))[0]?.words).toEqual([]);
    expect(cadence('weave', 'ferry.json', 'x.json', '--pins', 'p.json').status).toBe(2);
    expect(cadence('weave', 'ferry.json', 'x.json', '--strand', 'Nobody').status).toBe(2);
  });

  test('whose sound is not there is told of', () => {
    const programme = ferry('The ferry');
    const { m: material } = programme.materials;
    keep('lost.json', {
      ...programme,
      materials: { m: { ...material, name: 'lost.wav', hash: 'f'.repeat(64) } as never },
    });
    const { status, json } = cadence('weave', 'lost.json', 'x.json', '--json');
    expect([status, json.error.kind]).toEqual([1, 'missing']);
    expect(json.error.message).toContain('“lost.wav” is not in');
  });

  test('takes what is in a file, as the window would first', () => {
    keep('empty.json', programmeWithCues([]));
    writeFileSync(
      join(folder(), 'ferry.srt'),
      '1\n00:00:01,000 --> 00:00:02,500\nSlack water\n\n2\n00:00:03,000 --> 00:00:04,000\nGulls\n',
    );
    const { json } = cadence('bring', 'empty.json', 'ferry.srt', 'cues.json', '--json');
    expect(json).toMatchObject({ file: 'cues.json', contents: 'cues', place: 'replace', count: 2 });
    expect(inOrder(kept('cues.json')).map(({ text }) => plainText(text))).toEqual([
      'Slack water',
      'Gulls',
    ]);
    writeFileSync(join(folder(), 'script.txt'), 'The tide turns.\n\nThe boat sighs.\n');
    expect(
      cadence('bring', 'empty.json', 'script.txt', 'script.json', '--json').json,
    ).toMatchObject({
      contents: 'script',
      place: 'spread',
      count: 2,
    });
    writeFileSync(join(folder(), 'nothing.srt'), '\n');
    expect(cadence('bring', 'empty.json', 'nothing.srt', 'x.json').status).toBe(1);
  });

  test('is carried over to another sound, and refused one that is no like', () => {
    keep('ferry.json', ferry('The ferry at Skerrymoor'));
    copyFileSync(join(demo, NARRATION), join(folder(), 'again.opus'));
    const { status, json } = cadence('carry', 'ferry.json', 'again.opus', 'carried.json', '--json');
    expect([status, json.kept]).toEqual([0, 1]);
    const carried = kept('carried.json');
    const sound = carried.materials[carried.facts.sound ?? ''];
    expect(sound).toMatchObject({ name: 'again.opus', kind: 'sound' });
    expect(inOrder(carried)[0]).toMatchObject({ start: 0 });
  });
});
