import fc from 'fast-check';
import { fromXML } from 'imsc/src/main/js/doc.js';
import { generateISD } from 'imsc/src/main/js/isd.js';
import { Unreadable } from '../captions.ts';
import { caption, seen } from '../samples.ts';
import { toSeconds } from '../../time/ticks.ts';
import { readTtml } from './read.ts';
import { readTime, timeBaseOf } from './time.ts';
import { writeTtml } from './write.ts';

const NAMES =
  'xmlns="http://www.w3.org/ns/ttml" xmlns:ttp="http://www.w3.org/ns/ttml#parameter" xmlns:tts="http://www.w3.org/ns/ttml#styling" xmlns:ttm="http://www.w3.org/ns/ttml#metadata"';
const file = (body: string, parameters = '', head = '') =>
  `<?xml version="1.0"?><tt ${NAMES} ${parameters}><head>${head}</head><body>${body}</body></tt>`;
const read = (body: string, parameters = '', head = '') => readTtml(file(body, parameters, head));

describe('times of TTML', () => {
  const base = (more: object) => ({
    ...timeBaseOf({ name: 'tt', uri: '', attributes: [], children: [], line: 1 }, 25),
    ...more,
  });
  it.each([
    ['01:00:00.5', 3600.5],
    ['00:00:01:05', 1.2],
    ['12.5s', 12.5],
    ['1.5m', 90],
    ['2h', 7200],
    ['250ms', 0.25],
    ['50f', 2],
    ['3t', 3],
    ['123:00:00', 442_800],
  ])('%s', (text, seconds) => {
    const time = readTime(text, base({}));
    expect(time === undefined ? undefined : toSeconds(time)).toBeCloseTo(seconds, 6);
  });
  it.each(['', 'soon', '1:2', '-3s', '00:61:00', '12 s', '9e9s'])('%s is none', (text) => {
    expect(readTime(text, base({}))).toBeUndefined();
  });
  it('counts by the rates of the file', () => {
    const parameters =
      'ttp:frameRate="30" ttp:frameRateMultiplier="1000 1001" ttp:tickRate="10000000"';
    expect(seen(read('<div><p begin="30f" end="50000000t">Tide</p></div>', parameters))).toEqual([
      [expect.closeTo(1.001, 6), 5, 'Tide'],
    ]);
  });
  it('leaves out the frames that drop-frame timecode leaves out', () => {
    const drop = 'ttp:timeBase="smpte" ttp:dropMode="dropNTSC" ttp:frameRateMultiplier="1000 1001"';
    const [[start] = []] = seen(read('<p begin="00:01:00:02" end="00:02:00:02">Tide</p>', drop));
    expect(start).toBeCloseTo((1800 * 1001) / 30_000, 6);
  });
});

describe('reading TTML', () => {
  it('adds the times of what an element stands in, and ends with it', () => {
    const body =
      '<div begin="10s" end="15s"><p begin="1s" dur="2s">Hold</p><p begin="4s">Wait</p></div>';
    expect(seen(read(body))).toEqual([
      [11, 13, 'Hold'],
      [14, 15, 'Wait'],
    ]);
  });
  it('puts the parts of a sequence one after the other', () => {
    const body =
      '<div timeContainer="seq" begin="2s"><p dur="1s">Hold</p><p begin="0.5s" dur="2s">Wait</p></div>';
    expect(seen(read(body))).toEqual([
      [2, 3, 'Hold'],
      [3.5, 5.5, 'Wait'],
    ]);
  });
  it('follows styles by reference, through regions and inwards', () => {
    const head =
      '<styling><style xml:id="a" tts:fontStyle="italic"/><style xml:id="b" style="a" tts:color="#FF0000"/></styling>' +
      '<layout><region xml:id="up" tts:origin="10% 5%" tts:extent="80% 20%" tts:displayAlign="before" tts:textAlign="left"/></layout>';
    const { captions } = read(
      '<div><p region="up" begin="1s" end="2s" style="b">Slack <span tts:fontWeight="bold" tts:color="rgb(0,255,0)">water</span></p></div>',
      '',
      head,
    );
    expect(captions[0]).toMatchObject({
      place: { across: 'left', down: 'top' },
      text: [
        [
          { text: 'Slack ', italic: true, colour: '#ff0000' },
          { text: 'water', italic: true, bold: true, colour: '#00ff00' },
        ],
      ],
    });
  });
  it('takes agents as speakers, and white space as it is meant', () => {
    const head =
      '<metadata><ttm:agent xml:id="h" type="person"><ttm:name>Hesper</ttm:name></ttm:agent></metadata>';
    const body =
      '<p begin="1s" end="2s" ttm:agent="h">\n  Hold   the\n  chain <br/>  now\n</p><p xml:space="preserve" begin="3s" end="4s">a  b</p>';
    const result = read(body, '', head);
    expect(seen(result).map(([, , text]) => text)).toEqual(['Hold the chain\nnow', 'a  b']);
    expect(result.captions[0]?.text[0]?.[0]?.speaker).toBe('Hesper');
  });
  it('takes spans that begin one after the other as the times of words', () => {
    const { captions } = read(
      '<p begin="10s" end="13s"><span begin="0s">Slack</span> <span begin="1.5s">water</span></p>',
    );
    expect(captions).toHaveLength(1);
    expect(captions[0]?.words?.map(({ text, start }) => [text, toSeconds(start)])).toEqual([
      ['Slack', 10],
      ['water', 11.5],
    ]);
  });
  it('takes spans that come and go as captions of their own', () => {
    const body =
      '<p begin="0s" end="9s"><span begin="1s" end="2s">Hold</span><span begin="3s" end="4s">Wait</span></p>';
    expect(seen(read(body))).toEqual([
      [1, 2, 'Hold'],
      [3, 4, 'Wait'],
    ]);
  });
  it('reads prefixed elements, and frames at the rate that is usual where none is given', () => {
    const prefixed = `<x:tt xmlns:x="http://www.w3.org/ns/ttml"><x:body><x:div><x:p begin="00:00:01:12" end="00:00:02:00">Tide</x:p></x:div></x:body></x:tt>`;
    expect(seen(readTtml(prefixed, 25))).toEqual([[1.48, 2, 'Tide']]);
  });
  it('says what was wrong, and reads on', () => {
    const { warnings, ...result } = read(
      '<p begin="soon" end="2s">Hold</p><p begin="5s" end="4s">Back</p><p begin="6s">Long</p>',
    );
    expect(seen(result)).toEqual([
      [0, 2, 'Hold'],
      [5, 6, 'Back'],
      [6, 9, 'Long'],
    ]);
    expect(warnings.map(({ kind }) => kind)).toEqual(['time', 'end before start', 'no end']);
  });
  it('reads what is there of a file that is cut off, and expands no entity', () => {
    const cut = file('<p begin="1s" end="2s">Hold</p><p begin="3s" end="4s">Wait').slice(0, -14);
    expect(seen(readTtml(cut))).toHaveLength(2);
    const bomb = `<!DOCTYPE tt [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>${file('<p begin="1s" end="2s">x&b;x</p>').slice(21)}`;
    const result = readTtml(bomb);
    expect(seen(result)).toEqual([[1, 2, 'x&b;x']]);
    expect(result.warnings.map(({ kind }) => kind)).toContain('entities');
  });
  it('refuses what is no TTML, has no text, or is nested without end', () => {
    for (const text of ['', 'tide', '<rss/>', file('<div/>'), '<a>'.repeat(500)])
      expect(() => readTtml(text)).toThrow(Unreadable);
  });
});

