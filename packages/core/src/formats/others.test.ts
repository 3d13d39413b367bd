/** News feeds, timelines, lyrics in MIDI, words without times, and finding out what a file is. */
import { writeMidi, type MidiEvent } from 'midi-file';
import { parseRate, type FrameRate } from '../time/frameRate.ts';
import { toSeconds } from '../time/ticks.ts';
import { Unreadable } from './captions.ts';
import { readFeed } from './feed/read.ts';
import { FORMATS, formatNamed } from './formats.ts';
import { writeMarkdown } from './markdown/write.ts';
import { readOtio } from './otio/read.ts';
import { readFile } from './readFile.ts';
import { caption, latin, seen } from './samples.ts';
import { writeText } from './text/write.ts';

const target = { frameRate: parseRate('25') as FrameRate };

describe('news feeds', () => {
  it('reads RSS, its markup taken off, with dates in UTC', () => {
    const rss =
      '<rss version="2.0"><channel><title>Harbour Board</title><item><title>Winch &amp;amp; chain</title><description><![CDATA[<p>Out of <b>use</b>.</p><script>no()</script>]]></description><pubDate>Mon, 02 Feb 2026 09:30:00 +0100</pubDate></item><item><description>Only this</description><pubDate>soon</pubDate></item><item/></channel></rss>';
    const { items, title, warnings } = readFeed(rss);
    expect(title).toBe('Harbour Board');
    expect(items).toEqual([
      { title: 'Winch & chain', summary: 'Out of use.', at: '2026-02-02T08:30:00.000Z' },
      { title: 'Only this', summary: 'Only this' },
    ]);
    expect(warnings.map(({ kind }) => kind)).toEqual(['date', 'empty item']);
  });
  it('reads Atom by the types of its text', () => {
    const atom =
      '<feed xmlns="http://www.w3.org/2005/Atom"><title>Board</title><entry><title>1 &lt; 2</title><updated>2026-02-02T08:00:00Z</updated><content type="html">&lt;p&gt;Mind the gap.&lt;/p&gt;</content></entry><entry><title type="xhtml"><div xmlns="http://www.w3.org/1999/xhtml">Bell <em>oiled</em></div></title></entry></feed>';
    expect(readFeed(atom).items).toEqual([
      { title: '1 < 2', summary: 'Mind the gap.', at: '2026-02-02T08:00:00.000Z' },
      { title: 'Bell oiled' },
    ]);
  });
  it('keeps line breaks of HTML and XHTML, and takes blocks apart', () => {
    const xhtml =
      '<div xmlns="http://www.w3.org/1999/xhtml"><p>Winch<br/>and  chain</p><p>a &lt; b</p></div>';
    const atom = `<feed xmlns="http://www.w3.org/2005/Atom"><entry><title type="xhtml"><div xmlns="http://www.w3.org/1999/xhtml">Slack<br/>water</div></title><content type="xhtml">${xhtml}</content></entry></feed>`;
    expect(readFeed(atom).items).toEqual([
      { title: 'Slack water', summary: 'Winch\nand chain a < b' },
    ]);
    const rss =
      '<rss><channel><item><description>one&lt;br&gt;two&lt;br/&gt;</description></item></channel></rss>';
    expect(readFeed(rss).items).toEqual([{ title: 'one two', summary: 'one\ntwo' }]);
  });
  it('refuses other XML and empty feeds', () => {
    for (const text of ['<tt/>', '<rss><channel/></rss>', 'tide'])
      expect(() => readFeed(text)).toThrow(Unreadable);
  });
});

