import { contains } from '../../time/range.ts';
import { fromSeconds, toSeconds, type Ticks } from '../../time/ticks.ts';
import { apply } from '../apply.ts';
import { invert, type Edit } from '../change.ts';
import { gainAt, heardBeats, heardHits, heardPieces, soundOf, soundsHeard } from '../heard.ts';
import { beatsInOrder, hitsInOrder, marksInOrder, piecesInOrder } from '../order.ts';
import type { Beat, Material, Programme } from '../programme.ts';
import {
  at25,
  countingIds,
  programmeWithCues,
  programmeWithPieces,
  sampleMaterial,
} from '../samples.ts';
import { acceptHits, addHit, removeHits, setHits, splitHit, trimHit } from './hits.ts';
import { keepFound } from './keepFound.ts';
import { addMarks, moveMarks, removeMarks, setMark } from './marks.ts';
import { addPiece, joinPieces, removePieces, setPieces, splitPiece, trimPiece } from './pieces.ts';
import {
  clearBeats,
  doublePulse,
  fixBeats,
  halvePulse,
  moveBeat,
  redrawBeats,
  setFirstBar,
  setMetre,
  setPulse,
  shiftBars,
  shiftHalfBeat,
} from './pulse.ts';
import { edgeToNearest, nearestOf, startsToNearest } from './snapEdges.ts';
import { addSound, beginWith, moveSound, removeSound, setSound } from './sounds.ts';
import { tapCues, tapWords } from './tapped.ts';

const s = fromSeconds;
const material = (id: string, seconds = 60): Material => ({
  ...sampleMaterial(id),
  length: s(seconds),
});

/** A programme with a sound `m` whose beats fall every half second, four in a bar. */
function withBeats(count = 9, step = 0.5): Programme {
  const base = programmeWithCues([]);
  const beats = Array.from({ length: count }, (_, at): Beat => ({
    id: `b${at}`,
    material: 'm',
    at: s(1 + at * step),
    bar: at % 4 === 0 ? '4/4' : null,
    fixed: false,
  }));
  return {
    ...base,
    facts: { ...base.facts, sound: 'm' },
    materials: { m: material('m') },
    beats: Object.fromEntries(beats.map((beat) => [beat.id, beat])),
  };
}
const done = (programme: Programme, edit: Edit): Programme => {
  const after = apply(programme, edit.changes);
  // Every edit can be taken back.
  expect(apply(after, invert(edit.changes))).toEqual(programme);
  return after;
};
const times = (programme: Programme) =>
  beatsInOrder(programme, 'm').map(({ at }) => Number(toSeconds(at).toFixed(3)));
const bars = (programme: Programme) =>
  beatsInOrder(programme, 'm').flatMap(({ bar }, at) => (bar ? [at] : []));

describe('the pulse', () => {
  it('is halved in step with its bars, and doubled', () => {
    const half = done(withBeats(), halvePulse(withBeats(), 'm'));
    expect(times(half)).toEqual([1, 2, 3, 4, 5]);
    expect(bars(half)).toEqual([0, 4]);
    const double = done(withBeats(3), doublePulse(withBeats(3), 'm', countingIds('n')));
    expect(times(double)).toEqual([1, 1.25, 1.5, 1.75, 2]);
  });

  it('keeps the beat that begins a bar when it is halved after an upbeat', () => {
    const upbeat = done(withBeats(), shiftBars(withBeats(), 'm', 1));
    expect(bars(upbeat)).toEqual([1, 5]);
    expect(times(done(upbeat, halvePulse(upbeat, 'm')))).toEqual([1.5, 2.5, 3.5, 4.5]);
  });

  it('is counted in another metre, and from another beat', () => {
    const three = done(withBeats(), setMetre(withBeats(), 'm', '3/4'));
    expect(bars(three)).toEqual([0, 3, 6]);
    expect(bars(done(three, setFirstBar(three, 'b4')))).toEqual([1, 4, 7]);
  });

  it('is shifted by half a beat where the off-beats were taken', () => {
    expect(times(done(withBeats(3), shiftHalfBeat(withBeats(3), 'm')))).toEqual([1.25, 1.75, 2.25]);
  });

  it('follows a beat that is moved: all of it, or up to the next fixed ones', () => {
    const free = done(withBeats(5), moveBeat(withBeats(5), 'b2', s(2.1)));
    expect(times(free)).toEqual([1.1, 1.6, 2.1, 2.6, 3.1]);
    expect(free.beats.b2?.fixed).toBe(true);
    const pinned = done(free, moveBeat(free, 'b4', s(3.3)));
    expect(times(pinned)).toEqual([1.1, 1.6, 2.1, 2.7, 3.3]);
    const note = moveBeat(pinned, 'b3', s(9)).note;
    expect(note).toBe('Stopped at a fixed beat.');
  });

  it('is found again around what was fixed', () => {
    const range = { start: s(1.4), end: s(2.1) };
    const fixed = done(withBeats(), fixBeats(withBeats(), 'm', range, true));
    const found = [1, 1.52, 2.03, 2.5, 3].map((at) => ({ at: s(at), bar: null }));
    expect(times(done(fixed, setPulse(fixed, 'm', found, countingIds('n'))))).toEqual([
      1, 1.5, 2, 2.5, 3,
    ]);
  });

  it('is cleared in a stretch, and drawn anew with its bars going on', () => {
    const clear = done(withBeats(), clearBeats(withBeats(), 'm', { start: s(2), end: s(3.1) }));
    expect(times(clear)).toEqual([1, 1.5, 3.5, 4, 4.5, 5]);
    const taps = [3, 3.4, 3.8, 4.2].map(s);
    const drawn = done(withBeats(), redrawBeats(withBeats(), 'm', taps, countingIds('n')));
    expect(times(drawn)).toEqual([1, 1.5, 2, 2.5, 3, 3.4, 3.8, 4.2, 4.5, 5]);
    expect(bars(drawn).slice(0, 2)).toEqual([0, 4]);
  });
});

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
      beats: [{ at: 1, bar: true, confidence: 1 }],
      metre: '3/4' as const,
      confidence: 1,
    },
  };
  const kinds = (hitShare: number, count = 4, seconds = 60) => {
    const hits = Array.from({ length: count }, (_, at) => ({
      start: 2 + at,
      end: 2.1 + at,
      levelDb: -9,
      rise: 30,
    }));
    const heard = { ...found, hits, hitShare, length: s(seconds) };
    const changes = keepFound(withBeats(0), 'm', heard, countingIds('n'));
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
});

