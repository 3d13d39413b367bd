import { readFile, stat } from 'node:fs/promises';
import type { Line } from '@cadence/core/text/lines.ts';
import { BrokenFont } from './face.ts';
import { FontShelf } from './fontShelf.ts';
import { nodeShelf, shelfFiles } from '@cadence/node/fonts.ts';
import { FAMILY_KINDS, SHELF, shelfPath, STYLE_FAMILIES } from './shelf.ts';

const shelf = nodeShelf();
const shape = async (line: Line, family = 'Noto Sans', size = 40) => {
  await shelf.prepare(family, [line]);
  return shelf.shape(line, family, size);
};

describe('the runs of a line', () => {
  it('follow its spans, and stand side by side', async () => {
    const { runs, width } = await shape([
      { text: 'Slack ' },
      { text: 'water', bold: true },
      { text: ' again', colour: '#f4d35e', underline: true },
    ]);
    expect(runs.map((run) => run.face.split('_').at(-1))).toEqual([
      '600SemiBold.ttf',
      '800ExtraBold.ttf',
      '600SemiBold.ttf',
    ]);
    expect(runs.map((run) => [run.colour, run.underline])).toEqual([
      [undefined, false],
      [undefined, false],
      ['#f4d35e', true],
    ]);
    runs.slice(1).forEach((run, at) => {
      expect(run.x).toBeCloseTo((runs[at]?.x ?? 0) + (runs[at]?.width ?? 0), 6);
    });
    const last = runs.at(-1);
    expect(width).toBeCloseTo((last?.x ?? 0) + (last?.width ?? 0), 6);
  });

  it('grow with the size, exactly', async () => {
    const line = [{ text: 'The chain has lain in the mud' }];
    const [small, large] = [await shape(line, 'Noto Sans', 20), await shape(line, 'Noto Sans', 60)];
    expect(large.width).toBeCloseTo(3 * small.width, 6);
  });

  it('are none for an empty line', async () => {
    expect(await shape([])).toEqual({ width: 0, runs: [], missing: [], borrowed: [], lent: [] });
  });

  it('keep white space with the words before it', async () => {
    const { runs } = await shape([{ text: 'נמל  harbour' }]);
    expect(new Set(runs.map((run) => run.face.split('/')[0]))).toEqual(
      new Set(['noto-sans-hebrew', 'noto-sans']),
    );
    expect((await shape([{ text: 'a \u00a0\u2009b' }])).missing).toEqual([]);
  });

  it('use the bold italic face where there is one', async () => {
    const { runs } = await shape([{ text: 'winch', bold: true, italic: true }]);
    expect(runs[0]).toMatchObject({
      slanted: false,
      face: expect.stringContaining('800ExtraBold_Italic'),
    });
  });
});

describe('paint over a range', () => {
  const inTwo = (text: string, at: number, more: Partial<Line[number]> = { colour: '#f4d35e' }) => [
    { text: text.slice(0, at) },
    { text: text.slice(at), ...more },
  ];
  const glyphsOf = ({ runs }: { runs: readonly { glyphs: readonly unknown[] }[] }) =>
    runs.flatMap(({ glyphs }) => glyphs);

  it.each([
    ['joins of Arabic', 'العبّارة', 4],
    ['joins of Arabic', 'تستيقظ', 3],
    ['kerning', 'AVATAR', 1],
    ['kerning', 'To Wa', 1],
    ['marks of Devanagari', 'क्षत्रिय', 2],
  ])('does not change the %s in %s', async (_what, text, at) => {
    const [plain, painted] = [await shape([{ text }]), await shape(inTwo(text, at))];
    const underlined = await shape(inTwo(text, at, { underline: true }));
    expect(painted.width).toBeCloseTo(plain.width, 9);
    expect(underlined.width).toBeCloseTo(plain.width, 9);
    expect(glyphsOf(painted)).toEqual(glyphsOf(plain));
    expect(painted.runs.length).toBeGreaterThan(plain.runs.length);
    expect(new Set(painted.runs.map(({ colour }) => colour))).toEqual(
      new Set([undefined, '#f4d35e']),
    );
  });

  it('shares a ligature out among its characters', async () => {
    const [plain, painted] = [await shape([{ text: 'office' }]), await shape(inTwo('office', 2))];
    expect(painted.width).toBeCloseTo(plain.width, 9);
    const parts = painted.runs.filter(({ part }) => part);
    expect(parts.map(({ colour }) => colour)).toEqual([undefined, '#f4d35e']);
    const [left, right] = parts;
    // o, and then the ligature of f, f and i, a third of which is painted as before.
    expect(left?.part?.from).toBeNull();
    expect(right?.part?.to).toBeNull();
    expect(left?.part?.to).toBeCloseTo(right?.part?.from ?? NaN, 9);
    expect(left?.width).toBeCloseTo((right?.width ?? NaN) / 2, 6);
    expect(left?.glyphs).toEqual(right?.glyphs);
  });

  it('is laid from the right where the text runs from there', async () => {
    const { runs } = await shape(inTwo('لا', 1));
    expect(runs.map(({ colour }) => colour)).toEqual(['#f4d35e', undefined]);
  });

  it('of a mark that another span has is that of its letter', async () => {
    const { runs, missing } = await shape([
      { text: 'cafe' },
      { text: '\u0301s', colour: '#f4d35e' },
    ]);
    expect(missing).toEqual([]);
    expect(runs.map(({ glyphs, colour }) => [glyphs.length, colour])).toEqual([
      [4, undefined],
      [1, '#f4d35e'],
    ]);
  });
});