describe('writing TTML', () => {
  it('brings back styles, colours, speakers, places and ids', () => {
    const captions = [
      caption(
        1,
        2.5,
        [
          [
            { text: 'Slack ', italic: true },
            { text: 'water', bold: true, underline: true, colour: '#ffff00' },
          ],
          [{ text: ' & <so>', speaker: 'Hesper' }],
        ],
        { id: 'opening', place: { across: 'left', down: 'top' } },
      ),
      caption(3, 4, 'Gulls', { place: { across: 'right', down: 'middle' } }),
    ];
    const { text, lost } = writeTtml(captions);
    expect(lost).toEqual([]);
    expect(readTtml(text)).toEqual({ captions, warnings: [] });
  });
  it('brings back the times of words', () => {
    const words = [
      { text: 'Slack', start: caption(1, 2, '').start, end: caption(1.25, 2, '').start },
      { text: 'water', start: caption(1.25, 2, '').start, end: caption(2, 2, '').start },
    ];
    const captions = [caption(1, 2, 'Slack water', { words })];
    expect(readTtml(writeTtml(captions).text).captions).toEqual(captions);
  });
  it('is read by another reader at the same times, without a complaint', () => {
    const said: string[] = [];
    const say = (message: string) => said.push(message) === 0;
    const handler = { info: say, warn: say, error: say, fatal: say };
    const { text } = writeTtml([
      caption(1, 2.48, [
        [{ text: 'Slack ', italic: true }, { text: 'water &' }],
        [{ text: 'tide' }],
      ]),
      caption(3, 4, [[{ text: 'Gulls', colour: '#ffff00', speaker: 'Hesper' }]], {
        id: 'gulls',
        place: { across: 'right', down: 'top' },
      }),
    ]);
    const read = fromXML(text, handler);
    const times = read.getMediaTimeEvents();
    const words = (node: ReturnType<typeof generateISD>): string =>
      (node.kind === 'br' ? '\n' : (node.text ?? '')) + (node.contents ?? []).map(words).join('');
    const shown = times.map((at) => [at, words(generateISD(read, at, handler)).trim()]);
    expect(shown).toEqual([
      [0, ''],
      [1, 'Slack water &\ntide'],
      [2.48, ''],
      [3, 'Gulls'],
      [4, ''],
    ]);
    expect(said).toEqual([]);
  });
  it('counts what it cannot hold', () => {
    const captions = [
      caption(1, 2, [[{ text: 'a', colour: '#ffffff' }]], { id: '7' }),
      caption(3, 4, ''),
    ];
    expect(
      writeTtml(captions)
        .lost.map(({ kind }) => kind)
        .sort(),
    ).toEqual(['colour', 'empty cue', 'id']);
  });
  it('brings back any text, and times to the thousandth', () => {
    const text = fc.string({
      unit: fc.constantFrom('a', ' ', '\n', '<', '&', '"', ']]>', 'é', 'م', '👩‍🔧'),
      minLength: 1,
      maxLength: 12,
    });
    fc.assert(
      fc.property(text, fc.nat(9e6), fc.integer({ min: 1, max: 9e6 }), (inner, from, length) => {
        const one = caption(from / 1000, (from + length) / 1000, `x${inner}x`);
        const [back] = readTtml(writeTtml([one]).text).captions;
        expect([back?.text, back?.start, back?.end]).toEqual([one.text, one.start, one.end]);
      }),
    );
  });
});
