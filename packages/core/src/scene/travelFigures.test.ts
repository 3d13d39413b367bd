import fc from 'fast-check';
import { atSpeed } from '../pace/travel.ts';
import { newProgramme } from '../programme/defaults.ts';
import { USUAL_JOURNEY, withSize, type Passage } from '../programme/passage.ts';
import { at25 } from '../programme/samples.ts';
import { squareShaper } from './samples.ts';
import { figuresOf, fitWithin, leftOutToFit, wordsIn } from './travelFigures.ts';
import { wayOf } from './travelling.ts';

const { shaper } = squareShaper();
const { facts } = newProgramme('p', 'The Ferry', 's');
const { frame } = facts;

const passageOf = (kind: 'roll' | 'crawl', sheet: string, journey = {}): Passage =>
  ({
    id: 'p',
    kind,
    title: 'Closing roll',
    sheet,
    look: { size: 40 },
    journey: { ...USUAL_JOURNEY, ...journey },
  }) as Passage;

const lines = (count: number) =>
  Array.from({ length: count }, (_, at) => `Deck ${at}\tPerpetua Lisle`).join('\n');

describe('figures of a passage', () => {
  test('are those of its cue, and of what it needs where it has none', () => {
    const held = { follows: 'time' as const, speed: 8 };
    const roll = passageOf('roll', lines(20), held);
    // 20 lines of 52 pixels, and the frame.
    const { way, travel, needed, judder } = figuresOf(facts, roll, undefined, shaper);
    expect([way.distance, travel.frames, needed, judder]).toEqual([2120, 265, 265, 0]);
    const cue = { start: at25(0), end: at25(1000) };
    const following = figuresOf(facts, passageOf('roll', lines(20)), cue, shaper);
    expect(following.travel.speed).toBeCloseTo(2.12, 12);
    expect(following.judder).toBeGreaterThan(0.1);
    expect(following.options.map(({ speed }) => speed)).toEqual([1, 2, 3, 4]);
    expect(following.inSight).toBeCloseTo(1080 / 2.12 / 25, 9);
    const own = { frames: 1000, speed: following.travel.speed };
    expect(fitWithin(facts, passageOf('roll', lines(20)), own, shaper)).toBeUndefined();
  });

  test('count words, and tell what takes longest to read', () => {
    const crawl = passageOf('crawl', 'The tide turns\nSlack water comes a little after four');
    expect(wordsIn(crawl, frame)).toBe(10);
    const cue = { start: at25(0), end: at25(500) };
    const { longest, wordsAMinute, way, travel } = figuresOf(facts, crawl, cue, shaper);
    expect(longest?.of).toMatchObject({ line: 1 });
    expect(longest?.needs).toBeCloseTo(37 / facts.profile.charactersASecond, 9);
    expect(wordsAMinute).toBeCloseTo((10 / way.length) * travel.speed * 25 * 60, 6);
  });
});

/** A sheet as people write it: sections of rows, columns and lines, some of which must stay. */
const aSheet = fc
  .array(
    fc.record({
      heading: fc.boolean(),
      columns: fc.integer({ min: 1, max: 4 }),
      names: fc.array(fc.record({ role: fc.boolean(), stays: fc.boolean(), length: fc.nat(30) }), {
        minLength: 1,
        maxLength: 14,
      }),
    }),
    { minLength: 1, maxLength: 6 },
  )
  .map((sections) =>
    sections
      .map(({ heading, columns, names }, at) =>
        [
          ...(heading ? [`[heading] Section ${at}`] : []),
          ...(columns > 1 ? [`[${columns} columns]`] : []),
          ...names.map(({ role, stays, length }, name) => {
            const own = `Perpetua ${'Lisle'.repeat(1 + (length % 4))} ${at}.${name}`;
            return `${stays ? '[stays] ' : ''}${columns === 1 && role ? `Deck ${name}\t` : ''}${own}`;
          }),
        ].join('\n'),
      )
      .join('\n\n'),
  );

test('on any sheet every way that is offered really fits, to the frame', () => {
  let offered = 0;
  fc.assert(
    fc.property(
      fc.constantFrom('roll' as const, 'crawl' as const),
      aSheet,
      fc.integer({ min: 4, max: 40 }),
      fc.integer({ min: 30, max: 95 }),
      fc.nat(60),
      (kind, sheet, quarters, share, hold) => {
        const speed = quarters / 4;
        const journey = { follows: 'time' as const, speed, easeIn: hold % 20 };
        const passage = passageOf(kind, sheet, journey);
        const through = (of: Passage, at = speed) =>
          atSpeed(wayOf(of, frame, shaper).distance, at, of.journey).frames;
        const frames = Math.max(1, Math.floor((through(passage) * share) / 100));
        const fit = fitWithin(facts, passage, { frames, speed }, shaper);
        if (!fit) return;
        expect(through(passage)).toBe(frames + fit.moreFrames);
        if (fit.speed !== undefined)
          expect(through(passage, fit.speed)).toBeLessThanOrEqual(frames);
        if (fit.size !== undefined) {
          offered++;
          expect(through(withSize(passage, fit.size))).toBeLessThanOrEqual(frames);
        }
        const out = leftOutToFit(passage, fit.most, frame, shaper);
        if (!out) return;
        offered++;
        expect(through({ ...passage, sheet: out.sheet })).toBeLessThanOrEqual(frames);
        // What must stay is still there.
        const staying = (text: string) =>
          text.split('\n').filter((line) => line.startsWith('[stays]'));
        expect(staying(out.sheet)).toEqual(staying(sheet));
      },
    ),
    { numRuns: 200 },
  );
  expect(offered).toBeGreaterThan(40);
});