describe('the shelf', () => {
  it('loads only what the text needs, and each face once', async () => {
    const asked: string[] = [];
    const files = shelfFiles();
    const own = new FontShelf((path) => {
      asked.push(path);
      return readFile(files.get(path) ?? '');
    });
    await own.prepare('Noto Sans', [[{ text: 'Slack water' }]]);
    expect(new Set(asked.map((path) => path.split('/')[0]))).toEqual(new Set(['noto-sans']));
    const before = asked.length;
    expect(await own.prepare('Noto Sans', [[{ text: 'again' }]])).toBe(false);
    await Promise.all([
      own.prepare('Noto Sans', [[{ text: 'עברית' }]]),
      own.prepare('Noto Sans', [[{ text: 'עברית' }]]),
    ]);
    expect(asked.filter((path) => path.startsWith('noto-sans-hebrew'))).toHaveLength(1);
    expect(new Set(asked.slice(before)).size).toBe(asked.length - before);
  });

  it('tries again after a face could not be loaded', async () => {
    let fails = true;
    const files = shelfFiles();
    const own = new FontShelf((path) =>
      fails ? Promise.reject(new Error('The server is away.')) : readFile(files.get(path) ?? ''),
    );
    await expect(own.prepare('Noto Sans', [[{ text: 'tide' }]])).rejects.toThrow('away');
    fails = false;
    expect(await own.prepare('Noto Sans', [[{ text: 'tide' }]])).toBe(true);
  });

  it('stands in for a family that nobody has', async () => {
    const line = [{ text: 'tide' }];
    expect(await shape(line, 'A Font That Was Lost')).toEqual(await shape(line, 'Noto Sans'));
  });

  it('takes a font of one’s own, whose own glyphs come first', async () => {
    const bytes = await readFile(shelfFiles().get('roboto-slab/RobotoSlab_500Medium.ttf') ?? '');
    shelf.add('mine', bytes, 'Harbour Slab');
    const { runs } = await shape([{ text: 'tide' }], 'Harbour Slab');
    expect(runs.map((run) => run.face)).toEqual(['mine']);
    expect(() => shelf.add('broken', new Uint8Array(100), 'Broken')).toThrow(BrokenFont);
  });

  it('lends the same glyphs whichever other families are loaded', async () => {
    const line = [{ text: 'Tide \u0437 \u0628 \u0e01' }];
    const alone = nodeShelf();
    await alone.prepare('Caveat', [line]);
    const crowded = nodeShelf();
    for (const family of ['Lora', 'Roboto Slab', 'Source Serif 4'])
      await crowded.prepare(family, [line]);
    await crowded.prepare('Caveat', [line]);
    expect(crowded.shape(line, 'Caveat', 40)).toEqual(alone.shape(line, 'Caveat', 40));
    expect(alone.shape(line, 'Caveat', 40).missing).toEqual([]);
  });

  it('sets Han characters in the forms of what stands beside them, whatever else is loaded', async () => {
    const faceOf = async (of: FontShelf, text: string) => {
      await of.prepare('Lora', [[{ text }]]);
      const { runs, missing } = of.shape([{ text }], 'Lora', 40);
      expect(missing).toEqual([]);
      return [...new Set(runs.map((run) => run.face.split('/')[0]))];
    };
    const lines = [
      ['橋の鎖', 'noto-sans-jp'],
      ['나룻배 橋', 'noto-sans-kr'],
      ['铁链渡船，橋', 'noto-sans-sc'],
    ] as const;
    for (const order of [lines, [...lines].reverse()]) {
      const own = nodeShelf();
      for (const [text, face] of order) expect(await faceOf(own, text)).toEqual([face]);
    }
    // One that is chosen has its own forms.
    const chosen = nodeShelf();
    await chosen.prepare('Noto Sans JP', [[{ text: '橋' }]]);
    expect(chosen.shape([{ text: '橋' }], 'Noto Sans JP', 40).runs[0]?.face).toMatch(
      /^noto-sans-jp/,
    );
  });

  it('sets variable families in any weight and width, and bold text in them heavier', async () => {
    const line = [{ text: 'Slack water' }];
    await shelf.prepare('Archivo', [line]);
    const width = (cut: object, spans = line) => shelf.shape(spans, 'Archivo', 100, 0, cut).width;
    expect(shelf.axesOf('Archivo')).toEqual({ wght: [100, 900], wdth: [62, 125] });
    expect(shelf.axesOf('Noto Sans')).toEqual({});
    expect(width({ width: 62 })).toBeLessThan(0.8 * width({}));
    expect(width({ width: 125 })).toBeGreaterThan(1.1 * width({}));
    expect(width({ width: 20 })).toBe(width({ width: 62 }));
    expect(width({ weight: 900 })).toBeGreaterThan(width({ weight: 100 }));
    const bold = [{ text: 'Slack water', bold: true }];
    expect(width({ weight: 300 }, bold)).toBe(width({ weight: 600 }));
    expect(width({}, bold)).toBe(width({ weight: 800 }));
    // Letters of another file of the family are its own.
    const { borrowed, missing } = shelf.shape([{ text: 'Øygård ł' }], 'Archivo', 100);
    expect([borrowed, missing]).toEqual([[], []]);
  });

  it('offers thirty families and more to style with, of every kind, each with its files', async () => {
    expect(STYLE_FAMILIES.length).toBeGreaterThanOrEqual(30);
    expect(new Set(SHELF.flatMap(({ kind }) => kind ?? []))).toEqual(new Set(FAMILY_KINDS));
    for (const file of shelfFiles().values()) expect((await stat(file)).size).toBeGreaterThan(5000);
    const paths = SHELF.flatMap((family) => family.faces.map((face) => shelfPath(family, face)));
    expect(new Set(paths).size).toBe(paths.length);
  });
});
