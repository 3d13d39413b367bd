import fc from 'fast-check';
import { Unreadable } from '../captions.ts';
import { caption, latin, seen } from '../samples.ts';
import { plainText } from '../../text/lines.ts';
import { parseRate, type FrameRate } from '../../time/frameRate.ts';
import { fromSeconds } from '../../time/ticks.ts';
import { decodeTable, encodeCharacter } from './codePages.ts';
import { readStl } from './read.ts';
import { writeStl } from './write.ts';

const target = { frameRate: parseRate('25') as FrameRate };
const made = new Date('2026-02-03T00:00:00Z');
const bytesOf = (...captions: ReturnType<typeof caption>[]) =>
  writeStl(captions, { ...target, start: fromSeconds(36_000), title: 'The Ferry' }, made).bytes;
const TEXT = 1024 + 16;
/** A file of one subtitle whose text field begins with these bytes. */
function withText(...bytes: number[]): Uint8Array {
  const file = bytesOf(caption(1, 2, 'x'));
  file.fill(0x8f, TEXT, TEXT + 112);
  file.set(bytes, TEXT);
  return file;
}
const spansOf = (file: Uint8Array) => readStl(file).captions[0]?.text;

describe('code table 00', () => {
  it('puts marks on the letter after them', () => {
    const bytes = Uint8Array.of(0xc2, 0x45, 0x6c, 0xc8, 0x6f, 0xec, 0xf1, 0xd5, 0xaa, 0xba, 0x24);
    expect(decodeTable(bytes, '00')).toBe('ÉlöÞæ♪“”$');
  });
  it('has each of its letters both ways', () => {
    for (const letter of 'aZ~€éßØłœŒğňőąÇ½♪„'.replace(/[€„]/g, '')) {
      const bytes = encodeCharacter(letter, '00');
      expect(bytes && decodeTable(Uint8Array.from(bytes), '00')).toBe(letter);
    }
    expect(encodeCharacter('€', '00')).toBeUndefined();
  });
});

describe('reading EBU STL', () => {
  it('counts from the start of the programme that the file names', () => {
    const result = readStl(bytesOf(caption(1, 2.48, 'Slack\nwater'), caption(3, 4, 'Gulls')));
    expect(seen(result)).toEqual([
      [1, 2.48, 'Slack\nwater'],
      [3, 4, 'Gulls'],
    ]);
    expect(result.metadata).toEqual({
      frameRate: '25',
      startTimecode: '10:00:00:00',
      title: 'The Ferry',
    });
  });
  it('counts from midnight where cues lie before that start, and from another where it is asked to', () => {
    const file = bytesOf(caption(1, 2, 'Hold'));
    file.set(latin('11000000'), 256);
    const result = readStl(file);
    expect(seen(result)[0]?.[0]).toBe(36_001);
    expect(result.warnings[0]?.kind).toBe('start');
    expect(seen(readStl(file, fromSeconds(36_000)))[0]?.[0]).toBe(1);
  });
  it('reads italics, underlines, colours of teletext and lines of double height', () => {
    const letters = (text: string) => [...latin(text)];
    expect(spansOf(withText(...letters('A '), 0x80, ...letters('b'), 0x81))).toEqual([
      [{ text: 'A ' }, { text: 'b', italic: true }],
    ]);
    const teletext = [
      0x0d,
      0x0b,
      0x0b,
      0x03,
      ...letters('Hold'),
      0x07,
      ...letters('on'),
      0x0a,
      0x0a,
    ];
    expect(spansOf(withText(...teletext, 0x8a, 0x8a, 0x0d, ...letters('now')))).toEqual([
      [{ text: 'Hold ', colour: '#ffff00' }, { text: 'on' }],
      [{ text: 'now' }],
    ]);
  });
  it('joins the blocks of one subtitle, and leaves out comments and the data of users', () => {
    const long = caption(1, 4, `${'tide and slack water '.repeat(9)}end`);
    const file = bytesOf(caption(0, 0.4, 'A note'), long, caption(5, 6, 'Gulls'));
    file[1024 + 15] = 1;
    file[file.length - 128 + 3] = 0xfe;
    const result = readStl(file);
    expect(seen(result)).toEqual([[1, 4, `${'tide and slack water '.repeat(9)}end`]]);
    expect(result.warnings.map(({ kind }) => kind)).toEqual(['comment']);
  });
  it('reads Cyrillic, Greek, Hebrew and Arabic by their tables', () => {
    for (const text of ['Паром', 'Πορθμείο', 'מעבורת', 'عبارة'])
      expect(seen(readStl(bytesOf(caption(1, 2, text))))).toEqual([[1, 2, text]]);
  });
  it('reads what is whole of a damaged file, and says what was wrong', () => {
    const file = bytesOf(caption(1, 2, 'Hold'), caption(3, 4, 'Wait'));
    file[1024 + 8] = 99;
    file.set(latin('77'), 12);
    const result = readStl(file.subarray(0, file.length - 5));
    expect(seen(result).map(([, , text]) => text)).toEqual(['Hold']);
    expect(result.warnings.map(({ kind }) => kind)).toEqual(
      expect.arrayContaining(['code table', 'cut off', 'time']),
    );
  });
  it('refuses other bytes', () => {
    for (const bytes of [new Uint8Array(0), latin('tide'), bytesOf()])
      expect(() => readStl(bytes)).toThrow(Unreadable);
  });
});

