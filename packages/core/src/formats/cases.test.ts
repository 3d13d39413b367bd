/** Files as people have them: a table of small cases, each with what must come of it. */
import { plainText } from '../text/lines.ts';
import { fromSeconds, toSeconds } from '../time/ticks.ts';
import type { Captions } from './captions.ts';
import { writeClock } from './clock.ts';
import { readColour } from './markup.ts';
import { readSrt } from './srt/read.ts';
import { writeSrt } from './srt/write.ts';
import { readVtt } from './vtt/read.ts';
import { writeVtt } from './vtt/write.ts';

const seen = ({ captions }: Captions) =>
  captions.map((each) => [toSeconds(each.start), toSeconds(each.end), plainText(each.text)]);

describe('SRT', () => {
  it.each([
    ['a mark at the beginning', '\uFEFF1\n00:00:01,000 --> 00:00:02,000\nTide', [[1, 2, 'Tide']]],
    [
      'no numbers',
      '00:00:01,000 --> 00:00:02,000\nTide\n\n00:00:03,000 --> 00:00:04,000\nGulls',
      [
        [1, 2, 'Tide'],
        [3, 4, 'Gulls'],
      ],
    ],
    [
      'repeated numbers',
      '1\n00:00:01,000 --> 00:00:02,000\nTide\n\n1\n00:00:03,000 --> 00:00:04,000\nGulls',
      [
        [1, 2, 'Tide'],
        [3, 4, 'Gulls'],
      ],
    ],
    ['points for commas', '1\n00:00:01.250 --> 00:00:02.5\nTide', [[1.25, 2.5, 'Tide']]],
    ['no fraction', '1\n00:00:01 --> 00:00:02\nTide', [[1, 2, 'Tide']]],
    ['no hours', '1\n01:01,000 --> 01:02,000\nTide', [[61, 62, 'Tide']]],
    ['a hundred hours', '1\n100:00:01,000 --> 100:00:02,000\nTide', [[360_001, 360_002, 'Tide']]],
    [
      'places after the times',
      '1\n00:00:01,000 --> 00:00:02,000 X1:10 X2:20\nTide',
      [[1, 2, 'Tide']],
    ],
    [
      'blank lines around the text',
      '1\n00:00:01,000 --> 00:00:02,000\n\nTide\n\n\n\n2\n00:00:03,000 --> 00:00:04,000\nGulls\n\n',
      [
        [1, 2, 'Tide'],
        [3, 4, 'Gulls'],
      ],
    ],
    [
      'a blank line inside the text',
      '1\n00:00:01,000 --> 00:00:02,000\nTide\n\nand gulls\n',
      [[1, 2, 'Tide\n\nand gulls']],
    ],
    ['tags that are not closed', '1\n00:00:01,000 --> 00:00:02,000\n<i>Tide', [[1, 2, 'Tide']]],
    [
      'tags that are none',
      '1\n00:00:01,000 --> 00:00:02,000\n<3 the <tide>',
      [[1, 2, '<3 the <tide>']],
    ],
  ])('with %s is read', (_, text, expected) => {
    expect(seen(readSrt(text))).toEqual(expected);
  });

  it('writes an empty line inside a text so that it comes back in one piece', () => {
    const read = readSrt('1\n00:00:01,000 --> 00:00:02,000\nTide\n\nand gulls\n');
    const again = readSrt(writeSrt(read.captions).text.replace(/\r\n/g, '\n'));
    expect(again.captions).toHaveLength(1);
    expect(plainText(again.captions[0]?.text ?? [])).toBe('Tide\n\u00a0\nand gulls');
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8, 9])('keeps the place %i', (key) => {
    const text = `1\r\n00:00:01,000 --> 00:00:02,000\r\n${key === 2 ? '' : `{\\an${key}}`}Tide\r\n`;
    const { captions } = readSrt(text.replace(/\r\n/g, '\n'));
    expect(writeSrt(captions, { placeCodes: true }).text).toBe(text);
  });
});

describe('WebVTT', () => {
  it.each([
    ['a header with text', 'WEBVTT Ferry\n\n00:01.000 --> 00:02.000\nTide', [[1, 2, 'Tide']]],
    [
      'header lines below the signature',
      'WEBVTT\nKind: captions\n\n00:01.000 --> 00:02.000\nTide',
      [[1, 2, 'Tide']],
    ],
    [
      'cues that follow without a blank line',
      'WEBVTT\n\n00:01.000 --> 00:02.000\nTide\n00:03.000 --> 00:04.000\nGulls',
      [
        [1, 2, 'Tide'],
        [3, 4, 'Gulls'],
      ],
    ],
    [
      'regions and comments',
      'WEBVTT\n\nREGION\nid:bank\n\nNOTE\nnot --this\n\n00:01.000 --> 00:02.000\nTide',
      [[1, 2, 'Tide']],
    ],
    [
      'characters written as entities',
      'WEBVTT\n\n00:01.000 --> 00:02.000\n&lt;tide&gt; &amp; &#103;ulls&nbsp;&unknown;',
      [[1, 2, '<tide> & gulls\u00a0&unknown;']],
    ],
    [
      'classes and languages',
      'WEBVTT\n\n00:01.000 --> 00:02.000\n<c.loud><lang en>Tide</lang></c>',
      [[1, 2, 'Tide']],
    ],
    ['no signature', '00:01.000 --> 00:02.000\nTide', [[1, 2, 'Tide']]],
    ['long hours', 'WEBVTT\n\n100:00:01.000 --> 100:00:02.000\nTide', [[360_001, 360_002, 'Tide']]],
  ])('with %s is read', (_, text, expected) => {
    expect(seen(readVtt(text))).toEqual(expected);
  });

  it.each([
    '00:01.00 --> 00:02.000',
    '0:01.000 --> 0:02.000',
    '00:61.000 --> 00:62.000',
    '00:01.000 -> 00:02.000 -->',
  ])('drops a cue timed %s, as the standard does, and says so', (times) => {
    const { captions, warnings } = readVtt(`WEBVTT\n\n${times}\nTide\n`);
    expect([captions.length, warnings.length]).toEqual([0, 1]);
  });

  it('counts a colour that has no name in the format', () => {
    const red = {
      ...readVtt('WEBVTT\n\n00:01.000 --> 00:02.000\nTide').captions[0],
      text: [[{ text: 'Tide', colour: '#a63d2f' }]],
    };
    expect(writeVtt([red as never]).lost).toEqual([{ kind: 'colour', count: 1 }]);
  });
});

describe('small parts', () => {
  it('write clocks to the nearest thousandth', () => {
    expect(writeClock(fromSeconds(3599.9996), ',')).toBe('01:00:00,000');
    expect(writeClock(fromSeconds(-1), '.')).toBe('00:00:00.000');
  });

  it('know colours by name and by number', () => {
    expect(['"Red"', '#AABBCC', 'teal', 'ferry', 'rgb(1,2,3)'].map(readColour)).toEqual([
      '#ff0000',
      '#aabbcc',
      '#008080',
      undefined,
      undefined,
    ]);
  });
});
