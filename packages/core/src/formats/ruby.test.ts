import { parseRate, type FrameRate } from '../time/frameRate.ts';
import type { Caption } from './captions.ts';
import { FORMATS } from './formats.ts';
import { caption } from './samples.ts';
import { readTtml } from './ttml/read.ts';
import { writeTtml } from './ttml/write.ts';
import { readVtt } from './vtt/read.ts';
import { writeVtt } from './vtt/write.ts';

const ferry: Caption = caption(1, 3, [
  [{ text: '渡', ruby: 'わた' }, { text: 'し' }, { text: '船', ruby: 'ぶね', italic: true }],
  [{ text: 'は来ない' }],
]);

describe('ruby', () => {
  it('goes through WebVTT and TTML as it is', () => {
    const vtt = writeVtt([ferry]);
    expect(vtt).toMatchObject({ lost: [] });
    expect(vtt.text).toContain('<ruby>渡<rt>わた</rt></ruby>し');
    expect(readVtt(vtt.text).captions[0]?.text).toEqual(ferry.text);
    const ttml = writeTtml([ferry]);
    expect(ttml).toMatchObject({ lost: [] });
    expect(readTtml(ttml.text).captions[0]?.text).toEqual(ferry.text);
  });
  it('is read in runs, with its end left out, and where containers hold several', () => {
    const read = (body: string) =>
      readVtt(`WEBVTT\n\n00:01.000 --> 00:02.000\n${body}`).captions[0]?.text;
    expect(read('<ruby>渡<rt>わた</rt>船<rt>ぶね</ruby>は')).toEqual([
      [{ text: '渡', ruby: 'わた' }, { text: '船', ruby: 'ぶね' }, { text: 'は' }],
    ]);
    expect(read('<ruby>渡し船</ruby><rt>x</rt>')).toEqual([[{ text: '渡し船x' }]]);
    const span = (kind: string, inner: string) => `<span tts:ruby="${kind}">${inner}</span>`;
    const container = span(
      'container',
      span('baseContainer', span('base', '渡') + span('base', '船')) +
        span('textContainer', span('text', 'わた') + span('text', 'ぶね')),
    );
    const { captions } = readTtml(
      `<tt xmlns="http://www.w3.org/ns/ttml" xmlns:tts="http://www.w3.org/ns/ttml#styling"><body><div><p begin="1s" end="2s">${container}</p></div></body></tt>`,
    );
    expect(captions[0]?.text).toEqual([
      [
        { text: '渡', ruby: 'わた' },
        { text: '船', ruby: 'ぶね' },
      ],
    ]);
  });
  it('is counted by every format that has no place for it', () => {
    const without = FORMATS.filter(({ write }) =>
      write([ferry], { frameRate: parseRate('25') as FrameRate }).lost.some(
        ({ kind }) => kind === 'ruby',
      ),
    ).map(({ name }) => name);
    const all = FORMATS.map(({ name }) => name).filter((name) => !['vtt', 'ttml'].includes(name));
    expect(without).toEqual(all);
  });
});

describe('text from right to left', () => {
  it('says so in TTML, and comes back as it was', () => {
    const hebrew = caption(1, 3, 'שלום, 1963');
    const { text } = writeTtml([hebrew, caption(4, 5, 'Slack water')]);
    expect(text.match(/tts:direction="rtl"/g)).toHaveLength(1);
    expect(readTtml(text).captions.map((each) => each.text)).toEqual([
      hebrew.text,
      [[{ text: 'Slack water' }]],
    ]);
  });
  it('keeps its direction from TTML where its letters do not say it', () => {
    const { captions } = readTtml(
      '<tt xmlns="http://www.w3.org/ns/ttml" xmlns:tts="http://www.w3.org/ns/ttml#styling"><body><div><p begin="1s" end="2s" tts:direction="rtl">BBQ שלום</p></div></body></tt>',
    );
    expect(captions[0]?.text).toEqual([[{ text: '\u200fBBQ שלום' }]]);
    expect(writeTtml(captions).text).toContain('tts:direction="rtl"');
    expect(readVtt(writeVtt(captions).text).captions[0]?.text).toEqual(captions[0]?.text);
  });
});
