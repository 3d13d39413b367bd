import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PcmWriter, wavFrame } from '@cadence/core/formats/wav/writeWav.ts';
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import type { Programme, Sound } from '@cadence/core/programme/programme.ts';
import { wholeSound } from '@cadence/core/programme/heard.ts';
import { programmeWithCues, sampleMaterial } from '@cadence/core/programme/samples.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { commandLine } from './commandLine.samples.ts';

const { cadence, folder } = commandLine();
const RATE = 44_100;

/** A tone of three seconds as a WAVE file, with how it is laid in a programme of four. */
function programme(laid: Partial<Sound> = {}): Programme {
  const tone = Float32Array.from(
    { length: 3 * RATE },
    (_, at) => 0.1 * Math.sin((at * 440 * 2 * Math.PI) / RATE),
  );
  const format = { sampleRate: RATE, channels: 1, bits: 24 as const, length: tone.length };
  const bytes = Buffer.concat([wavFrame(format).head, new PcmWriter(24).bytes([tone])]);
  writeFileSync(join(folder(), 'tone.wav'), bytes);
  const material = {
    ...sampleMaterial('m'),
    name: 'tone.wav',
    hash: createHash('sha256').update(bytes).digest('hex'),
    bytes: bytes.length,
    length: fromSeconds(3),
  };
  const base = programmeWithCues([]);
  const mark = { id: 'k', at: fromSeconds(2), name: 'Bell', purpose: 'place' as const };
  return {
    ...base,
    facts: { ...base.facts, sound: 'm', length: fromSeconds(4) },
    materials: { m: material },
    sounds: { m: { ...wholeSound(material), ...laid } },
    marks: { k: mark },
  };
}
const keep = (made: Programme) =>
  writeFileSync(
    join(folder(), 'tone.json'),
    JSON.stringify({ format: FILE_FORMAT, programme: made }),
  );

/** The samples on the left of a file of 24 bits. */
function leftOf(file: string): number[] {
  const bytes = readFileSync(join(folder(), file));
  // Cue points name the chunk of samples too.
  const from = bytes.subarray(0, 300).lastIndexOf('data') + 8;
  const out: number[] = [];
  for (let at = from; at + 6 <= bytes.length; at += 6) out.push(bytes.readIntLE(at, 3) / 2 ** 23);
  return out;
}

describe('the mixdown', () => {
  test('is as long as the programme, at its loudness, with marks as cue points', () => {
    keep(programme({ at: fromSeconds(1) }));
    const { status, json } = cadence(
      'sound',
      'tone.json',
      'out.wav',
      '--loudness',
      '-20',
      '--json',
    );
    expect(status).toBe(0);
    expect(json).toMatchObject({ duration: 4, sampleRate: 48_000, bits: 24, marks: 1 });
    expect(json.sound.lufs).toBeCloseTo(-20, 1);
    const left = leftOf('out.wav');
    expect(left).toHaveLength(4 * 48_000);
    expect(Math.max(...left.slice(0, 47_900).map(Math.abs))).toBe(0);
    const heard = cadence('listen', 'out.wav', '--only', 'speech', '--json').json;
    expect(heard.level.integratedLufs).toBeCloseTo(-20, 1);
    const { markers } = cadence('read', 'out.wav', '--json').json;
    expect(markers).toEqual([{ start: 2, text: 'Bell' }]);
  });

  test('of a range has that range, from its first frame up to its last', () => {
    keep(programme());
    const { json } = cadence('sound', 'tone.json', 'part.wav', '--range', '1s-2.5s', '--json');
    expect(json).toMatchObject({ duration: 1.5, gainDb: 0, marks: 1 });
    const left = leftOf('part.wav');
    expect(left).toHaveLength(72_000);
    const truth = (at: number) => 0.1 * Math.sin((at + 48_000) * ((440 * 2 * Math.PI) / 48_000));
    for (const at of [0, 1000, 40_001]) expect(left[at]).toBeCloseTo(truth(at), 4);
  });

  test('says what it cannot do before anything is written', () => {
    keep(programme());
    for (const wrong of [
      ['--range', '3s-9s'],
      ['--range', '2s-1s'],
      ['--range', 'soon'],
      ['--loudness', 'loud'],
      ['--bits', '12'],
    ])
      expect(cadence('sound', 'tone.json', 'no.wav', ...wrong).status).toBe(2);
    expect(cadence('sound', 'tone.json', 'no.wav', '--range', '3s-9s').stderr).toContain('ends at');
    const muted = programme({ muted: true });
    keep(muted);
    expect(cadence('sound', 'tone.json', 'no.wav', '--json').json.error.kind).toBe('silent');
    keep({
      ...muted,
      sounds: {},
      materials: { m: { ...muted.materials.m, hash: 'f'.repeat(64) } as never },
    });
    expect(cadence('sound', 'tone.json', 'no.wav', '--json').json.error.kind).toBe('missing');
    expect(existsSync(join(folder(), 'no.wav'))).toBe(false);
  });
});
