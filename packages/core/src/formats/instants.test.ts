import { writeMidi } from 'midi-file';
import fc from 'fast-check';
import { parseRate } from '../time/frameRate.ts';
import { fromSeconds, toSeconds } from '../time/ticks.ts';
import { Unreadable } from './captions.ts';
import { readMidi } from './midi/read.ts';
import { readTimecodes } from './timecodes/read.ts';
import { readCuePoints } from './wav/readCuePoints.ts';

const ascii = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));

describe('timecodes as text', () => {
  const rate = parseRate('25');
  if (!rate) throw new Error('There is no such rate.');
  const read = (text: string) => readTimecodes(text, rate, fromSeconds(36_000));

  it('are read with their names, in the ways people write them', () => {
    const { lines, warnings } = read(
      '10:00:04:12 first oar\n\n2\t10:00:09:00\tthe chain, slack\nbell at 10:00:10:05\n7.5 s last\nno time here',
    );
    expect(lines.map(({ at, name }) => [toSeconds(at), name])).toEqual([
      [4.48, 'first oar'],
      [9, '2 the chain, slack'],
      [10.2, 'bell at'],
      [7.5, 'last'],
    ]);
    expect(warnings).toMatchObject([{ kind: 'no-time', line: 6 }]);
  });

  it('are refused where there is none', () => {
    expect(() => read('the ferry wakes')).toThrow(Unreadable);
  });

  it('never hang or fail otherwise, whatever the text', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        try {
          read(text);
        } catch (error) {
          expect(error).toBeInstanceOf(Unreadable);
        }
      }),
    );
  });
});

describe('a MIDI file', () => {
  const meta = { meta: true as const };
  const file = (events: Parameters<typeof writeMidi>[0]['tracks'][0], ticksPerBeat = 480) =>
    Uint8Array.from(
      writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat }, tracks: [events] }),
    );
  const tempo = (deltaTime: number, bpm: number) => ({
    ...meta,
    type: 'setTempo' as const,
    deltaTime,
    microsecondsPerBeat: Math.round(6e7 / bpm),
  });
  const metre = (deltaTime: number, numerator: number, denominator: number) => ({
    ...meta,
    type: 'timeSignature' as const,
    deltaTime,
    numerator,
    denominator,
    metronome: 24,
    thirtyseconds: 8,
  });
  const end = (deltaTime: number) => ({ ...meta, type: 'endOfTrack' as const, deltaTime });

  it('gives its tempo map as beats and bars', () => {
    const map = readMidi(file([metre(0, 3, 4), tempo(0, 120), tempo(1440, 60), end(1440)]));
    expect(map.beats.map(({ at }) => at)).toEqual([0, 0.5, 1, 1.5, 2.5, 3.5, 4.5]);
    expect(map.beats.flatMap(({ bar }, at) => (bar ? [[at, bar]] : []))).toEqual([
      [0, '3/4'],
      [3, '3/4'],
      [6, '3/4'],
    ]);
    expect(map.tempo.map(({ bpm }) => Math.round(bpm))).toEqual([120, 60]);
  });

  it('has the time of a beat by all tempi before it, the last of those that stand at one tick', () => {
    const changes = Array.from({ length: 2000 }, (_, at) =>
      tempo(at === 0 ? 0 : 480, 60 + (at % 50)),
    );
    const { beats } = readMidi(file([tempo(0, 999), ...changes, end(480)]));
    let sum = 0;
    const expected = changes.map(({ microsecondsPerBeat }) => {
      const at = sum;
      sum += microsecondsPerBeat / 1e6;
      return at;
    });
    expect(beats).toHaveLength(2001);
    expected.forEach((at, beat) => expect(beats[beat]?.at).toBeCloseTo(at, 6));
  });

  it('counts dotted quarters in 6/8, and says what it cannot hold', () => {
    const six = readMidi(file([metre(0, 6, 8), tempo(0, 120), end(1440)]));
    expect(six.beats.map(({ at }) => at)).toEqual([0, 0.75, 1.5]);
    expect(readMidi(file([metre(0, 5, 4), end(2400)])).warnings).toHaveLength(2);
  });

  it('is refused where it is none', () => {
    expect(() => readMidi(new Uint8Array([1, 2, 3]))).toThrow(Unreadable);
    expect(() => readMidi(ascii('MThd and then nothing'))).toThrow(Unreadable);
  });
});

describe('cue points of a WAVE file', () => {
  const chunk = (name: string, body: Uint8Array) => {
    const bytes = new Uint8Array(8 + body.length + (body.length % 2));
    bytes.set(ascii(name));
    new DataView(bytes.buffer).setUint32(4, body.length, true);
    bytes.set(body, 8);
    return bytes;
  };
  const words = (...values: number[]) => new Uint8Array(Uint32Array.from(values).buffer);
  const join = (...parts: Uint8Array[]) => Uint8Array.from(parts.flatMap((part) => [...part]));
  const text = ascii;
  const point = (id: number, sample: number) => [id, 0, 0x61746164, 0, 0, sample];
  const wave = (...chunks: Uint8Array[]) => {
    const body = join(text('WAVE'), ...chunks);
    return join(text('RIFF'), words(body.length), body);
  };
  const format = chunk('fmt ', join(Uint8Array.from([1, 0, 1, 0]), words(48_000, 96_000)));
  const read = (bytes: Uint8Array) =>
    readCuePoints((from, to) => Promise.resolve(bytes.subarray(from, to)), bytes.length);
  const whole = wave(
    format,
    chunk('data', new Uint8Array(1001)),
    chunk('cue ', words(2, ...point(2, 96_000), ...point(1, 24_000))),
    chunk(
      'LIST',
      join(
        text('adtl'),
        chunk('labl', join(words(1), text('first oar\0'))),
        chunk('ltxt', words(2, 48_000, 0, 0, 0)),
      ),
    ),
  );

  it('are read with their names and lengths, past the sound', async () => {
    expect(await read(whole)).toEqual([
      { start: 0.5, text: 'first oar' },
      { start: 2, end: 3, text: '' },
    ]);
  });

  it('are what could be read of a file that breaks off, and none of another kind', async () => {
    expect(await read(whole.subarray(0, whole.length - 30))).toHaveLength(2);
    expect(await read(wave(format))).toEqual([]);
    await expect(read(text('ID3 something else'))).rejects.toThrow(Unreadable);
    await expect(read(wave())).rejects.toThrow(Unreadable);
  });

  it('are the whole ones of a chunk that says it has more', async () => {
    const short = join(words(2, ...point(1, 24_000)), Uint8Array.from([7]));
    expect(await read(wave(format, chunk('cue ', short)))).toEqual([{ start: 0.5, text: '' }]);
    expect(await read(wave(format, chunk('cue ', short.subarray(0, 5))))).toEqual([]);
  });

  it('never fail otherwise, whatever the bytes', async () => {
    await fc.assert(
      fc.asyncProperty(fc.nat(whole.length - 1), fc.nat(255), async (at, value) => {
        const damaged = Uint8Array.from(whole);
        damaged[at] = value;
        try {
          expect(Array.isArray(await read(damaged))).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(Unreadable);
        }
      }),
    );
  });
});