describe('timelines', () => {
  const time = (value: number) => ({ OTIO_SCHEMA: 'RationalTime.1', value, rate: 25 });
  const range = (start: number, length: number) => ({
    OTIO_SCHEMA: 'TimeRange.1',
    start_time: time(start),
    duration: time(length),
  });
  const marker = (name: string, start: number, length = 0) => ({
    OTIO_SCHEMA: 'Marker.2',
    name,
    marked_range: range(start, length),
  });
  const clip = (name: string, start: number, length: number, ...markers: object[]) => ({
    OTIO_SCHEMA: 'Clip.2',
    name,
    source_range: range(start, length),
    markers,
  });
  const timeline = (...children: object[]) =>
    JSON.stringify({
      OTIO_SCHEMA: 'Timeline.1',
      name: 'Ferry',
      tracks: {
        OTIO_SCHEMA: 'Stack.1',
        markers: [marker('title', 25, 50)],
        children: [{ OTIO_SCHEMA: 'Track.1', children }],
      },
    });

  it('puts clips and their markers where they stand, behind gaps and without transitions', () => {
    const { clips, markers, title } = readOtio(
      timeline(
        { OTIO_SCHEMA: 'Gap.1', source_range: range(0, 25) },
        clip('winch', 100, 50),
        { OTIO_SCHEMA: 'Transition.1', in_offset: time(5) },
        clip('bell', 250, 100, marker('rings', 300)),
      ),
    );
    expect(title).toBe('Ferry');
    expect(clips).toEqual([
      { start: 1, end: 3, text: 'winch' },
      { start: 3, end: 7, text: 'bell' },
    ]);
    expect(markers).toEqual([
      { start: 1, end: 3, text: 'title' },
      { start: 5, text: 'rings' },
    ]);
  });
  it('trims what is nested', () => {
    const inner = {
      OTIO_SCHEMA: 'Track.1',
      source_range: range(25, 50),
      children: [clip('winch', 0, 100, marker('sings', 50))],
    };
    const { clips, markers } = readOtio(timeline(clip('a', 0, 25), inner, clip('b', 0, 25)));
    expect(clips.map(({ start, text }) => [start, text])).toEqual([
      [0, 'a'],
      [1, 'winch'],
      [3, 'b'],
    ]);
    expect(markers.at(-1)).toEqual({ start: 2, text: 'sings' });
  });
  it('says what it left out, and refuses other JSON', () => {
    const { warnings } = readOtio(
      timeline({ OTIO_SCHEMA: 'Clip.2', name: 'a' }, { OTIO_SCHEMA: 'Odd.1' }),
    );
    expect(warnings.map(({ kind }) => kind)).toEqual(['clip', 'kind']);
    for (const text of ['{', '[]', '{}', '{"OTIO_SCHEMA":"Timeline.1"}'])
      expect(() => readOtio(text)).toThrow(Unreadable);
  });
  it('comes back as it was written', async () => {
    const captions = [caption(1, 2.48, 'Slack\nwater'), caption(3, 4, 'Gulls')];
    const written = formatNamed('otio')?.write(captions, target);
    const back = await readFile(latin(String(written?.content)), 'ferry.otio');
    expect(seen(back)).toEqual(seen({ captions }));
  });
});

describe('lyrics in MIDI', () => {
  const midi = (...lyrics: [number, string][]) =>
    Uint8Array.from(
      writeMidi({
        header: { format: 0, numTracks: 1, ticksPerBeat: 96 },
        tracks: [
          [
            { type: 'setTempo', meta: true, deltaTime: 0, microsecondsPerBeat: 500_000 },
            ...lyrics.map(([deltaTime, text]): MidiEvent => ({
              type: 'lyrics',
              meta: true,
              deltaTime,
              text,
            })),
          ],
        ],
      }),
    );
  it('joins syllables to words and words to lines', async () => {
    const bytes = midi([0, 'Slack '], [96, 'wa'], [96, 'ter\r'], [192, 'hold '], [96, 'on']);
    const { captions } = await readFile(bytes, 'song.mid');
    expect(seen({ captions }).map(([start, , text]) => [start, text])).toEqual([
      [0, 'Slack water'],
      [2, 'hold on'],
    ]);
    expect(captions[0]?.words?.map(({ text, start }) => [text, toSeconds(start)])).toEqual([
      ['Slack', 0],
      ['water', 0.5],
    ]);
  });
  it('takes each event for a word where nothing parts them but hyphens', async () => {
    const { captions } = await readFile(midi([0, 'Slack'], [96, 'wa-'], [96, 'ter']), 'song.mid');
    expect(seen({ captions }).map(([, , text]) => text)).toEqual(['Slack water']);
  });
});

