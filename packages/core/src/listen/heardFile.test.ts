import { HIT_BANDS } from './hits/hits.ts';
import fc from 'fast-check';
import { countHits, hitsIn, packHeard, unpackHeard, type KeptHeard } from './heardFile.ts';
import type { Heard } from './listening.ts';
import { peaksOf } from './signal/peaks.ts';

/** Random evidence as if heard, with arrays of a size in bytes. */
function heardOf(count: number, hits: number): Heard {
  const bytes = (of: number, step: number) =>
    Uint8Array.from({ length: of }, (_, at) => (at * step) % 256);
  return {
    peaks: peaksOf(Int8Array.from({ length: 2 * count }, (_, at) => (at % 2 ? 1 : -1) * (at % 90))),
    speech: { voice: bytes(count, 7), firstMiddle: 0.0128 },
    pulse: {
      activations: bytes(2 * count, 11),
      strokes: bytes(4 * count, 9),
      onsets: bytes(2 * count, 3),
      harmony: bytes(3 * count, 13),
      firstMiddle: 0.032,
    },
    // Figures that a 32-bit float holds exactly.
    hits: Array.from({ length: hits }, (_, at) => ({
      start: at + 0.5,
      end: at + 0.75,
      levelDb: -20.25,
      rise: 30,
      band: HIT_BANDS[at % 3] ?? 'low',
    })),
    hitShare: hits / 10,
    level: { integratedLufs: -23.1, truePeakDb: null, momentary: bytes(count, 5) },
  };
}

/** As it was before it was kept. */
function withHits(kept: KeptHeard | undefined): Heard | undefined {
  if (!kept) return undefined;
  const { hitFigures, ...rest } = kept;
  return { ...rest, hits: hitsIn(hitFigures) };
}

describe('the file of what was heard', () => {
  it.each([
    [0, 0],
    [1, 0],
    [37, 3],
    [500, 1],
  ])('gives back what was put in, for %i frames and %i hits', (count, hits) => {
    const heard = heardOf(count, hits);
    expect(withHits(unpackHeard(packHeard(heard)))).toEqual(heard);
  });

  it('is read from the middle of other bytes, and shares none with them', () => {
    const packed = packHeard(heardOf(20, 2));
    const around = new Uint8Array(packed.length + 13);
    around.set(packed, 5);
    const read = unpackHeard(around.subarray(5, 5 + packed.length));
    around.fill(0);
    expect(withHits(read)).toEqual(heardOf(20, 2));
  });

  it('is none where it breaks off or goes on', () => {
    const packed = packHeard(heardOf(20, 2));
    for (const length of [0, 3, 7, 8, 60, packed.length - 1])
      expect(unpackHeard(packed.subarray(0, length))).toBeUndefined();
    expect(unpackHeard(Uint8Array.from([...packed, 0]))).toBeUndefined();
  });

  it('never fails, whatever byte is damaged', () => {
    const packed = packHeard(heardOf(20, 2));
    fc.assert(
      fc.property(fc.nat(packed.length - 1), fc.nat(255), (at, value) => {
        const damaged = Uint8Array.from(packed);
        damaged[at] = value;
        const read = unpackHeard(damaged);
        expect(read === undefined || Array.isArray(hitsIn(read.hitFigures))).toBe(true);
      }),
      { numRuns: 500 },
    );
  });

  it('gives only the hits that rise as far as is asked for', () => {
    const heard = heardOf(5, 3);
    const hits = heard.hits.map((hit, at) => ({ ...hit, rise: 10 * at }));
    const figures = unpackHeard(packHeard({ ...heard, hits }))?.hitFigures;
    expect(hitsIn(figures ?? new Float32Array(0), 10).map(({ rise }) => rise)).toEqual([10, 20]);
    expect(countHits(figures ?? new Float32Array(0), 10)).toBe(2);
  });

  it('of an earlier layout is not taken for one', () => {
    const packed = packHeard(heardOf(5, 0));
    packed[3] = '2'.charCodeAt(0);
    expect(unpackHeard(packed)).toBeUndefined();
  });
});
