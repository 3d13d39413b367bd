import fc from 'fast-check';
import webvtt from 'webvtt-parser';
import { linesOf, plainText } from '../text/lines.ts';
import { fromSeconds, toSeconds } from '../time/ticks.ts';
import { Unreadable, type Caption } from './captions.ts';
import { decodeText } from './decodeText.ts';
import { recognised } from './samples.ts';
import { readLrc } from './lrc/read.ts';
import { writeLrc } from './lrc/write.ts';
import { readSrt } from './srt/read.ts';
import { writeSrt } from './srt/write.ts';
import { readVtt } from './vtt/read.ts';
import { writeVtt } from './vtt/write.ts';

const caption = (
  start: number,
  end: number,
  text: string,
  more: Partial<Caption> = {},
): Caption => ({
  start: fromSeconds(start),
  end: fromSeconds(end),
  text: linesOf(text),
  ...more,
});
const texts = (captions: readonly Caption[]) => captions.map((each) => plainText(each.text));
const times = (captions: readonly Caption[]) =>
  captions.map((each) => [toSeconds(each.start), toSeconds(each.end)]);

describe('reading SRT', () => {
  it('takes numbers, times and lines', () => {
    const { captions, warnings } = readSrt(
      '1\n00:00:01,000 --> 00:00:02,500\nThe winch\nsings.\n\n2\n00:00:03,000 --> 00:00:04,000\nGulls.\n',
    );
    expect(texts(captions)).toEqual(['The winch\nsings.', 'Gulls.']);
    expect(times(captions)).toEqual([
      [1, 2.5],
      [3, 4],
    ]);
    expect(warnings).toEqual([]);
  });

  it('reads italics, colours and places', () => {
    const { captions } = readSrt(
      '1\n00:00:01,0 --> 00:00:02,0\n{\\an8}<i>Slack</i> <font color="#AABBCC">water</font> <3\n',
    );
    expect(captions[0]).toMatchObject({
      place: { across: 'centre', down: 'top' },
      text: [
        [
          { text: 'Slack', italic: true },
          { text: ' ' },
          { text: 'water', colour: '#aabbcc' },
          { text: ' <3' },
        ],
      ],
    });
  });

  it('keeps a text that is a number, and reads on without blank lines', () => {
    const { captions } = readSrt(
      '1\n00:00:01,000 --> 00:00:02,000\n1911\n2\n00:00:03.5 --> 00:00:04.25\nGrease\n',
    );
    expect(texts(captions)).toEqual(['1911\n2', 'Grease']);
    expect(times(captions)[1]).toEqual([3.5, 4.25]);
  });

  it('says what was wrong, where, and loses no text', () => {
    const { captions, warnings } = readSrt(
      'stray\n\n1\n00:00:02,000 --> 00:00:01,000\nBack\n\n2\n00:0x --> 00:00:05\nForth\n',
    );
    expect(texts(captions).join(' ')).toContain('Forth');
    // The start is kept; there is no next cue, so it lasts three seconds.
    expect(times(captions)).toEqual([[2, 5]]);
    expect(warnings.map(({ kind, line }) => [kind, line])).toEqual([
      ['text without time', 1],
      ['time', 8],
      ['end before start', 4],
    ]);
  });

  it('takes an arrow in a line of text for text', () => {
    const { captions, warnings } = readSrt(
      '1\n00:00:01,000 --> 00:00:02,000\nNorth --> bank\n--> this way\n\n2\n00:00:03,000 --> 00:00:04,000\n-->\n',
    );
    expect(texts(captions)).toEqual(['North --> bank\n--> this way', '-->']);
    expect(warnings).toEqual([]);
  });

  it('takes a broken number for the number, but a word for text', () => {
    const { captions, warnings } = readSrt(
      '1\n00:00:01,000 --> 00:00:02,000\nSlack\n\n2x\n00:00:03,000 --> 00:00:04,000\nwater\n\nGulls\n00:00:05,000 --> 00:00:06,000\nsing\n',
    );
    expect(texts(captions)).toEqual(['Slack', 'water\n\nGulls', 'sing']);
    expect(warnings).toMatchObject([{ kind: 'number', line: 5 }]);
  });

  it('refuses a text with no times at all', () => {
    expect(() => readSrt('The ferry\nat Skerrymoor')).toThrow(Unreadable);
  });
});