describe('words without their times', () => {
  const captions = [
    caption(1, 2, [[{ text: 'Slack ', italic: true }, { text: '2*3' }], [{ text: 'water' }]]),
    caption(3, 4, [[{ text: 'Hold', bold: true, speaker: 'Hesper' }]]),
  ];
  it('are written as text', () => {
    const { text, lost } = writeText(captions);
    expect(text).toBe('Slack 2*3\nwater\n\nHold\n');
    expect(lost).toEqual([
      { kind: 'times', count: 2 },
      { kind: 'style', count: 2 },
      { kind: 'speaker', count: 1 },
    ]);
  });
  it('are written as Markdown with their styles', () => {
    expect(writeMarkdown(captions).text).toBe('*Slack* 2\\*3  \nwater\n\n**Hesper:** **Hold**\n');
  });
});

describe('finding out what a file is', () => {
  it.each([
    ['ferry.txt', '1\n00:00:01,000 --> 00:00:02,000\nTide', 'srt'],
    [
      'ferry.xml',
      '<?xml version="1.0"?>\n<!-- <p> -->\n<tt:tt xmlns:tt="http://www.w3.org/ns/ttml"><tt:body><tt:p begin="1s" end="2s">a</tt:p></tt:body></tt:tt>',
      'ttml',
    ],
    ['news.xml', '<rss><channel><item><title>a</title></item></channel></rss>', 'rss'],
    ['news', '<feed><entry><title>a</title></entry></feed>', 'atom'],
    ['a.doc', '{\\rtf1 Tide\\par}', 'rtf'],
    ['list.csv', 'Role,Name\nBell,Annis', 'csv'],
    ['list.md', '# Crew', 'md'],
    ['list', 'Just a line', 'txt'],
  ])('%s', async (name, text, format) => {
    expect((await readFile(latin(text), name)).format).toBe(format);
  });
  it('takes what it is told to be, in the encoding it is told', async () => {
    const bytes = Uint8Array.of(
      0x31,
      0x0a,
      ...latin('00:00:01,000 --> 00:00:02,000\n'),
      0xcf,
      0xe0,
    );
    const read = await readFile(bytes, 'a.txt', { as: 'srt', encoding: 'windows-1251' });
    expect([read.encoding, seen(read)[0]?.[2]]).toEqual(['windows-1251', 'Па']);
    await expect(readFile(bytes, 'a.srt', { encoding: 'klingon' })).rejects.toMatchObject({
      name: 'RangeError',
    });
  });
  it('refuses what is none of them, or empty', async () => {
    for (const bytes of [new Uint8Array(0), Uint8Array.of(1, 2, 3), latin('\u0001\u0002')])
      await expect(readFile(bytes, 'ferry.bin')).rejects.toThrow(Unreadable);
  });
  it('reads back all that it writes with times', async () => {
    const captions = [caption(1, 2.48, 'Slack\nwater'), caption(3, 4, 'Gulls')];
    for (const { name, read, write } of FORMATS) {
      if (!read || name === 'lrc') continue;
      const { content } = write(captions, target);
      const bytes = typeof content === 'string' ? latin(content.replace(/\r\n/g, '\n')) : content;
      expect(seen(await readFile(bytes, `ferry.${name}`))).toEqual(seen({ captions }));
    }
  });
});

describe('reading a long file', () => {
  it.each(['srt', 'vtt', 'ttml', 'stl'] as const)('tells how far it is: %s', async (name) => {
    const format = FORMATS.find((each) => each.name === name);
    const all = Array.from({ length: 12_000 }, (_, at) => caption(at, at + 0.9, `Link ${at}`));
    const { content = '' } = format?.write(all, { frameRate: parseRate('25') as FrameRate }) ?? {};
    const bytes = typeof content === 'string' ? latin(content) : content;
    const shares: number[] = [];
    const { captions } = await readFile(bytes, `long.${name}`, {
      onProgress: (share) => shares.push(share),
    });
    expect(captions).toHaveLength(12_000);
    expect(shares.length).toBeGreaterThan(1);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.every((share) => share >= 0 && share < 1)).toBe(true);
  });
});
