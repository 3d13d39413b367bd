import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { gunzipSync } from 'fflate';
import { fromSeconds, toSeconds, type Ticks } from '../time/ticks.ts';
import { acousticModelOf, DENSITIES, STATES, STREAMS, WIDTH } from './acousticModel.ts';
import { FILTERS, type Bands } from './cepstra.ts';
import { SURE } from './confidence.ts';
import type { Language } from './languages/language.ts';
import type { Remote } from '../listen/helper.ts';
import { weaveHelper, type WeaveHelper } from './helper.ts';
import { PinsCross, type Woven } from './woven.ts';
import { Weaver } from './weaver.ts';

const model = acousticModelOf(
  gunzipSync(readFileSync(fileURLToPath(new URL('../../acoustic/english.gz', import.meta.url)))),
);

/** A language of a few words, each said in one way. */
const WORDS: Readonly<Record<string, string>> = {
  heave: 'HH IY V',
  the: 'DH AH',
  chain: 'CH EY N',
  slack: 'S L AE K',
  water: 'W AO T ER',
  gulls: 'G AH L Z',
  shore: 'SH AO R',
  oil: 'OY L',
  bell: 'B EH L',
};
const language: Language = {
  own: true,
  readings: (token) => (token in WORDS ? [[token]] : []),
  sounds: (word) => [(WORDS[word] ?? '').split(' ')],
};

const LIFTER = 22;
const PER_STATE = 4;

/** The cepstra that a state of a phone alone expects most. */
function expected(phone: number, state: number): number[] {
  const senone = model.own[phone * STATES + state] as number;
  const weights = model.weights.subarray(senone * STREAMS * DENSITIES);
  let best = 0;
  for (let density = 1; density < DENSITIES; density++)
    if ((weights[density] as number) < (weights[best] as number)) best = density;
  const from = (phone * STREAMS * DENSITIES + best) * WIDTH;
  return Array.from(model.means.subarray(from, from + WIDTH));
}

/** Levels in bands whose cepstra these are. */
const levelsOf = (cepstra: readonly number[]): number[] =>
  Array.from({ length: FILTERS }, (_, band) =>
    cepstra.reduce((sum, value, row) => {
      const size = Math.sqrt((row === 0 ? 1 : 2) / FILTERS);
      const lift = 1 + (LIFTER / 2) * Math.sin((row * Math.PI) / LIFTER);
      return sum + (value / lift) * size * Math.cos((row * Math.PI * (band + 0.5)) / FILTERS);
    }, 12),
  );

/** What the model expects to hear of some words, "." for a fifth of a second of silence, and when each begins. */
function spoken(text: string): { bands: Bands; starts: number[] } {
  const frames: number[][] = [];
  const starts: number[] = [];
  const say = (phone: number, count: number) => {
    for (let state = 0; state < STATES; state++)
      for (let frame = 0; frame < count; frame++) frames.push(expected(phone, state));
  };
  for (const word of text.split(' ')) {
    if (word === '.') say(model.silence, 7);
    else {
      starts.push(frames.length / 100);
      for (const name of (WORDS[word] ?? '').split(' ')) say(model.phones.indexOf(name), PER_STATE);
    }
  }
  // A mouth does not jump from one sound to the next.
  const glided = frames.map((own, at) =>
    own.map((_, row) => {
      const near = frames.slice(Math.max(0, at - 2), at + 3);
      return near.reduce((sum, frame) => sum + (frame[row] ?? 0), 0) / near.length;
    }),
  );
  const levels = glided.flatMap(levelsOf);
  const seconds = frames.length / 100;
  return {
    bands: {
      levels: Float32Array.from(levels),
      firstMiddle: 0.0128,
      // As loud everywhere: edges stay where the model puts them.
      loudness: new Float32Array(Math.round(seconds * 400)).fill(40),
    },
    starts,
  };
}

const SAID = '. heave the chain . slack water gulls . the shore . oil the bell .';
const script = SAID.split(' ').filter((word) => word !== '.');
const heard = spoken(SAID);
const weaver = new Weaver(model, language);
await weaver.hear(heard.bands);
const startOf = ({ start }: { start: Ticks | null }) =>
  start === null ? null : Math.round(100 * toSeconds(start)) / 100;

