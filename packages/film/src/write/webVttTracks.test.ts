import { renamed, renaming, withHeads } from './webVttTracks.ts';

const bytes = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
const ENTRY = '\x83\x81\x11\x86\x8dS_TEXT/WEBVTT\x63\xa2\x86WEBVTT\x53\x6e\x83abc';

it('gives cues their name and settings as the first lines of their text', () => {
  const text =
    'WEBVTT\n\n1\n00:00:01.000 --> 00:00:02.000 line:10%\nSlack water\nhold\n\n00:00:03.000 --> 00:00:04.000\nGulls\n';
  expect(withHeads(text)).toBe(
    'WEBVTT\n\n00:00:01.000 --> 00:00:02.000\n1\nline:10%\nSlack water\nhold\n\n00:00:03.000 --> 00:00:04.000\n-\nalign:center\nGulls\n',
  );
});

it('renames the codec in its entry, and nothing moves', () => {
  const out = renamed(bytes(ENTRY));
  expect(out).toHaveLength(ENTRY.length);
  expect(String.fromCharCode(...out)).toBe(
    '\x83\x81\x11\x86\x92D_WEBVTT/SUBTITLES\xec\x82\x00\x00\x53\x6e\x83abc',
  );
});

it('leaves all else as it is', () => {
  for (const text of ['', '\x86', 'a film', '\x86\x8dS_TEXT/WEBVTT\x53\x6e', '\x86\x85V_VP9']) {
    const data = bytes(text);
    expect(renamed(data)).toBe(data);
  }
});

it('passes on what is written, closed and given up', async () => {
  const got: string[] = [];
  const under = new WritableStream<{
    type: 'write';
    data: Uint8Array<ArrayBuffer>;
    position: number;
  }>({
    write: ({ data, position }) => void got.push(`${position}:${data.length}`),
    close: () => void got.push('closed'),
    abort: () => void got.push('given up'),
  });
  const writer = renaming(under).getWriter();
  await writer.write({ type: 'write', data: bytes(ENTRY), position: 7 });
  await writer.close();
  expect(got).toEqual([`7:${ENTRY.length}`, 'closed']);
});
