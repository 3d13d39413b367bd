import { COMES_IN, framesLong } from '../movement/movement.ts';
import { layKeys } from '../programme/edits/patterns/keys.ts';
import { done } from '../programme/edits/done.samples.ts';
import type { Cue, Hit, KeySounds, Programme } from '../programme/programme.ts';
import { at25, countingIds, programmeWithCues, sampleMaterial } from '../programme/samples.ts';
import { fromSeconds } from '../time/ticks.ts';
import {
  isHeard,
  keysFor,
  laidKeys,
  materialsHeard,
  strokesAmong,
  strokesIn,
  type KeyStretch,
} from './keySounds.ts';
import { mixdown, type OpenSource } from './mixdown.ts';

const RATE = 48_000;
const s = fromSeconds;
/** Strokes half a second apart, and how loud each is. */
const STROKES = [0.2, 0.7, 1.2, 1.7];
const loudOf = (stroke: number) => 0.2 + 0.1 * stroke;

/** A recording in which each stroke is a click that dies away. */
const recording: OpenSource = () =>
  Promise.resolve({
    sampleRate: RATE,
    async *chunks() {
      const samples = new Float32Array(2.5 * RATE);
      STROKES.forEach((at, stroke) => {
        for (let each = 0; each < 0.05 * RATE; each++)
          samples[at * RATE + each] = loudOf(stroke) * Math.exp(-each / (0.005 * RATE));
      });
      await Promise.resolve();
      for (let at = 0; at < samples.length; at += 5000) yield [samples.subarray(at, at + 5000)];
    },
  });

const hit = (id: string, seconds: number, level = -12): Hit => ({
  id,
  material: 'keys',
  start: s(seconds),
  end: s(seconds + 0.05),
  level,
  kept: false,
});

function typed(text: string, keys: Partial<KeySounds> = {}): Programme {
  const base = programmeWithCues([[text, 25, 150]]);
  const cue = base.cues['c1'];
  if (!cue) throw new Error('There is no cue.');
  const comesIn = {
    ...COMES_IN,
    ...({ by: 'letter', when: 'typed', arrives: 'begins', rate: 5, uneven: 0, after: 2 } as const),
    ...{ takes: framesLong(0), moves: [] },
  };
  const programme: Programme = {
    ...base,
    facts: { ...base.facts, sound: null, length: at25(200) },
    materials: { keys: sampleMaterial('keys') },
    hits: Object.fromEntries(STROKES.map((at, place) => [`h${place}`, hit(`h${place}`, at)])),
    cues: { c1: { ...cue, movement: { comesIn } } },
  };
  return done(
    programme,
    layKeys(programme, ['c1'], { material: 'keys', varied: 0, ...keys }, countingIds('new')),
  );
}

async function mixed(programme: Programme, from = 0, to = 8): Promise<Float32Array[]> {
  const out: number[][] = [[], []];
  for await (const piece of mixdown(programme, { start: s(from), end: s(to) }, RATE, recording))
    piece.forEach((channel, side) => out[side]?.push(...channel));
  return out.map((channel) => Float32Array.from(channel));
}

/** Where a channel rises out of silence. */
function rises(channel: Float32Array): number[] {
  const found: number[] = [];
  let quiet = 0;
  channel.forEach((value, at) => {
    if (Math.abs(value) < 0.01) quiet++;
    else {
      if (quiet > 0.01 * RATE) found.push(at);
      quiet = 0;
    }
  });
  return found;
}