describe('the weaver', () => {
  it('puts each word where the model expects it, in order', async () => {
    const woven = await weaver.weave(script);
    woven.forEach((word, at) => {
      expect(Math.abs((startOf(word) ?? 9) - (heard.starts[at] ?? 0))).toBeLessThan(0.1);
      expect(word.end).toBeGreaterThan(word.start ?? Infinity);
      expect(word.start).toBeGreaterThanOrEqual(woven[at - 1]?.end ?? 0);
    });
  });

  it('gives no time to what is not said, and keeps the rest', async () => {
    const other = ['heave', 'the', 'chain', 'bell', 'oil', 'shore', ...script.slice(3)];
    const woven = await weaver.weave(other);
    expect(woven.slice(3, 6).map(startOf)).toEqual([null, null, null]);
    woven.slice(6).forEach((word, at) => {
      expect(Math.abs((startOf(word) ?? 9) - (heard.starts[3 + at] ?? 0))).toBeLessThan(0.1);
    });
  });

  it('looks for words of a line again that come to lie far apart, and for no others', async () => {
    // The first word sounds long before its line too, where nothing is written.
    const said = spoken('. slack . . . . . . . . . . . . slack water gulls . the shore .');
    const singer = new Weaver(model, language);
    await singer.hear(said.bands);
    const words = 'slack water gulls the shore'.split(' ');
    const apart = await singer.weave(words);
    expect(Math.abs((startOf(apart[0] as Woven) ?? 9) - (said.starts[0] ?? 0))).toBeLessThan(0.1);
    const sung = await singer.weave(words, { lines: [0, 3] });
    expect(Math.abs((startOf(sung[0] as Woven) ?? 9) - (said.starts[1] ?? 0))).toBeLessThan(0.1);
    // A line that begins with the next word may wait for it.
    expect(await singer.weave(words, { lines: [0, 1, 3] })).toHaveLength(5);
    expect(await weaver.weave(script, { lines: [0, 3] })).toEqual(await weaver.weave(script));
  });

  it('begins a tapped word near its tap, and tells of its sounds', async () => {
    const said = spoken('. slack water . . . . slack water gulls . . . . slack water gulls .');
    const singer = new Weaver(model, language);
    await singer.hear(said.bands);
    const words = 'slack water gulls'.split(' ');
    const tapped = async (at: number) =>
      startOf(
        (await singer.weave(words, { taps: [{ index: 0, at: fromSeconds(at) }] }))[0] as Woven,
      );
    for (const place of [2, 5]) {
      const truth = said.starts[place] ?? 0;
      expect(Math.abs(((await tapped(truth + 0.1)) ?? 9) - truth)).toBeLessThan(0.1);
    }
    const [first] = await singer.weave(words);
    expect(first?.sounds?.map(({ name }) => name).join(' ')).toBe(WORDS.slack);
    expect(first?.sounds?.at(-1)?.end).toBeGreaterThan(first?.start ?? 0);
  });

  it('finds a line again where nothing is written, and none where nothing is sung', async () => {
    const words = 'heave the chain slack water gulls'.split(' ');
    const said = spoken('. heave the chain . slack water gulls . . . . heave the chain . . .');
    const singer = new Weaver(model, language);
    await singer.hear(said.bands);
    const lines = [0, 3];
    const woven = await singer.weave(words, { lines });
    const [again, ...more] = singer.repeats(words, woven, { lines });
    expect(again).toMatchObject({ from: 0, to: 3 });
    again?.woven.forEach((word, at) => {
      expect(Math.abs((startOf(word) ?? 9) - (said.starts[6 + at] ?? 0))).toBeLessThan(0.1);
    });
    expect(more).toEqual([]);
    expect(weaver.repeats(script, await weaver.weave(script), { lines: [0, 3] })).toEqual([]);
  });

  it('is not drawn into a line that is sung again among lines that are written', async () => {
    const chorus = 'slack water gulls the shore';
    const sung = spoken(
      `. heave the chain . ${chorus} . oil the bell . ${chorus} . heave the gulls .`,
    );
    const singer = new Weaver(model, language);
    await singer.hear(sung.bands);
    const words = `heave the chain ${chorus} oil the bell heave the gulls`.split(' ');
    const lines = [0, 3, 8, 11];
    const woven = await singer.weave(words, { lines });
    // The last line begins after the second chorus, which nobody wrote.
    const expected = [...sung.starts.slice(0, 11), ...sung.starts.slice(16)];
    woven.forEach((word, at) => {
      expect(Math.abs((startOf(word) ?? 9) - (expected[at] ?? 0))).toBeLessThan(0.1);
    });
    expect(singer.repeats(words, woven, { lines })).toMatchObject([{ from: 3, to: 8 }]);
  });

  it('leaves out a line that is not sung, and stands where its neighbour is', async () => {
    const sung = spoken('. heave the chain . slack water gulls . oil the bell .');
    const singer = new Weaver(model, language);
    await singer.hear(sung.bands);
    const words = 'heave the chain the slack gulls slack water gulls oil the bell'.split(' ');
    const woven = await singer.weave(words, { lines: [0, 3, 6, 9] });
    expect(woven.slice(3, 6).map(startOf)).toEqual([null, null, null]);
    [0, 1, 2, 6, 7, 8, 9, 10, 11].forEach((word, at) => {
      expect(Math.abs((startOf(woven[word] as Woven) ?? 9) - (sung.starts[at] ?? 0))).toBeLessThan(
        0.1,
      );
    });
  });

  it('has no time for signs, unless it is pinned', async () => {
    const with_ = ['heave', '—', ...script.slice(1)];
    expect((await weaver.weave(with_))[1]).toMatchObject({ start: null, end: null });
    const at = fromSeconds(0.37);
    expect((await weaver.weave(with_, { pins: [{ index: 1, start: at }] }))[1]).toMatchObject({
      start: at,
      end: at,
      source: 'pinned',
    });
  });

  it('honours pins to the tick, and nothing crosses them', async () => {
    const free = await weaver.weave(script);
    const start = ((free[4]?.start ?? 0) + 12_345_678) as Ticks;
    const woven = await weaver.weave(script, { pins: [{ index: 4, start }] });
    expect(woven[4]).toMatchObject({ start, source: 'pinned', confidence: 1 });
    expect(woven[3]?.end).toBeLessThanOrEqual(start);
    expect(woven[5]?.start).toBeGreaterThanOrEqual(woven[4]?.end ?? Infinity);
    expect(startOf(woven[9] ?? { start: null })).toBe(startOf(free[9] ?? { start: null }));
  });

  it('keeps a pin that leaves no room to be heard', async () => {
    const first = fromSeconds(0.3);
    const woven = await weaver.weave(script, {
      pins: [
        { index: 0, start: first },
        { index: 1, start: first },
      ],
    });
    expect(woven[0]).toMatchObject({ start: first, end: first, source: 'pinned' });
    expect(woven[1]?.start).toBe(first);
  });

  it('refuses pins that cross', async () => {
    const pins = [
      { index: 2, start: fromSeconds(1.5) },
      { index: 5, start: fromSeconds(0.4) },
    ];
    await expect(weaver.weave(script, { pins })).rejects.toThrow(PinsCross);
  });

  it('stays within the time that it is given', async () => {
    const [from, to] = [heard.starts[3] ?? 0, heard.starts[8] ?? 0];
    const range = { start: fromSeconds(from - 0.1), end: fromSeconds(to - 0.05) };
    const woven = await weaver.weave(script.slice(3, 8), { within: range });
    expect(
      woven.every(({ start, end }) => (start ?? 0) >= range.start && (end ?? 0) <= range.end),
    ).toBe(true);
    expect(Math.abs((startOf(woven[0] ?? { start: null }) ?? 9) - from)).toBeLessThan(0.1);
  });

  it('is sure of nothing in another script', async () => {
    const other = 'bell oil water shore gulls bell oil water slack gulls shore'.split(' ');
    const woven = await weaver.weave(other);
    expect(woven.filter(({ confidence }) => confidence >= SURE)).toEqual([]);
  });

  it('takes sound that is too short, or none', async () => {
    for (const frames of [0, 1, 5]) {
      const short = new Weaver(model, language);
      await short.hear({
        levels: heard.bands.levels.slice(0, frames * FILTERS),
        firstMiddle: 0.0128,
        loudness: heard.bands.loudness.slice(0, 4 * frames),
      });
      expect(await short.weave(script)).toHaveLength(script.length);
      expect(await short.weave([])).toEqual([]);
    }
  });
});

