import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { commandLine, demo } from './commandLine.samples.ts';

const { cadence, folder } = commandLine();

describe('weaving the narration', () => {
  const sound = join(demo, 'narration-hesper.opus');
  const { phrases } = JSON.parse(readFileSync(join(demo, 'phrases.json'), 'utf8')) as {
    phrases: { text: string; start: number; end: number }[];
  };
  interface WovenJson {
    index: number;
    text: string;
    start: number | null;
    end: number | null;
    confidence: number;
    source: string;
  }
  const weave = (script: string, ...more: string[]) => {
    writeFileSync(join(folder(), 'script.txt'), script);
    return cadence('weave', sound, 'script.txt', '--json', ...more);
  };
  const wordsGiven = (given: ReturnType<typeof cadence>) =>
    (given.json as { words: WovenJson[] }).words;
  const tokens = (text: string) => text.split(/\s+/);
  const all = phrases.map(({ text }) => text).join('\n');

  it('gives every word its time, and is sure of most', () => {
    const woven = weave(all);
    const words = wordsGiven(woven);
    expect(words.map(({ text }) => text)).toEqual(tokens(all));
    words.forEach(({ index, start, end, source }, at) => {
      expect([index, source]).toEqual([at, 'woven']);
      expect(end).toBeGreaterThan(start ?? Infinity);
      expect(start).toBeGreaterThanOrEqual(words[at - 1]?.end ?? 0);
    });
    let at = 0;
    const off = phrases.map(({ text, start }) => {
      const first = words[at]?.start ?? Infinity;
      at += tokens(text).length;
      return Math.abs(first - start);
    });
    expect(off.filter((error) => error <= 0.1).length / off.length).toBeGreaterThan(0.95);
    const sure = words.filter(({ confidence }) => confidence > 0.9);
    expect(sure.length / words.length).toBeGreaterThan(0.85);
    expect((woven.json as { pieces: unknown[] }).pieces).toHaveLength(39);
  });

  it('says which words were not said, and goes past what is not written', () => {
    const [first, second, third, ...rest] = phrases.map(({ text }) => text);
    const other = [first, 'Seventeen wooden umbrellas', second, ...rest].join('\n');
    const words = wordsGiven(weave(other));
    const extra = words.slice(tokens(first ?? '').length).slice(0, 3);
    expect(extra.map(({ start, end }) => [start, end])).toEqual(Array(3).fill([null, null]));
    // What comes after the phrase that is missing still lies where it is said.
    const next = tokens([first, 'Seventeen wooden umbrellas', second].join(' ')).length;
    expect(third).toBeDefined();
    expect(Math.abs((words[next]?.start ?? 0) - (phrases[3]?.start ?? 0))).toBeLessThan(0.1);
  });

  it('doubts a script of another sound throughout', () => {
    const words = wordsGiven(
      weave(
        'To build this kite you need two sticks, a sheet of strong paper, some glue and a ball of thin string. ' +
          'The first stick should be ninety centimetres long, and the second one seventy five. ' +
          'Lay the short stick across the long one and check that the corners are square.',
      ),
    );
    expect(words.filter(({ confidence }) => confidence > 0.9)).toHaveLength(0);
  });

  it('honours pins to the last figure', () => {
    const free = wordsGiven(weave(all));
    const moved = (index: number, side: 'start' | 'end', by: number) =>
      Number(((free[index]?.[side] ?? 0) + by).toFixed(6));
    const pins: { index: number; start: number; end?: number }[] = [
      { index: 10, start: moved(10, 'start', 0.051_234) },
      { index: 12, start: moved(12, 'start', -0.04), end: moved(12, 'end', 0.03) },
    ];
    writeFileSync(join(folder(), 'pins.json'), JSON.stringify(pins));
    const words = wordsGiven(weave(all, '--pins', 'pins.json'));
    for (const { index, start, end } of pins) {
      expect(words[index]).toMatchObject({ source: 'pinned', confidence: 1 });
      expect(words[index]?.start).toBeCloseTo(start, 6);
      if (end !== undefined) expect(words[index]?.end).toBeCloseTo(end, 6);
    }
    expect(words[9]?.end).toBeLessThanOrEqual(words[10]?.start ?? 0);
    expect(words[11]?.start).toBeGreaterThanOrEqual(words[10]?.end ?? Infinity);
    expect(words[11]?.end).toBeLessThanOrEqual(words[12]?.start ?? 0);
    expect(words[13]?.start).toBeGreaterThanOrEqual(words[12]?.end ?? Infinity);
    // Far from them nothing moves.
    expect(Math.abs((words[60]?.start ?? 0) - (free[60]?.start ?? 9))).toBeLessThan(0.03);
  });

  it.each([
    ['no json', 'no JSON'],
    ['{}', 'no list'],
    ['[{"index": 900}]', 'index of a word'],
    ['[{"index": 3, "start": "soon"}]', 'no number of seconds'],
    ['[{"index": 3, "start": 5, "end": 4}]', 'ends before'],
    ['[{"index": 3, "start": 9}, {"index": 5, "start": 4}]', 'earlier word'],
  ])('refuses the pins %s', (pins, message) => {
    writeFileSync(join(folder(), 'wrong.json'), pins);
    const { status, json } = weave(all, '--pins', 'wrong.json');
    expect(status).toBe(1);
    expect(json).toMatchObject({ error: { kind: 'pins', file: 'wrong.json' } });
    expect((json as { error: { message: string } }).error.message).toContain(message);
  });

  it('splits a script into cues that can be read, at the times of their words', () => {
    const empty = cadence('split', sound, '--json').json as { cues: unknown[] };
    expect(empty.cues).toHaveLength(39);
    const script = phrases.map(({ text }) => text.replace('\n', ' ')).join(' ');
    writeFileSync(join(folder(), 'script.txt'), script);
    interface CutJson {
      start: number;
      end: number;
      text: string;
      words: { text: string; start: number; end: number }[];
    }
    const { cues } = cadence('split', sound, 'script.txt', '--json').json as { cues: CutJson[] };
    expect(cues.flatMap(({ text }) => tokens(text))).toEqual(tokens(script));
    expect(cues.flatMap(({ words }) => words.map(({ text }) => text))).toEqual(tokens(script));
    for (const [at, { start, end, text, words }] of cues.entries()) {
      expect(text.split('\n').every((line) => line.length <= 42)).toBe(true);
      expect(start).toBeGreaterThanOrEqual(cues[at - 1]?.end ?? 0);
      expect(words[0]?.start).toBe(start);
      expect(words.at(-1)?.end).toBe(end);
    }
    // A pause of more than a second is in no cue.
    expect(cues.some(({ start, end }) => start < 11 && end > 12)).toBe(false);
    const lines = phrases.slice(0, 4).map(({ text }) => text.replace('\n', ' '));
    writeFileSync(join(folder(), 'script.txt'), lines.join('\n'));
    const lyric = cadence('split', sound, 'script.txt', '--strand', 'lyric', '--json').json as {
      cues: CutJson[];
    };
    expect(lyric.cues.map(({ text }) => text)).toEqual(lines);
    expect(cadence('split', sound, 'script.txt', '--strand', 'rope').status).toBe(2);
  });
});