describe('marks', () => {
  const base = programmeWithCues([]);
  const three = [10, 20, 30].map((frame) => ({
    at: (at25(frame) + 99) as Ticks,
    purpose: 'beat' as const,
  }));
  const made = done(base, addMarks(base, three, countingIds('k')));
  const frames = (programme: Programme) => marksInOrder(programme).map(({ at }) => at / at25(1));

  it('are put on frames, once for each purpose', () => {
    expect(frames(made)).toEqual([10, 20, 30]);
    expect(addMarks(made, three, countingIds('n')).note).toBe('These marks are here already.');
    const other = addMarks(made, [{ at: at25(10), purpose: 'hit' }], countingIds('n'));
    expect(other.changes).toHaveLength(1);
  });

  it('move together and stop at the start', () => {
    const moved = moveMarks(made, ['k1', 'k2'], at25(-15));
    expect(frames(done(made, moved))).toEqual([0, 10, 30]);
    expect(moved.note).toContain('start');
  });

  it('are named, typed to another time, and deleted in a stretch', () => {
    const named = done(made, setMark(made, 'k2', { name: 'second oar', at: at25(21) }));
    expect(marksInOrder(named)[1]).toMatchObject({ name: 'second oar', at: at25(21) });
    const stretch = { start: at25(15), end: at25(30) };
    const inside = marksInOrder(named).filter(({ at }) => contains(stretch, at));
    expect(
      frames(
        done(
          named,
          removeMarks(
            named,
            inside.map(({ id }) => id),
          ),
        ),
      ),
    ).toEqual([10, 30]);
  });
});

describe('edges', () => {
  const programme = programmeWithCues([
    ['The ferry wakes', 10, 30],
    ['before the tide.', 30, 60],
    ['Slack water.', 80, 100],
  ]);
  const row = (after: Programme) =>
    ['c1', 'c2', 'c3'].map((id) => [
      (after.cues[id]?.start ?? 0) / at25(1),
      (after.cues[id]?.end ?? 0) / at25(1),
    ]);

  it('go to the nearest instant, a seam with both its cues', () => {
    expect(nearestOf([at25(1), at25(5)], at25(4))).toBe(at25(5));
    expect(nearestOf([], at25(4))).toBeUndefined();
    const pulled = done(programme, edgeToNearest(programme, 'c2', 'start', [at25(33), at25(90)]));
    expect(row(pulled).slice(0, 2)).toEqual([
      [10, 33],
      [33, 60],
    ]);
    expect(edgeToNearest(programme, 'c2', 'end', []).note).toBe('There is no mark to go to.');
  });

  it('of all starts go to beats within reach, after telling what would move', () => {
    const beats = [12, 33, 70].map(at25);
    const { edit, pulls, tooFar } = startsToNearest(programme, 's', beats, at25(5));
    expect(pulls.map(({ cue, to }) => [cue, to / at25(1)])).toEqual([
      ['c1', 12],
      ['c2', 33],
    ]);
    expect(tooFar).toBe(1);
    expect(row(done(programme, edit)).slice(0, 2)).toEqual([
      [12, 33],
      [33, 60],
    ]);
  });
});