describe('writing EBU STL', () => {
  it('has its figures where the standard puts them', () => {
    const file = bytesOf(caption(1, 2, 'Hold'), caption(3, 4.04, 'Wait'));
    const field = (from: number, to: number) => String.fromCharCode(...file.subarray(from, to));
    expect([field(0, 14), field(224, 230), field(238, 248), field(256, 272)]).toEqual([
      '850STL25.01000',
      '260203',
      '0000200002',
      '1000000010000100',
    ]);
    expect([...file.subarray(1024 + 128, 1024 + 128 + 16)]).toEqual([
      ...[0, 1, 0, 0xff, 0, 10, 0, 3, 0, 10, 0, 4, 1, 22, 2, 0],
    ]);
  });
  it('brings back places, italics, and the eight colours where nothing is in italics', () => {
    const placed = caption(1, 2, [[{ text: 'Hold', italic: true, underline: true }]], {
      place: { across: 'left', down: 'top' },
    });
    expect(readStl(bytesOf(placed)).captions).toEqual([placed]);
    const coloured = caption(1, 2, [[{ text: 'Hold ', colour: '#00ffff' }, { text: 'on' }]]);
    expect(readStl(bytesOf(coloured)).captions).toEqual([coloured]);
  });
  it('counts what it cannot hold', () => {
    const { lost } = writeStl(
      [
        caption(1, 2, [[{ text: 'a€', bold: true, speaker: 'Hesper', colour: '#123456' }]], {
          id: 'a',
          words: [{ text: 'a', start: fromSeconds(1) }],
        }),
        caption(3, 4, ''),
      ],
      target,
    );
    expect(lost.map(({ kind }) => kind).sort()).toEqual([
      ...['bold', 'colour', 'empty cue', 'id', 'letter', 'speaker', 'word times'],
    ]);
  });
  it('writes the plain twin of a letter that the table lacks, and says where', () => {
    const made = [caption(1, 2, 'Å – ł…'), caption(3, 4, 'a ♪ Ω'), caption(5, 6, 'plain')];
    const { bytes, lost } = writeStl(made, target);
    expect(readStl(bytes).captions.map(({ text }) => plainText(text))).toEqual([
      'Å - ł...',
      'a ♪ Ω',
      'plain',
    ]);
    expect(lost).toEqual([
      {
        kind: 'letter',
        count: 1,
        detail: '“–” becomes “-” at 00:00:01:00, “…” becomes “...” at 00:00:01:00',
      },
    ]);
  });
  it('brings back any Latin text, and times to the frame', () => {
    const text = fc.string({
      unit: fc.constantFrom('a', 'é', 'Þ', 'ł', ' ', '\n', '“', '$', 'ő', '½'),
      maxLength: 140,
    });
    fc.assert(
      fc.property(text, fc.nat(80_000), fc.integer({ min: 1, max: 500 }), (inner, from, length) => {
        const one = caption(from / 25, (from + length) / 25, `x${inner}x`);
        const [back] = readStl(bytesOf(one)).captions;
        const tidy = one.text.map((line) =>
          line.map((span) => span.text.trim()).filter((part) => part !== ''),
        );
        expect(back?.text.map((line) => line.map((span) => span.text))).toEqual(tidy);
        expect([back?.start, back?.end]).toEqual([one.start, one.end]);
      }),
    );
  });
});