describe('reading WebVTT', () => {
  const source = `WEBVTT - ferry

NOTE nothing to see

STYLE
::cue { color: red }

opening
00:01.000 --> 00:02.000 line:10% align:start
<v Hesper>Slack <i>water</i> &amp; <c.yellow>tide</c>

00:00:03.000 --> 00:00:05.000
<00:00:03.000>The <00:00:03.500>chain <00:00:04.250>sings
`;

  it('follows the standard on notes, styles, settings, voices and stamps', () => {
    const { captions, warnings } = readVtt(source);
    expect(warnings).toEqual([]);
    expect(captions[0]).toMatchObject({
      id: 'opening',
      place: { across: 'left', down: 'top' },
      text: [
        [
          { text: 'Slack ', speaker: 'Hesper' },
          { text: 'water', italic: true, speaker: 'Hesper' },
          { text: ' & ', speaker: 'Hesper' },
          { text: 'tide', colour: '#ffff00', speaker: 'Hesper' },
        ],
      ],
    });
    expect(captions[1]?.words?.map((word) => [word.text, toSeconds(word.start)])).toEqual([
      ['The', 3],
      ['chain', 3.5],
      ['sings', 4.25],
    ]);
  });

  it('reads on after a broken time, and says so', () => {
    const { captions, warnings } = readVtt(
      'WEBVTT\n\n00:01 --> soon\nLost\n\n00:03.000 --> 00:04.000\nKept\n',
    );
    expect(texts(captions)).toEqual(['Kept']);
    expect(warnings).toMatchObject([
      { kind: 'time', line: 3, message: expect.stringContaining('Lost') },
    ]);
  });

  it('finds the same cues as an independent reader', () => {
    const peer = new webvtt.WebVTTParser().parse(source, 'metadata');
    expect(peer.cues.map((cue) => [cue.startTime, cue.endTime])).toEqual(
      times(readVtt(source).captions),
    );
  });
});

describe('writing', () => {
  const song = [
    caption(1, 2.04, 'Slack water,\nslack chain,'),
    caption(2.04, 3661.5, 'A < B & C > D --> E', { place: { across: 'right', down: 'top' } }),
    { ...caption(3662, 3664, ''), text: [[{ text: 'ours', italic: true, speaker: 'Hesper' }]] },
  ];

  it('SRT comes back as it was, but for the speaker and the position, which are counted', () => {
    const { text, lost } = writeSrt(song);
    expect(lost).toEqual([
      { kind: 'place', count: 1 },
      { kind: 'speaker', count: 1 },
    ]);
    expect(text).not.toContain('\\an');
    expect(writeSrt(song, { placeCodes: true })).toMatchObject({
      text: expect.stringContaining('{\\an9}A < B') as string,
      lost: [{ kind: 'speaker', count: 1 }],
    });
    const { captions, warnings } = readSrt(text.replace(/\r\n/g, '\n'));
    expect(warnings).toEqual([]);
    expect(times(captions)).toEqual(times(song));
    expect(texts(captions).slice(0, 2)).toEqual(texts(song).slice(0, 2));
    expect(captions[2]?.text).toEqual([[{ text: 'ours', italic: true }]]);
  });

  it('WebVTT comes back as it was, here and in an independent reader', () => {
    const { text, lost } = writeVtt(song);
    expect(lost).toEqual([]);
    expect(texts(readVtt(text).captions)).toEqual(texts(song));
    expect(readVtt(text).captions[1]?.place).toEqual(song[1]?.place);
    const peer = new webvtt.WebVTTParser().parse(text, 'metadata');
    expect(peer.errors).toEqual([]);
    expect(peer.cues.map((cue) => [cue.startTime, cue.endTime])).toEqual(times(song));
  });

  it('word stamps survive WebVTT', () => {
    const words = ['The', 'chain', 'sings'].map((text, at) => ({
      text,
      start: fromSeconds(1 + at / 2),
    }));
    const { text } = writeVtt([caption(1, 3, 'The chain\nsings', { words })]);
    expect(text).toContain('The <00:00:01.500>chain\n<00:00:02.000>sings');
    expect(readVtt(text).captions[0]?.words).toHaveLength(3);
  });

  it.each([
    ['SRT', writeSrt, readSrt],
    ['WebVTT', writeVtt, readVtt],
    ['LRC', writeLrc, readLrc],
  ] as const)('%s holds any text', (_, write, read) => {
    const line = fc
      .string({
        unit: fc.constantFrom('a', 'é', '7', '&', '>', ' ', '-', '\u05d0', '👩‍🔧'),
        maxLength: 12,
      })
      .map((text) => `x${text}x`.replace(/-+>+/g, ''));
    fc.assert(
      fc.property(
        fc.array(fc.array(line, { minLength: 1, maxLength: 3 }), { minLength: 1 }),
        (all) => {
          const made = all.map((lines, at) => caption(at, at + 0.9, lines.join('\n')));
          expect(texts(read(write(made).text.replace(/\r\n/g, '\n')).captions)).toEqual(
            texts(made),
          );
        },
      ),
    );
  });
});

