import fc from 'fast-check';
import { linesOf, plainText, type Line } from '../../text/lines.ts';
import { parseRate } from '../../time/frameRate.ts';
import { fromSeconds, toSeconds } from '../../time/ticks.ts';
import { Unreadable, type Caption, type Captions } from '../captions.ts';
import { recognised } from '../samples.ts';
import { readCsv } from './read.ts';
import { writeCsv } from './write.ts';

const seen = ({ captions }: Captions) =>
  captions.map(({ start, end, text }) => [toSeconds(start), toSeconds(end), plainText(text)]);
const one = [[1, 2.5, 'Slack water']];

describe('reading a table of cues', () => {
  it.each([
    ['commas', 'start,end,text\n1,2.5,Slack water\n'],
    ['semicolons and decimal commas', 'start;end;text\n1,0;2,5;Slack water\n'],
    ['tabs', 'Start\tEnd\tText\n1\t2.5\tSlack water'],
    ['bars', 'start|end|text\n1|2.5|Slack water\n'],
    [
      'other headings in another order',
      'Subtitle,Time Out,Time-In,Comment\nSlack water,2.5,1,slowly\n',
    ],
    ['an end in another language', 'Start;Ende;Text\n1,0;2,5;Slack water\n'],
    ['a text of another name', 'start,end,Zeile\n1,2.5,Slack water\n'],
    ['no headings', '1,2.5,Slack water\n'],
    ['clock times', 'in,out,caption\n00:00:01.000,"00:00:02,500",Slack water\n'],
    ['short clock times', 'start,end,text\n0:01,0:02.5,Slack water\n'],
    ['a length', 'start,duration,text\n1,1.5,Slack water\n'],
    ['a mark at the beginning and empty rows', '\uFEFFstart,end,text\n\n1,2.5,Slack water\n,,\n'],
    ['quotation marks', '"start","end","text"\n"1","2.5","Slack water"\n'],
  ])('with %s', (_, text) => {
    const read = readCsv(text);
    expect(seen(read)).toEqual(one);
    expect(read.warnings).toEqual([]);
  });

  it('takes timecodes by the frame rate that is said', () => {
    const text = 'start,end,text\n00:00:01:00,00:00:02:12,Slack water\n';
    expect(seen(readCsv(text))).toEqual([[1, 2.48, 'Slack water']]);
    const slow = parseRate('24000/1001');
    expect(slow && seen(readCsv(text, slow))[0]?.[1]).toBeCloseTo(2.5025, 4);
  });

  it('keeps speakers, ids, commas and line breaks', () => {
    const text = 'id,start,end,who,text\n7,1,2.5,Hesper,"Hold the chain,\nshe said ""now"""\n';
    const [caption] = readCsv(text).captions;
    expect(plainText(caption?.text ?? [])).toBe('Hold the chain,\nshe said "now"');
    expect([caption?.id, caption?.text[0]?.[0]?.speaker]).toEqual(['7', 'Hesper']);
  });

  it('reads what it can of a damaged table, and says of each row what was done', () => {
    const text =
      'start,end,text\n1,2,"Slack\nwater"\nsoon,3,Wait for me\n6,5,Turned round\n8,,No end\n9,10,Last\n';
    const read = readCsv(text);
    expect(seen(read)).toEqual([
      [1, 2, 'Slack\nwater'],
      [6, 8, 'Turned round'],
      [8, 9, 'No end'],
      [9, 10, 'Last'],
    ]);
    expect(read.warnings.map(({ kind, line }) => [kind, line])).toEqual([
      ['time', 4],
      ['end before start', 5],
      ['no end', 6],
    ]);
    expect(read.warnings[0]?.message).toContain('Wait for me');
    const open = readCsv('start,end,text\n1,2,"Slack water\n');
    expect([seen(open).length, open.warnings[0]?.kind]).toEqual([1, 'quotes']);
  });

  it('refuses a table without times', () => {
    expect(() => readCsv('Role,Name\nThe Miller,Orrin Dask\n')).toThrow(Unreadable);
    expect(() => readCsv('')).toThrow(Unreadable);
  });

  it('is recognised by its name, and TSV too', () => {
    expect(recognised('start,end,text\n1,2,a', 'cues.csv')).toBe('csv');
    expect(recognised('start\tend\ttext\n1\t2\ta', 'cues.TSV')).toBe('csv');
  });
});

describe('writing a table of cues', () => {
  const caption = (start: number, end: number, text: Line[], more: Partial<Caption> = {}) => ({
    start: fromSeconds(start),
    end: fromSeconds(end),
    text,
    ...more,
  });

  it('has a heading, seconds, and columns that are needed only', () => {
    expect(writeCsv([caption(1, 2.48, linesOf('Slack, "water"\nnow'))])).toEqual({
      text: 'start,end,text\r\n1,2.48,"Slack, ""water""\nnow"\r\n',
      lost: [],
    });
    const spoken = writeCsv([
      caption(1, 2, [[{ text: 'Hold', speaker: 'Hesper' }]], { id: 'a' }),
      caption(3, 4, linesOf('Wait')),
    ]);
    expect(spoken.text).toBe('start,end,text,speaker,id\r\n1,2,Hold,Hesper,a\r\n3,4,Wait,,\r\n');
  });

  it('counts what it cannot hold', () => {
    const text: Line[] = [
      [
        { text: 'Hold', italic: true, speaker: 'Hesper' },
        { text: 'no', colour: '#ff0000', speaker: 'Orrin' },
      ],
    ];
    const words = [{ text: 'Hold', start: fromSeconds(1) }];
    const { lost } = writeCsv([
      caption(1, 2, text, { words, place: { across: 'left', down: 'top' } }),
    ]);
    expect(lost.map(({ kind }) => kind).sort()).toEqual([
      'colour',
      'place',
      'second speaker',
      'style',
      'word times',
    ]);
  });

  it('brings back any text, and times to a millionth of a second', () => {
    const text = fc
      .string({
        unit: fc.constantFrom('a', ',', ';', '"', '\n', ' ', '=', '|', 'é', '👩‍🔧'),
        maxLength: 16,
      })
      .map((inner) => `x${inner}x`);
    const row = fc.tuple(fc.integer({ min: 0, max: 9e9 }), fc.integer({ min: 1, max: 1e7 }), text);
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 6 }), (all) => {
        const made = all.map(([start, length, words]) =>
          caption(start / 1e6, (start + length) / 1e6, linesOf(words)),
        );
        const back = readCsv(writeCsv(made).text.replace(/\r\n/g, '\n'));
        expect(back.warnings).toEqual([]);
        back.captions.forEach(({ start, end, text: lines }, at) => {
          expect(Math.abs(toSeconds(start) - toSeconds(made[at]?.start ?? start))).toBeLessThan(
            1e-6,
          );
          expect(Math.abs(toSeconds(end) - toSeconds(made[at]?.end ?? end))).toBeLessThan(1e-6);
          expect(plainText(lines)).toBe(plainText(made[at]?.text ?? []));
        });
        expect(back.captions).toHaveLength(made.length);
      }),
    );
  });
});
