import fc from 'fast-check';
import { linesOf, plainText, type Line } from '../../text/lines.ts';
import { fromSeconds, toSeconds } from '../../time/ticks.ts';
import { Unreadable, type Caption, type Captions } from '../captions.ts';
import { recognised } from '../samples.ts';
import { readLrc } from './read.ts';
import { writeLrc } from './write.ts';

const seen = ({ captions }: Captions) =>
  captions.map(({ start, end, text }) => [toSeconds(start), toSeconds(end), plainText(text)]);
const timedWords = (caption: Caption | undefined) =>
  caption?.words?.map(({ text, start, end }) => [text, toSeconds(start), end && toSeconds(end)]);

/** A caption in seconds. */
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

describe('reading LRC', () => {
  it.each([
    [
      'lines until the next',
      '[00:01.00]Slack water,\n[00:04.5]hold the chain\n[00:06.00]\n',
      [
        [1, 4.5, 'Slack water,'],
        [4.5, 6, 'hold the chain'],
      ],
    ],
    [
      'a line that is sung twice',
      '[00:10.00][00:01.00]Slack water\n[00:02.00]\n[00:12.00]',
      [
        [1, 2, 'Slack water'],
        [10, 12, 'Slack water'],
      ],
    ],
    [
      'two lines of one time',
      '[00:01.00]Slack water\n[00:01.00]Eau étale\n[00:03.00]',
      [[1, 3, 'Slack water\nEau étale']],
    ],
    [
      'lines out of order',
      '[00:05.00]chain\n[00:01.00]hold\n[00:06.00]',
      [
        [1, 5, 'hold'],
        [5, 6, 'chain'],
      ],
    ],
    ['colons for points', '[01:02:50]hold\n[01:03:00]', [[62.5, 63, 'hold']]],
    ['thousandths', '[00:01.125]hold\n[00:02.250]', [[1.125, 2.25, 'hold']]],
    ['no fractions', '[00:01]hold\n[00:02]', [[1, 2, 'hold']]],
    ['hours of minutes', '[120:05.00]hold\n[120:06.00]', [[7205, 7206, 'hold']]],
    ['lines brought forward', '[offset:500]\n[00:01.00]hold\n[00:02.00]', [[0.5, 1.5, 'hold']]],
    ['lines held back', '[offset:-500]\n[00:01.00]hold\n[00:02.00]', [[1.5, 2.5, 'hold']]],
    ['an offset that is none', '[offset:soon]\n[00:01.00]hold\n[00:02.00]', [[1, 2, 'hold']]],
    ['a length of the song', '[length:00:09]\n[00:01.00]hold', [[1, 9, 'hold']]],
    [
      'a mark at the beginning and line ends of two',
      '\uFEFF[00:01.00]hold\r\n[00:02.00]\r\n',
      [[1, 2, 'hold']],
    ],
    [
      'brackets in the text',
      '[00:01.00]hold [all of you] the chain\n[00:02.00]',
      [[1, 2, 'hold [all of you] the chain']],
    ],
  ])('with %s', (_, text, expected) => {
    const read = readLrc(text);
    expect(seen(read)).toEqual(expected);
    expect(read.warnings).toEqual([]);
  });

  it('takes times of words, also where the line is sung again', () => {
    const read = readLrc(
      '[00:01.00][00:11.00]<00:01.00>Slack <00:01.50>water<00:01.90>\n[00:12.00]',
    );
    expect(seen(read).map(([, , text]) => text)).toEqual(['Slack water', 'Slack water']);
    expect(timedWords(read.captions[0])).toEqual([
      ['Slack', 1, 1.5],
      ['water', 1.5, 1.9],
    ]);
    expect(timedWords(read.captions[1])).toEqual([
      ['Slack', 11, 11.5],
      ['water', 11.5, 11.9],
    ]);
    // A word before the first time of a word begins with the line.
    expect(timedWords(readLrc('[00:01.00]Slack <00:01.50>water\n[00:02.00]').captions[0])).toEqual([
      ['Slack', 1, 1.5],
      ['water', 1.5, 2],
    ]);
  });

  it('keeps what the song is called, and every line as it stands', () => {
    const read = readLrc('[ti:Slack Water]\n[AR: The ferry choir ]\n[00:01.00]hold\n[00:02.00]');
    expect(read.metadata).toEqual({ ti: 'Slack Water', ar: 'The ferry choir' });
    expect(read.lines?.map(({ start, text }) => [toSeconds(start), text])).toEqual([
      [1, 'hold'],
      [2, ''],
    ]);
  });

  it('says what it had to guess, with the line, and leaves no text out in silence', () => {
    const read = readLrc('from a mail\n[00:01.00]hold\nthe chain\n\n[00:03.00]wait');
    expect(seen(read)).toEqual([
      [1, 3, 'hold\nthe chain'],
      [3, 8, 'wait'],
    ]);
    expect(read.warnings.map(({ kind, line }) => [kind, line])).toEqual([
      ['text without time', 1],
      ['text without time', 3],
      ['no end', 5],
    ]);
    expect(read.warnings[0]?.message).toContain('from a mail');
  });

  it('refuses what holds no times', () => {
    expect(() => readLrc('')).toThrow(Unreadable);
    expect(() => readLrc('[ti:Slack Water]\nhold the chain')).toThrow(Unreadable);
  });

  it('is recognised by its times and by its name', () => {
    expect(recognised('[ti:Slack]\n[00:01.00]hold', 'words.txt')).toBe('lrc');
    expect(recognised('', 'words.LRC')).toBe('lrc');
    expect(recognised('1\n00:00:01,000 --> 00:00:02,000\n[00:01] hold', 'a')).toBe('srt');
  });

  it('ends, whatever it is given', () => {
    const bits = fc.constantFrom(
      '[00:01.00]',
      '[',
      ']',
      '<00:02.00>',
      '<',
      'x',
      '\n',
      '[ti:',
      '99',
      ':',
      '.',
      '\0',
    );
    fc.assert(
      fc.property(fc.array(bits, { maxLength: 60 }), (parts) => {
        try {
          for (const { start, end } of readLrc(parts.join('')).captions)
            expect(end).toBeGreaterThanOrEqual(start);
        } catch (error) {
          expect(error).toBeInstanceOf(Unreadable);
        }
      }),
    );
    expect(() => readLrc('['.repeat(1_000_000))).toThrow(Unreadable);
    expect(readLrc(`[00:01.00]${'<00:01.00>'.repeat(50_000)}`).captions).toEqual([]);
  });
});