describe('damaged files', () => {
  const bits = fc.constantFrom(
    'WEBVTT',
    '\n',
    '\n\n',
    '00:00:01,000',
    ' --> ',
    '00:00:02.000',
    '1',
    '<i>',
    '</b>',
    '<',
    '{\\an8}',
    '&amp',
    '\0',
    'tide',
    '\u{1F6A2}',
  );
  it.each([
    ['SRT', readSrt],
    ['WebVTT', readVtt],
  ] as const)('%s is read or refused with a sentence, never crashed on', (_, read) => {
    fc.assert(
      fc.property(fc.array(bits, { maxLength: 60 }), (parts) => {
        try {
          read(parts.join(''));
        } catch (error) {
          expect(error).toBeInstanceOf(Unreadable);
        }
      }),
      { numRuns: 2000 },
    );
  });

  it('with a line of a million characters is done at once', () => {
    expect(
      texts(readSrt(`1\n00:00:01,000 --> 00:00:02,000\n${'<i '.repeat(400_000)}`).captions)[0]
        ?.length,
    ).toBe(1_200_000);
    expect(
      readVtt(`WEBVTT\n\n00:01.000 --> 00:02.000\n${'<'.repeat(1_000_000)}`).captions,
    ).toHaveLength(1);
  });
});

describe('encodings', () => {
  const bytes = (...codes: number[]) => Uint8Array.from(codes);
  it.each([
    ['utf-8', bytes(0xef, 0xbb, 0xbf, 0x63, 0xc3, 0xa9)],
    ['utf-16le', bytes(0xff, 0xfe, 0x63, 0, 0xe9, 0)],
    ['utf-16be', bytes(0xfe, 0xff, 0, 0x63, 0, 0xe9)],
    ['utf-8', bytes(0x63, 0xc3, 0xa9)],
  ])('%s is found', (encoding, data) => {
    expect(decodeText(data)).toEqual({ text: 'cé', encoding });
  });

  it('falls back on Windows-1252 for old Western files', () => {
    const old = Uint8Array.from(
      [...'Le caf\xe9 est \x93ferm\xe9\x94 d\xe8s six heures, d\xe9j\xe0.'].map((c) =>
        c.charCodeAt(0),
      ),
    );
    expect(decodeText(old)).toEqual({
      text: 'Le café est “fermé” dès six heures, déjà.',
      encoding: 'windows-1252',
    });
  });

  it('is the one that is asked for', () => {
    expect(decodeText(bytes(0xe9), 'latin1').text).toBe('é');
  });
});

describe('recognising a format', () => {
  it('trusts the signature, then the name, then the arrows', () => {
    expect(recognised('WEBVTT\n', 'ferry.srt')).toBe('vtt');
    expect(recognised('1\n', 'ferry.srt')).toBe('srt');
    expect(recognised('1\n00:00:01,0 --> 00:00:02,0\nTide', 'ferry.txt')).toBe('srt');
    expect(recognised('Tide', 'ferry.txt')).toBe('txt');
    expect(() => recognised('\u0001\u0002', 'ferry.bin')).toThrow(Unreadable);
  });
});
