import { FLASH } from '../movement/flashes.ts';
import type { Stay } from '../movement/movement.ts';
import { done } from '../programme/edits/done.samples.ts';
import type { Cue, Mark, Programme } from '../programme/programme.ts';
import { at25, countingIds, programmeWithCues } from '../programme/samples.ts';
import { sceneAt } from '../scene/sceneAt.ts';
import { squareShaper } from '../scene/samples.ts';
import { calmFlashes, flashFindings, MOST_FLASHES } from './flashes.ts';
import { findingsOf } from './findings.ts';
import { mend, mendAll, mendingOf } from './mending.ts';

const { shaper } = squareShaper();

/** A cue of four seconds that flashes on marks at frames of it. */
function flashing(frames: readonly number[], part: Partial<Stay> = {}): Programme {
  const base = programmeWithCues([['Slack water', 50, 150]]);
  const marks = frames.map((frame, at): Mark => {
    return { id: `m${at}`, at: at25(50 + frame), name: '', purpose: 'place' };
  });
  const stays = [{ ...FLASH, on: 'marks', ...part } as const];
  const cue = { ...(base.cues.c1 as Cue), movement: { stays } };
  return {
    ...base,
    cues: { c1: cue },
    marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
  };
}
const plates = (programme: Programme, frame: number) =>
  sceneAt(programme, at25(50 + frame), shaper).items.flatMap((item, at) =>
    item.kind === 'plate'
      ? [{ at, opacity: item.opacity, colour: item.colour, w: item.box.w }]
      : [],
  );

describe('flashes', () => {
  it('cover the frame from their instant on, and die away in their time', () => {
    const programme = flashing([10]);
    const seen = [9, 10, 11, 12, 13, 14].map((frame) => plates(programme, frame)[0]?.opacity ?? 0);
    seen.forEach((opacity, at) =>
      expect(opacity).toBeCloseTo([0, 0.6, 0.45, 0.3, 0.15, 0][at] ?? 0, 9),
    );
    const [plate] = plates(programme, 10);
    expect(plate).toMatchObject({ colour: '#ffffff', w: programme.facts.frame.width });
  });

  it('lie over the text, or behind it', () => {
    const textAt = (programme: Programme) =>
      sceneAt(programme, at25(60), shaper).items.findIndex(({ kind }) => kind === 'text');
    const [over, behind] = [flashing([10]), flashing([10], { over: 'behind' })];
    expect(plates(over, 10)[0]?.at).toBeGreaterThan(textAt(over));
    expect(plates(behind, 10)[0]?.at).toBeLessThan(textAt(behind));
  });

  it('come on every second instant where that is asked for', () => {
    const programme = flashing([0, 20, 40, 60], { every: 2 });
    expect([0, 20, 40, 60].map((frame) => plates(programme, frame).length)).toEqual([1, 0, 1, 0]);
  });
});

describe('flashes that may harm', () => {
  it('are more than three within a second, and are let pass at three', () => {
    expect(flashFindings(flashing([0, 8, 16, 25, 33, 41]))).toEqual([]);
    const [finding] = flashFindings(flashing([0, 8, 16, 24]));
    expect(finding).toMatchObject({ kind: 'flashes', severity: 'wrong', figure: 4, limit: 3 });
    expect(findingsOf(flashing([0, 8, 16, 24])).map(({ kind }) => kind)).toContain('flashes');
  });

  it('are none where they are hardly seen, or their strand is hidden', () => {
    expect(flashFindings(flashing([0, 5, 10, 15], { amount: 0.05 }))).toEqual([]);
    const programme = flashing([0, 5, 10, 15]);
    const [strand] = Object.values(programme.strands);
    if (!strand) throw new Error('There is no strand.');
    const muted = { ...programme, strands: { [strand.id]: { ...strand, muted: true } } };
    expect(flashFindings(muted)).toEqual([]);
  });

  it('are counted with those of another cue beside them', () => {
    const programme = flashing([0, 8, 80, 90]);
    const stays = (programme.cues.c1 as Cue).movement?.stays ?? [];
    const two = programmeWithCues([
      ['Slack', 50, 60],
      ['water', 60, 150],
    ]);
    const both = Object.fromEntries(
      Object.values(two.cues).map((cue) => [cue.id, { ...cue, movement: { stays } }]),
    );
    const marks = flashing([0, 5, 10, 15]).marks;
    const found = flashFindings({ ...programme, cues: both, marks });
    expect(found.map(({ cue }) => cue)).toEqual(['c1', 'c2']);
  });

  it('are not laid to a cue that flashes beside them, but in no such second', () => {
    const programme = flashing([0, 5, 10, 15, 40]);
    const stays = (programme.cues.c1 as Cue).movement?.stays ?? [];
    const cues = Object.values(
      programmeWithCues([
        ['Slack', 50, 70],
        ['water', 70, 150],
      ]).cues,
    ).map((cue) => [cue.id, { ...cue, movement: { stays } }]);
    const found = flashFindings({ ...programme, cues: Object.fromEntries(cues) });
    expect(found.map(({ cue }) => cue)).toEqual(['c1']);
  });

  it('are calmed with those of another cue counted too', () => {
    const base = flashing([0, 3, 6, 12, 15, 18]);
    const stays = (base.cues.c1 as Cue).movement?.stays ?? [];
    const cues = Object.values(
      programmeWithCues([
        ['Slack', 50, 60],
        ['water', 60, 150],
      ]).cues,
    ).map((cue) => [cue.id, { ...cue, movement: { stays } }]);
    const programme: Programme = { ...base, cues: Object.fromEntries(cues) };
    const findings = flashFindings(programme);
    expect(findings).toHaveLength(2);
    const calm = done(programme, mendAll(programme, findings, '2 cues', countingIds()));
    expect(flashFindings(calm)).toEqual([]);
  });

  it('are calmed by one press, as little as it takes, for one cue or all', () => {
    const programme = flashing([0, 6, 12, 18, 24, 30, 36, 42]);
    const [finding] = flashFindings(programme);
    if (!finding) throw new Error('Nothing was found.');
    expect(mendingOf(finding)).toBe('Fix');
    const calm = done(programme, mend(programme, finding, countingIds()));
    expect(calm.cues.c1?.movement?.stays?.[0]?.every).toBe(2);
    expect(flashFindings(calm)).toEqual([]);
    const all = done(programme, mendAll(programme, [finding], '1 cue', countingIds()));
    expect(all.cues).toEqual(calm.cues);
    expect(MOST_FLASHES).toBe(3);
    const other = programmeWithCues([['Tide', 0, 50]]);
    expect(calmFlashes(other, other.cues.c1 as Cue).changes).toEqual([]);
  });
});