describe('writing LRC', () => {
  const bank = [
    caption(4, 6, 'wait for me'),
    caption(1, 4, 'Slack water,\nhold the chain'),
    caption(7, 8.256, 'the far bank'),
  ];

  it('writes no empty lines, and counts the ends that go with them', () => {
    expect(writeLrc(bank)).toEqual({
      text: '[00:01.00]Slack water,\n[00:01.00]hold the chain\n[00:04.00]wait for me\n[00:07.00]the far bank\n',
      lost: [{ kind: 'end time', count: 2 }],
    });
  });

  it('clears a line where the next does not follow at once, where that is asked for', () => {
    const { text, lost } = writeLrc(bank, { clearLines: true });
    expect(text).toBe(
      '[00:01.00]Slack water,\n[00:01.00]hold the chain\n[00:04.00]wait for me\n[00:06.00]\n' +
        '[00:07.00]the far bank\n[00:08.26]\n',
    );
    expect(lost).toEqual([]);
  });

  it('brings times of words back as they were', () => {
    const words = [
      { text: 'Slack', start: fromSeconds(1), end: fromSeconds(1.5) },
      { text: 'water,', start: fromSeconds(1.5), end: fromSeconds(1.9) },
      { text: 'hold', start: fromSeconds(2), end: fromSeconds(2.5) },
    ];
    const made = caption(1, 4, 'Slack water,\nhold on', { words });
    const { text } = writeLrc([made]);
    expect(text).toContain('[00:01.00]<00:01.00>Slack <00:01.50>water,<00:01.90>');
    const [back] = readLrc(text).captions;
    expect(plainText(back?.text ?? [])).toBe('Slack water,\nhold on');
    expect(timedWords(back)?.map(([word, start]) => [word, start])).toEqual([
      ['Slack', 1],
      ['water,', 1.5],
      ['hold on', 2],
    ]);
  });

  it('ends a word that ends before the next begins', () => {
    const words = [
      { text: 'Slack', start: fromSeconds(1), end: fromSeconds(1.2) },
      { text: 'water', start: fromSeconds(2), end: fromSeconds(3) },
    ];
    const { text, lost } = writeLrc([caption(1, 3, 'Slack water', { words })]);
    expect([text, lost]).toEqual([
      '[00:01.00]<00:01.00>Slack<00:01.20> <00:02.00>water<00:03.00>\n',
      [],
    ]);
    expect(readLrc(text).captions[0]?.words).toEqual(words);
  });

  it('leaves out text after the last time, which belongs to no line', () => {
    const read = readLrc(
      '[00:01.00]Slack water\nstill\n[00:04.00]hold\n\nTyped by the harbour office\n',
    );
    expect(seen(read).map(([, , text]) => text)).toEqual(['Slack water\nstill', 'hold']);
    expect(read.warnings.map(({ kind, line }) => [kind, line])).toEqual([
      ['text without time', 2],
      ['text without time', 5],
      ['no end', 3],
    ]);
    expect(read.warnings[1]?.message).toContain('harbour office');
  });

  it('counts what it cannot hold', () => {
    const styled: Line[] = [[{ text: 'hold', italic: true, colour: '#ff0000', speaker: 'Hesper' }]];
    const place = { across: 'left', down: 'top' } as const;
    const { lost } = writeLrc([
      { ...caption(1, 3, ''), text: styled, place, id: 'a' },
      caption(2, 4, 'at [00:10.00] sharp'),
      caption(5, 6, ''),
    ]);
    expect(Object.fromEntries(lost.map(({ kind, count }) => [kind, count]))).toEqual({
      style: 1,
      colour: 1,
      speaker: 1,
      place: 1,
      id: 1,
      overlap: 1,
      'end time': 1,
      'text like a time': 1,
      'empty caption': 1,
    });
  });

  it('brings back any text and times to a hundredth', () => {
    const line = fc
      .string({
        unit: fc.constantFrom('a', ' ', '[', ']', '<', '>', ':', '.', '7', 'é'),
        maxLength: 14,
      })
      .map((text) => `x${text}x`)
      .filter((text) => !/[[<][\d:.,]+[\]>]/.test(text));
    const spans = fc.array(
      fc.tuple(
        fc.integer({ min: 1, max: 400 }),
        fc.integer({ min: 0, max: 300 }),
        fc.array(line, { minLength: 1, maxLength: 2 }),
      ),
      { minLength: 1, maxLength: 8 },
    );
    fc.assert(
      fc.property(spans, (all) => {
        let at = 0;
        const made = all.map(([length, gap, lines]) => {
          const start = at + gap;
          at = start + length;
          return caption(start / 100, at / 100, lines.join('\n'));
        });
        const { text, lost } = writeLrc(made, { clearLines: true });
        expect(lost).toEqual([]);
        expect(seen(readLrc(text))).toEqual(seen({ captions: made, warnings: [] }));
      }),
    );
  });
});
