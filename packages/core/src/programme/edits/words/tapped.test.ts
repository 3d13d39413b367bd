import type { Programme } from '../../programme.ts';
import { at25, programmeWithCues } from '../../samples.ts';
import { done } from '../done.samples.ts';
import { tapCues, tapWords } from './tapped.ts';

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
    expect(tapCues(programme, 's', 'c4', [tap(95), tap(99)]).note).toContain('1 tap had no cue');
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

  it('take cues along to where their words are tapped, and push later ones on', () => {
    const edit = tapWords(
      programme,
      's',
      'c2',
      [tap(60), tap(70), tap(85), tap(95), tap(105), tap(115), tap(125, 140)],
      'word',
    );
    const after = done(programme, edit);
    expect(row(after)).toEqual([
      [0, 20],
      [60, 80],
      [85, 140],
      [140, 150],
    ]);
    const starts = [...(after.cues.c2?.words ?? []), ...(after.cues.c3?.words ?? [])].map(
      ({ start }) => start / at25(1),
    );
    expect(starts).toEqual([60, 70, 85, 95, 105, 115, 125]);
    expect(edit.note).toBeUndefined();
  });

  it('that come before their cue have it begin earlier, and cut the one before', () => {
    const after = done(programme, tapWords(programme, 's', 'c2', [tap(10), tap(18, 22)], 'word'));
    expect(row(after).slice(0, 2)).toEqual([
      [0, 10],
      [10, 40],
    ]);
    expect(after.cues.c2?.words.map(({ start }) => start / at25(1))).toEqual([10, 18]);
  });

  it('that are more than the words are said', () => {
    const { note } = tapWords(programme, 's', 'c4', [tap(91), tap(95), tap(99)], 'word');
    expect(note).toBe('2 taps had no word.');
  });
});
