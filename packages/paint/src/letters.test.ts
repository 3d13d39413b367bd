import { STILL, COMES_IN, framesLong } from '@cadence/core/movement/movement.ts';
import { subtitleStyle } from '@cadence/core/programme/defaults.ts';
import { at25, programmeWithCues } from '@cadence/core/programme/samples.ts';
import { layOut } from '@cadence/core/scene/layout.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { unitsOf } from '@cadence/core/scene/units.ts';
import { linesOf } from '@cadence/core/text/lines.ts';
import { nodeShelf } from '@cadence/node/fonts.ts';

const shelf = nodeShelf();
const style = subtitleStyle(1080);
const frame = { width: 1920, height: 1080 };

/** The units of a text that has no word times, as they are written. */
async function cut(text: string, kind: 'letter' | 'word' | 'line') {
  const lines = linesOf(text);
  await shelf.prepare(style.family, lines);
  const layout = layOut(lines, style, frame, shelf);
  return unitsOf({ text: lines, words: [] }, layout, shelf)
    .of(kind)
    .map((unit) => unit.text.trim());
}

/** The glyphs of a text, whole and by letter: where each stands. */
async function glyphs(text: string) {
  const line = linesOf(text)[0] ?? [];
  await shelf.prepare(style.family, [line]);
  const whole = shelf.shape(line, style.family, 60).runs;
  const letters = shelf.letters(line, style.family, 60).flatMap(({ runs }) => runs);
  const list = (runs: typeof whole) =>
    runs
      .flatMap((run) =>
        run.glyphs.map(({ glyph, x, y }) => `${run.face} ${glyph} ${x.toFixed(3)} ${y.toFixed(3)}`),
      )
      .sort();
  return { whole: list(whole), letters: list(letters) };
}

describe('letters', () => {
  it('are graphemes, and a ligature is one', async () => {
    expect(await cut('fjord', 'letter')).toEqual([...'fjord']);
    expect((await cut('office', 'letter')).join('')).toBe('office');
    expect((await cut('office', 'letter')).length).toBeLessThan(6);
  });

  it('keep their combining marks', async () => {
    expect(await cut('cafe\u0301s', 'letter')).toEqual(['c', 'a', 'f', 'e\u0301', 's']);
    expect(await cut('שָׁלוֹם', 'letter')).toHaveLength(4);
  });

  it('stay together where they join, and part where they do not', async () => {
    // Alif joins nothing after it: "سلام" is written in two strokes.
    expect(await cut('سلام', 'letter')).toEqual(['سلا', 'م']);
    expect(await cut('العبارة', 'letter')).toEqual(['ا', 'لعبا', 'ر', 'ة']);
  });

  it('keep Devanagari and Thai syllables whole', async () => {
    expect(await cut('क्षत्रिय', 'letter')).toEqual(['क्ष', 'त्रि', 'य']);
  });

  it.each(['difficult office', 'العبّارة تستيقظ', 'नाव गाँव से पहले', 'ferry עברית 12', 'cafe\u0301'])(
    'of %s have every glyph once, where the line has it',
    async (text) => {
      const { whole, letters } = await glyphs(text);
      expect(letters).toEqual(whole);
    },
  );
});

test('words and lines are as they are written', async () => {
  expect(await cut('Slack water,\nhold the chain', 'word')).toEqual([
    'Slack',
    'water,',
    'hold',
    'the',
    'chain',
  ]);
  expect(await cut('Slack water,\nhold the chain', 'line')).toEqual([
    'Slack water,',
    'hold the chain',
  ]);
});

test('a text in parts is painted as the whole is, once all have landed', async () => {
  const base = programmeWithCues([['Slack water', 0, 100]]);
  const comesIn = { ...COMES_IN, by: 'letter', when: 'evenly', over: framesLong(20) } as const;
  const cue = base.cues.c1;
  if (!cue) throw new Error('the sample has a cue');
  const programme = { ...base, cues: { c1: { ...cue, movement: { ...STILL, comesIn } } } };
  await shelf.prepare(style.family, cue.text);
  const textAt = (at: number) => sceneAt(programme, at25(at), shelf).items.at(-1);
  expect(textAt(8)).toHaveProperty('units');
  expect(textAt(20)).not.toHaveProperty('units');
  expect(textAt(20)).toEqual(sceneAt(base, at25(20), shelf).items.at(-1));
});