test('a weaver with a helper weaves what it does alone', async () => {
  const packed = readFileSync(fileURLToPath(new URL('../../acoustic/english.gz', import.meta.url)));
  const { bands } = spoken(
    Array.from({ length: 14 }, () => 'heave the chain . slack water . gulls the shore .').join(' '),
  );
  const words = Array.from({ length: 14 }, () => 'heave the chain slack water gulls the shore')
    .join(' ')
    .split(' ');
  const alone = new Weaver(model, language);
  await alone.hear(bands);
  const there = weaveHelper();
  const asked: number[] = [];
  const helper: Remote<WeaveHelper> = {
    open: async (bytes) => there.open(bytes),
    hear: async (voice) => there.hear(voice),
    heard: async (whole) => there.heard(whole),
    place: async (order) => {
      asked.push(order.stretches.length);
      return there.place(order);
    },
  };
  await helper.open(packed);
  const both = new Weaver(model, language);
  await both.hear(bands, { helper });
  expect(await both.weave(words, { helper })).toEqual(await alone.weave(words));
  // A few words are not worth the helper.
  await both.weave(words.slice(0, 3), { helper });
  expect(asked[0]).toBeGreaterThan(0);
});

test('words at the end of a script are found where they are said, not where chance has them', async () => {
  // Much more is said after the script ends, with pieces that are like its last words.
  const after = Array.from({ length: 12 }, () => 'oil . bell water oil').join(' . ');
  const { bands, starts } = spoken(`heave the chain . slack water . gulls the shore . ${after}`);
  const weaver = new Weaver(model, language);
  await weaver.hear(bands);
  const woven = await weaver.weave('heave the chain slack water gulls the shore'.split(' '));
  woven.forEach(({ start }, at) => {
    expect(Math.abs(toSeconds(start ?? (0 as Ticks)) - (starts[at] ?? Infinity))).toBeLessThan(0.2);
  });
});
