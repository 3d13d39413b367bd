import { fromSeconds, toSeconds } from '../../../time/ticks.ts';
import { hitsInOrder, piecesInOrder } from '../../order.ts';
import type { Programme } from '../../programme.ts';
import { countingIds, programmeWithPieces } from '../../samples.ts';
import { done, withBeats } from '../done.samples.ts';
import { acceptHits, addHit, removeHits, setHits, splitHit, trimHit } from './hits.ts';
import { beatsOf, hitsOf, hitsOfStrokes, keepFound } from './keepFound.ts';
import { addPiece, joinPieces, removePieces, setPieces, splitPiece, trimPiece } from './pieces.ts';

const s = fromSeconds;

describe('hits', () => {
  const heard = [1, 1.5, 2].map((at) => ({ start: s(at), end: s(at + 0.1), level: -20 }));
  const base = withBeats(0);
  const found = done(base, setHits(base, 'm', heard, countingIds('h')));

  it('that were accepted stay when they are found again', () => {
    const accepted = done(found, acceptHits(found, ['h2']));
    const moved = [{ start: s(1.52), end: s(1.6), level: -20 }];
    const again = done(accepted, setHits(accepted, 'm', moved, countingIds('n')));
    expect(hitsInOrder(again, 'm').map(({ id }) => id)).toEqual(['h2']);
  });

  it('are added where there is none, split, trimmed and deleted', () => {
    const more = done(found, addHit(found, 'm', s(1.2), countingIds('n')));
    expect(more.hits.n1?.end).toBe(s(1.26));
    expect(addHit(found, 'm', s(1.05), countingIds('n')).note).toContain('already');
    const split = done(more, splitHit(more, 'h1', s(1.05), countingIds('x')));
    expect([split.hits.h1?.end, split.hits.x1?.start]).toEqual([s(1.05), s(1.05)]);
    expect(splitHit(more, 'h1', s(3), countingIds('x')).changes).toEqual([]);
    const cut = done(split, trimHit(split, 'x1', 'end', s(9)));
    expect(cut.hits.x1?.end).toBe(s(1.2));
    expect(Object.keys(done(cut, removeHits(cut, ['x1', 'h3'])).hits)).toEqual(['h1', 'h2', 'n1']);
  });
});

describe('pieces', () => {
  const base = programmeWithPieces([
    [1, 2],
    [3, 4],
    [5, 6],
  ]);
  const spans = (programme: Programme) =>
    piecesInOrder(programme, 'm').map(({ start, end }) => [toSeconds(start), toSeconds(end)]);

  it('have edges that stop at their neighbours', () => {
    const trimmed = done(base, trimPiece(base, 'k1', 'start', s(1.5)));
    expect(spans(trimmed)[1]).toEqual([2, 4]);
    expect(trimmed.pieces.k1?.kept).toBe(true);
  });

  it('are split, joined, added and deleted', () => {
    const split = done(base, splitPiece(base, 'k0', s(1.4), countingIds('n')));
    expect(spans(split).slice(0, 2)).toEqual([
      [1, 1.4],
      [1.4, 2],
    ]);
    expect(spans(done(base, joinPieces(base, ['k0', 'k2'])))).toEqual([[1, 6]]);
    const added = done(base, addPiece(base, 'm', { start: s(4.5), end: s(5.5) }, countingIds('n')));
    expect(spans(added)[2]).toEqual([4.5, 5]);
    expect(spans(done(base, removePieces(base, ['k0', 'k1'])))).toEqual([[5, 6]]);
  });

  it('are found again in a stretch, and what was corrected stays', () => {
    const kept = done(base, trimPiece(base, 'k1', 'end', s(4.2)));
    const found = [
      { start: s(0.5), end: s(0.9) },
      { start: s(2.9), end: s(4) },
      { start: s(5.1), end: s(5.4) },
      { start: s(5.6), end: s(6.3) },
    ];
    const all = done(kept, setPieces(kept, 'm', found, countingIds('n')));
    expect(spans(all)).toEqual([
      [0.5, 0.9],
      [3, 4.2],
      [5.1, 5.4],
      [5.6, 6.3],
    ]);
    const stretch = { start: s(4.8), end: s(6.1) };
    const part = done(kept, setPieces(kept, 'm', found, countingIds('n'), stretch));
    expect(spans(part)).toEqual([
      [1, 2],
      [3, 4.2],
      [5.1, 5.4],
      [5.6, 6.1],
    ]);
  });
});

describe('what was heard in something new', () => {
  const found = {
    pieces: [{ start: s(1), end: s(9) }],
    pulse: {
      beats: [
        {
          ...{ at: 1, bar: true, metre: '3/4' as const, confidence: 1, barConfidence: 1 },
          opinion: { begins: 0.914, lengths: [0.1, 0.8, 0.1] },
        },
      ],
      metre: '3/4' as const,
      confidence: 1,
    },
    strokes: [
      { at: 2.01, drum: 'kick' as const, confidence: 0.9 },
      { at: 2.02, drum: 'closed' as const, confidence: 0.9 },
      { at: 2.5, drum: 'snare' as const, confidence: 0.9 },
    ],
  };
  const kinds = (hitShare: number, count = 4, seconds = 60) => {
    const hits = Array.from({ length: count }, (_, at) => ({
      start: 2 + at,
      end: 2.1 + at,
      levelDb: -9,
      rise: 30,
      band: 'high' as const,
    }));
    const heard = { ...found, hits, hitShare, length: s(seconds) };
    const changes = keepFound('m', heard, countingIds('n'));
    return [...new Set(changes.map(({ entity }) => entity))];
  };

  it('is pieces and beats, and hits only of a track of separate sounds', () => {
    expect(kinds(0.3)).toEqual(['piece', 'beat']);
    expect(kinds(0.9)).toEqual(['hit', 'beat']);
    expect(kinds(0.9, 2)).toEqual(['piece', 'beat']);
    // Eight seconds of ten are spoken: then it must be surer.
    expect(kinds(0.9, 4, 10)).toEqual(['piece', 'beat']);
    expect(kinds(0.97, 4, 10)).toEqual(['hit', 'beat']);
  });

  it('keeps with each bar line its metre and what was heard of it', () => {
    expect(beatsOf(found.pulse)).toEqual([{ at: s(1), bar: '3/4', opinion: [91, 10, 80, 10] }]);
  });

  it('knows the drums of each hit, and makes hits of the strokes that are wanted', () => {
    const hits = [{ start: 2, end: 2.2, levelDb: -9, rise: 30, band: 'low' as const }];
    expect(hitsOf(hits, found.strokes)[0]?.drums).toEqual(['kick', 'closed']);
    expect(hitsOf(hits)[0]?.drums).toBeUndefined();
    const strokes = hitsOfStrokes(found.strokes, ['kick', 'closed', 'snare']);
    expect(strokes.map(({ start, drums }) => [toSeconds(start), drums])).toEqual([
      [2.01, ['kick', 'closed']],
      [2.5, ['snare']],
    ]);
    expect(hitsOfStrokes(found.strokes, ['open'])).toEqual([]);
  });
});
