import { writeMidi } from 'midi-file';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { TEMPO, UPBEAT } from '../../../demo/slack/song.ts';
import { programmeWithCues } from '@cadence/core/programme/samples.ts';
import { commandLine, demo } from './commandLine.samples.ts';

const { cadence, folder } = commandLine();

const SRT =
  '1\r\n00:00:01,000 --> 00:00:02,500\r\n<i>Slack</i> water\r\n\r\n2\r\n00:00:03,000 --> 00:00:04,000\r\nGulls\r\n';

describe('cadence', () => {
  it('reads captions', () => {
    writeFileSync(join(folder(), 'ferry.srt'), SRT);
    const { status, json } = cadence('read', 'ferry.srt', '--json');
    expect(status).toBe(0);
    expect(json).toMatchObject({
      format: 'srt',
      encoding: 'utf-8',
      cues: [
        { start: 1, end: 2.5, text: 'Slack water', id: '1' },
        { start: 3, end: 4, text: 'Gulls' },
      ],
      warnings: [],
    });
  });

  it('converts them, shifted, and says what is lost', () => {
    writeFileSync(
      join(folder(), 'song.vtt'),
      'WEBVTT\n\n00:01.000 --> 00:02.000\n<v Hesper>Ours\n',
    );
    const { json } = cadence('convert', 'song.vtt', 'song.srt', '--shift', '1.5', '--json');
    expect(json).toEqual({ cues: 1, lost: [{ kind: 'speaker', count: 1 }], warnings: [] });
    expect(readFileSync(join(folder(), 'song.srt'), 'utf8')).toContain(
      '00:00:02,500 --> 00:00:03,500',
    );
  });

  it('reads lyrics with their lines, and writes them', () => {
    const words = '[ti:Slack Water]\n[00:01.00]<00:01.00>Slack <00:01.50>water\n[00:02.00]\n';
    writeFileSync(join(folder(), 'song.lrc'), words);
    const { json } = cadence('read', 'song.lrc', '--json');
    expect(json).toEqual({
      format: 'lrc',
      encoding: 'utf-8',
      cues: [
        {
          start: 1,
          end: 2,
          text: 'Slack water',
          words: [
            { text: 'Slack', start: 1, end: 1.5 },
            { text: 'water', start: 1.5, end: 2 },
          ],
        },
      ],
      warnings: [],
      metadata: { ti: 'Slack Water' },
      lines: [
        [1, 'Slack water'],
        [2, ''],
      ],
    });
    cadence('convert', 'song.lrc', 'again.lrc');
    expect(readFileSync(join(folder(), 'again.lrc'), 'utf8')).toBe(
      '[00:01.00]<00:01.00>Slack <00:01.50>water<00:02.00>\n',
    );
  });

  it('writes every format of captions, and reads back what it wrote', () => {
    writeFileSync(join(folder(), 'ferry.srt'), SRT);
    const read = (file: string) => cadence('read', file, '--json').json;
    const cues = (file: string) =>
      read(file).cues.map(({ start, end, text }: { start: number; end: number; text: string }) => [
        start,
        end,
        text,
      ]);
    for (const name of ['vtt', 'ttml', 'stl', 'csv', 'otio']) {
      const { status } = cadence('convert', 'ferry.srt', `again.${name}`, '--json');
      expect([name, status, cues(`again.${name}`)]).toEqual([
        name,
        0,
        name === 'stl'
          ? [
              [1, 2.52, 'Slack water'],
              [3, 4, 'Gulls'],
            ]
          : [
              [1, 2.5, 'Slack water'],
              [3, 4, 'Gulls'],
            ],
      ]);
    }
    const { lost } = cadence('convert', 'ferry.srt', 'ferry.txt', '--json').json;
    expect(lost).toContainEqual({ kind: 'times', count: 2 });
  });

  it('writes EBU STL from the timecode of the programme, and takes it off again', () => {
    writeFileSync(join(folder(), 'ferry.srt'), SRT);
    cadence('convert', 'ferry.srt', 'ten.stl', '--start', '10:00:00:00');
    expect(cadence('read', 'ten.stl', '--json').json).toMatchObject({
      format: 'stl',
      metadata: { startTimecode: '10:00:00:00' },
      cues: [{ start: 1 }, { start: 3 }],
    });
    cadence('convert', 'ten.stl', 'eleven.srt', '--start', '09:59:59:00');
    expect(readFileSync(join(folder(), 'eleven.srt'), 'utf8')).toContain('00:00:02,000 -->');
  });

  it('reads sheets and feeds', () => {
    writeFileSync(join(folder(), 'crew.txt'), 'CREW\n\nBell\tAnnis\n\tEwart\n');
    expect(cadence('read', 'crew.txt', '--json').json).toEqual({
      format: 'txt',
      encoding: 'utf-8',
      cues: [],
      warnings: [],
      blocks: [
        { kind: 'heading', text: 'CREW' },
        { kind: 'row', role: 'Bell', names: ['Annis', 'Ewart'] },
      ],
      separator: '\t',
    });
    expect(cadence('convert', 'crew.txt', 'crew.srt', '--json')).toMatchObject({
      status: 1,
      json: { error: { kind: 'no cues' } },
    });
    writeFileSync(
      join(folder(), 'news.xml'),
      '<rss><channel><item><title>Bell</title></item></channel></rss>',
    );
    expect(cadence('read', 'news.xml', '--json').json.items).toEqual([{ title: 'Bell' }]);
  });

  it('measures reading, and checks captions and programmes', () => {
    const quick = '1\n00:00:01,000 --> 00:00:02,000\nHold the the chain until it sings\n';
    writeFileSync(join(folder(), 'quick.srt'), quick);
    const pace = cadence('pace', 'reading', 'quick.srt', '--profile', 'unhurried', '--json').json;
    expect(pace.cues).toEqual([
      { start: 1, end: 2, cps: 33, wpm: 420, lines: 1, longestLine: 33, gap: null },
    ]);
    expect(pace.profile).toMatchObject({ name: 'unhurried', charactersASecond: 15 });
    const { findings } = cadence('check', 'quick.srt', '--json').json;
    expect(findings).toContainEqual(
      expect.objectContaining({ kind: 'too fast', at: 1, cue: 0, figure: 33, limit: 20 }),
    );
    expect(findings).toContainEqual(
      expect.objectContaining({ kind: 'doubled word', mend: 'Hold the chain until it sings' }),
    );
    const programme = programmeWithCues([['', 0, 50]]);
    writeFileSync(
      join(folder(), 'empty.json'),
      JSON.stringify({ format: 'woven-cadence/programme/1', programme }),
    );
    expect(cadence('check', 'empty.json', '--json').json.findings).toMatchObject([
      { kind: 'empty', severity: 'wrong', at: 0, cue: 'c1' },
    ]);
    expect(cadence('pace', 'reading', 'quick.srt', '--profile', 'hasty').status).toBe(2);
  });

  it('spells captions in a language that is asked for', () => {
    writeFileSync(
      join(folder(), 'slip.srt'),
      '1\n00:00:01,000 --> 00:00:03,000\nMy granmother likes the colour\n',
    );
    const wrong = (...more: string[]) =>
      (
        cadence('check', 'slip.srt', '--json', ...more).json as {
          findings: { kind: string; subject?: string }[];
        }
      ).findings.flatMap(({ kind, subject }) => (kind === 'spelling' ? [subject] : []));
    expect(wrong()).toEqual([]);
    expect(wrong('--language', 'en-GB')).toEqual(['granmother']);
    expect(wrong('--language', 'en-US')).toEqual(['granmother', 'colour']);
    expect(cadence('check', 'slip.srt', '--language', 'gullish').status).toBe(2);
  });

  it('listens', () => {
    const { phrases } = JSON.parse(readFileSync(join(demo, 'phrases.json'), 'utf8')) as {
      phrases: { start: number; end: number }[];
    };
    const { json } = cadence(
      'listen',
      join(demo, 'narration-hesper.opus'),
      '--only',
      'speech',
      '--json',
    );
    expect(json.pieces).toHaveLength(phrases.length);
    expect(Math.abs(json.pieces[0].start - (phrases[0]?.start ?? 0))).toBeLessThan(0.1);
    expect(json).toMatchObject({
      sampleRate: 48_000,
      channels: 1,
      level: { integratedLufs: expect.any(Number) },
    });
  });

  it('listens to a song: its beats, bars, tempo, onsets, drums, sections and hits', () => {
    const song = fileURLToPath(new URL('../../../demo/slack/slack-water.opus', import.meta.url));
    const { json } = cadence(
      ...['listen', song, '--only', 'pulse,onsets,drums,sections,hits', '--json'],
    );
    expect(json.pieces).toBeUndefined();
    const { beats, tempo, metre, confidence } = json.pulse;
    const step = 60 / TEMPO;
    const wanted = Array.from({ length: 60 }, (_, beat) => (UPBEAT + beat) * step);
    const found = wanted.filter((at) =>
      beats.some((beat: { at: number }) => Math.abs(beat.at - at) < 0.07),
    );
    expect(found.length).toBeGreaterThan(56);
    const bars = beats.filter(({ bar }: { bar: boolean }) => bar);
    expect(Math.abs(bars[0].at - UPBEAT * step)).toBeLessThan(0.07);
    expect(metre).toBe('3/4');
    expect(Math.abs(tempo[0].bpm - TEMPO)).toBeLessThan(2);
    expect(confidence).toBeGreaterThan(0.5);
    expect(json.onsets.length).toBeGreaterThan(60);
    expect(Array.isArray(json.hits)).toBe(true);
    // The kick is struck on the first beat of nearly every bar.
    const onBars = json.drums.kick.filter((at: number) =>
      bars.some((bar: { at: number }) => Math.abs(bar.at - at) < 0.05),
    );
    expect(onBars.length).toBeGreaterThan(0.8 * bars.length);
    expect(onBars.length).toBeGreaterThan(0.8 * json.drums.kick.length);
    expect(json.sections[0].kind).toBe('intro');
    expect(json.sections[0].start).toBe(bars[0].at);
    expect(json.sections.at(-1).end).toBe(bars.at(-1).at);
  });

  it('reads the tempo map of a MIDI file and the cue points of a WAV file', () => {
    const tempo = { type: 'setTempo' as const, meta: true as const, deltaTime: 0 };
    const midi = writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: 96 },
      tracks: [[{ ...tempo, microsecondsPerBeat: 600_000 }]],
    });
    writeFileSync(join(folder(), 'song.mid'), Buffer.from(midi));
    const read = cadence('read', 'song.mid', '--json').json;
    expect(read).toMatchObject({ format: 'midi', tempo: [{ at: 0, bpm: 100 }], metre: [] });
    writeFileSync(join(folder(), 'no.wav'), 'RIFF....WAVEdata');
    expect(cadence('read', 'no.wav', '--json')).toMatchObject({
      status: 1,
      json: { error: { kind: 'unreadable' } },
    });
  });

  it('draws a still and says what is in the scene', () => {
    const programme = programmeWithCues([['The tide turns', 0, 50]]);
    writeFileSync(
      join(folder(), 'ferry.json'),
      JSON.stringify({ format: 'woven-cadence/programme/1', programme }),
    );
    const scene = cadence('scene', 'ferry.json', '--at', '00:00:01:00', '--json').json;
    expect(scene).toMatchObject({ width: 1920, height: 1080 });
    expect(scene.items[1]).toMatchObject({
      kind: 'text',
      text: 'The tide turns',
      opacity: 1,
      cue: 'c1',
    });
    const still = cadence('still', 'ferry.json', '--at', '1s', 'frame.png', '--height', '360');
    expect(still.json).toEqual({ file: 'frame.png', width: 640, height: 360 });
    expect(readFileSync(join(folder(), 'frame.png')).subarray(1, 4).toString()).toBe('PNG');
  });

  it('fails with 1 on an input that cannot be used, and writes nothing', () => {
    writeFileSync(join(folder(), 'letter.srt'), 'The Harbour Board has written to us twice.');
    writeFileSync(join(folder(), 'letter.wav'), 'The second one gave a date.');
    const before = readdirSync(folder()).sort();
    for (const args of [
      ['convert', 'letter.srt', 'out.vtt'],
      ['listen', 'letter.wav'],
      ['listen', 'nowhere.wav'],
      ['scene', 'letter.srt', '--at', '1s'],
      ['still', 'ferry.json', '--at', '1s', 'letter.srt/frame.png'],
      ['convert', 'song.vtt', 'letter.srt/song.srt'],
    ]) {
      const { status, json, stderr } = cadence(...args, '--json');
      expect([status, typeof json.error.kind, typeof json.error.message]).toEqual([
        1,
        'string',
        'string',
      ]);
      expect(stderr.trim().split('\n')).toHaveLength(1);
    }
    expect(readdirSync(folder()).sort()).toEqual(before);
  });

  it('fails with 2 on wrong usage, and shows an example when asked', () => {
    expect(cadence('sing').status).toBe(2);
    expect(cadence('read').status).toBe(2);
    expect(cadence('scene', 'ferry.json', '--at', 'noon').status).toBe(2);
    expect(cadence('convert', 'ferry.srt', 'ferry.doc').status).toBe(2);
    expect(cadence('read', '--help')).toMatchObject({
      status: 0,
      stdout: expect.stringContaining('cadence -- read'),
    });
  });
});