describe('sounds', () => {
  const base = withBeats(3);
  const two: Programme = { ...base, materials: { ...base.materials, n: material('n', 20) } };
  const ids = countingIds('x');

  it('begin with a beat, and take what was found along', () => {
    const begun = done(base, beginWith(base, 'm', s(1), ids));
    expect(heardBeats(begun).map(({ at }) => toSeconds(at))).toEqual([0, 0.5, 1]);
    const sound = soundOf(begun, 'm');
    expect(sound?.fadeIn).toBeGreaterThan(0);
    expect(gainAt(sound as NonNullable<typeof sound>, 0 as Ticks)).toBe(0);
  });

  it('move by frames, and are cut where they would begin before the programme', () => {
    const later = done(base, moveSound(base, 'm', at25(10), ids));
    expect(heardBeats(later)[0]?.at).toBe(s(1.4));
    const earlier = moveSound(base, 'm', at25(-30), ids);
    expect(heardBeats(done(base, earlier)).map(({ at }) => toSeconds(at))).toEqual([0.3, 0.8]);
    expect(earlier.note).toContain('not heard');
  });

  it('are heard together, each with its own pieces', () => {
    const both = done(two, addSound(two, 'n', ids));
    expect(soundsHeard(both).map(({ material: of }) => of)).toEqual(['m', 'n']);
    const pieces = {
      a: { id: 'a', material: 'n', start: s(2), end: s(3) },
      b: { id: 'b', material: 'm', start: s(1), end: s(1.5) },
    };
    const hits = { h: { id: 'h', material: 'n', start: s(1), end: s(2), level: 0, kept: false } };
    const found = { ...both, pieces, hits };
    expect(heardPieces(found).map(({ id }) => id)).toEqual(['b', 'a']);
    expect(heardHits(found)).toHaveLength(1);
    expect(soundsHeard(done(found, removeSound(found, 'n')))).toHaveLength(1);
  });

  it('have a level, fades and a mute that fit', () => {
    const part = { level: -6, fadeIn: s(2), fadeOut: s(900), from: s(10) };
    const set = done(two, setSound(two, 'm', part, ids));
    const sound = soundOf(set, 'm') as NonNullable<ReturnType<typeof soundOf>>;
    expect(sound.fadeOut).toBe(s(50));
    expect(gainAt(sound, s(1))).toBeCloseTo(0.5 * 10 ** (-6 / 20), 6);
    expect(gainAt({ ...sound, muted: true }, s(1))).toBe(0);
    expect(gainAt(sound, s(51))).toBe(0);
  });
});

describe('taps', () => {
  const programme = programmeWithCues([
    ['Heave', 0, 20],
    ['and hold,', 20, 40],
    ['heave and\nhold the chain.', 50, 80],
    ['Slack.', 90, 100],
  ]);
  const tap = (at: number, until: number | null = null) => ({
    at: at25(at),
    until: until === null ? null : at25(until),
  });
  const row = (after: Programme) =>
    ['c1', 'c2', 'c3', 'c4'].map((id) => [
      (after.cues[id]?.start ?? 0) / at25(1),
      (after.cues[id]?.end ?? 0) / at25(1),
    ]);

  it('give cues their starts in turn, and holding gives their length', () => {
    const tapped = done(programme, tapCues(programme, 's', 'c2', [tap(25, 34), tap(60)]));
    expect(row(tapped)).toEqual([
      [0, 20],
      [25, 34],
      [60, 90],
      [90, 100],
    ]);
  });

  it('push later cues on where they would be overlapped, and cut the one before', () => {
    const edit = tapCues(programme, 's', 'c2', [tap(10), tap(70, 120)]);
    expect(row(done(programme, edit))).toEqual([
      [0, 10],
      [10, 30],
      [70, 120],
      [120, 130],
    ]);
    expect(tapCues(programme, 's', 'c4', [tap(95), tap(99)]).note).toContain('more than cues');
  });

  it('give words their times in turn, on into the next cue', () => {
    const edit = tapWords(programme, 's', 'c2', [tap(21), tap(30), tap(52, 55)], 'word');
    const after = done(programme, edit);
    expect(after.cues.c2?.words.map(({ text, start }) => [text, start / at25(1)])).toEqual([
      ['and', 21],
      ['hold,', 30],
    ]);
    expect(after.cues.c3?.words).toMatchObject([
      { text: 'heave', end: at25(55), source: 'tapped' },
    ]);
  });

  it('give lines their starts, with the words between spread', () => {
    const after = done(programme, tapWords(programme, 's', 'c3', [tap(51), tap(65)], 'line'));
    const found = after.cues.c3?.words ?? [];
    expect(found.map(({ source }) => source)).toEqual([
      'tapped',
      'spread',
      'tapped',
      'spread',
      'spread',
    ]);
    expect(found[2]?.start).toBe(at25(65));
    expect(found[1]?.end).toBe(at25(65));
  });
});