describe('sounds of keys under letters', () => {
  it('are struck at the first sample of the frame of each letter', async () => {
    const programme = typed('Tide at');
    const [left = new Float32Array()] = await mixed(programme);
    // A letter each five frames, the first one two frames after the start of the cue.
    expect(rises(left)).toEqual([27, 32, 37, 42, 47, 52, 57].map((frame) => (frame * RATE) / 25));
  });

  it('are the same in a range as in the whole', async () => {
    const programme = typed('Tide at');
    const [[whole = new Float32Array()], [part = new Float32Array()]] = [
      await mixed(programme),
      await mixed(programme, 1.3, 2),
    ];
    expect(part).toEqual(whole.slice(1.3 * RATE, 2 * RATE));
  });

  it('follow when the letters move, and are silent where the recording is gone', async () => {
    const programme = typed('Tide');
    const cue = programme.cues['c1'];
    if (!cue?.movement?.comesIn) throw new Error('It does not move.');
    const slower = { ...cue, movement: { comesIn: { ...cue.movement.comesIn, after: 12 } } };
    const [left = new Float32Array()] = await mixed({ ...programme, cues: { c1: slower } });
    expect(rises(left)[0]).toBe((37 * RATE) / 25);
    expect(laidKeys({ ...programme, materials: {} })).toEqual([]);
    expect(isHeard({ ...programme, materials: {} })).toBe(false);
    expect([...materialsHeard(programme)]).toEqual(['keys']);
  });

  it('are never twice the same beside each other, and the same again with a seed', () => {
    const stretches = [0, 1, 2].map((at): KeyStretch => ({ start: at, end: at + 0.3 }));
    const letters = [...'the chain it holds the ferry'];
    const asked = { level: 0, varied: 1, seed: 5 };
    const keys = keysFor(letters, stretches, asked);
    keys.slice(1).forEach(({ key }, at) => expect(key).not.toBe(keys[at]?.key));
    expect(keysFor(letters, stretches, asked)).toEqual(keys);
    expect(keysFor(letters, stretches, { ...asked, seed: 6 })).not.toEqual(keys);
    expect(new Set(keys.map(({ left }) => left)).size).toBeGreaterThan(20);
    for (const { left, right } of keys) {
      expect(20 * Math.log10(Math.max(left, right))).toBeLessThanOrEqual(4);
      expect(Math.min(left, right) / Math.max(left, right)).toBeGreaterThanOrEqual(0.5);
    }
  });

  it('has the space bar and return where they are given', () => {
    const stretches = [0, 1, 2, 3].map((at): KeyStretch => ({ start: at, end: at + 0.3 }));
    const keys = keysFor([...'a b\nc a b'], stretches, {
      ...{ level: 0, varied: 0, seed: 1 },
      ...{ space: s(2.02), enter: s(3) },
    });
    expect(keys.map(({ key }) => key).filter((key) => key > 1)).toEqual([2, 3, 2, 2]);
    expect(keys[1]?.key).toBe(2);
    expect(keys[3]?.key).toBe(3);
  });
});

describe('the strokes of a recording', () => {
  const heard = (start: number, levelDb: number) => ({ start, levelDb });

  it('are its hits without those of keys that are let go', () => {
    const hits = [0, 0.4, 0.8, 1.2].flatMap((at) => [heard(at, -20), heard(at + 0.1, -34)]);
    expect(strokesAmong(hits).map(({ start }) => start)).toEqual([0, 0.4, 0.8, 1.2]);
    expect(strokesIn(hits)[0]).toMatchObject({ start: 0, end: 0.35, letGo: 0.1 });
  });

  it('are all of them where keys are only heard as they are struck', () => {
    const hits = [0, 0.12, 0.24, 0.36, 0.48].map((at, place) => heard(at, place === 3 ? -32 : -20));
    expect(strokesAmong(hits)).toEqual(hits);
    expect(strokesIn(hits)[0]?.end).toBeCloseTo(0.117, 6);
  });
});

describe('laying key sounds', () => {
  it('changes only cues that come in letter by letter, and says so', () => {
    const programme = typed('Tide');
    const other = programmeWithCues([['Chain', 160, 190]]).cues['c1'];
    const two = { ...programme, cues: { ...programme.cues, c2: { ...other, id: 'c2' } as never } };
    const edit = layKeys(two, ['c1', 'c2'], { material: 'keys', level: -12 }, countingIds('new'));
    expect(edit.note).toMatch(/^1 cue does not come in letter by letter/);
    const after = done(two, edit);
    expect(after.cues['c1']?.keys).toMatchObject({ level: -12, varied: 0 });
    expect(after.cues['c2']?.keys).toBeUndefined();
  });

  it('mutes a recording that would be heard besides, once, unless words have their times in it', () => {
    const bare = typed('Tide');
    const heard: Programme = {
      ...bare,
      facts: { ...bare.facts, sound: 'keys' },
      cues: { c1: { ...(bare.cues['c1'] as Cue), keys: null } },
    };
    const lay = (programme: Programme) =>
      layKeys(programme, ['c1'], { material: 'keys' }, countingIds('new'));
    const laid = done(heard, lay(heard));
    expect(lay(heard).note).toMatch(/^The recording itself is muted/);
    expect(Object.values(laid.sounds)).toMatchObject([{ material: 'keys', muted: true }]);
    const again = { ...laid, sounds: {} };
    expect(done(again, lay(again)).sounds).toEqual({});
    const said = [
      { text: 'Tide', start: s(1), end: s(2), confidence: 1, source: 'woven' as const },
    ];
    const spoken = { ...heard, cues: { c1: { ...(heard.cues['c1'] as Cue), words: said } } };
    expect(done(spoken, lay(spoken)).sounds).toEqual({});
  });

  it('is not done with a recording without hits', () => {
    const edit = layKeys(
      { ...typed('Tide'), hits: {} },
      ['c1'],
      { material: 'keys' },
      countingIds('new'),
    );
    expect(edit).toMatchObject({ changes: [], note: expect.stringContaining('No hits') });
  });
});
