/** What the tests of edits share: sounds to work on, and doing an edit with its taking back tried too. */
import { nearestFrame } from '../../time/frameRate.ts';
import { fromSeconds } from '../../time/ticks.ts';
import { apply } from '../record/apply.ts';
import { invert, type Edit } from '../record/change.ts';
import type { Beat, Cue, Material, Programme } from '../programme.ts';
import { programmeWithCues, sampleMaterial } from '../samples.ts';

/** A sound of a length in seconds. */
export const soundOfLength = (id: string, seconds: number): Material => ({
  ...sampleMaterial(id),
  length: fromSeconds(seconds),
});

/** A programme with a sound `m` of a minute whose beats fall every half second from 1 s on, four in a bar. */
export function withBeats(count = 9): Programme {
  const base = programmeWithCues([]);
  const beats = Array.from({ length: count }, (_, at): Beat => ({
    id: `b${at}`,
    material: 'm',
    at: fromSeconds(1 + at * 0.5),
    bar: at % 4 === 0 ? '4/4' : null,
    fixed: false,
  }));
  return {
    ...base,
    facts: { ...base.facts, sound: 'm' },
    materials: { m: soundOfLength('m', 60) },
    beats: Object.fromEntries(beats.map((beat) => [beat.id, beat])),
  };
}

/** A programme for comparing: a field that is null and one that is not there are the same. */
export const bare = (programme: Programme): unknown =>
  JSON.parse(JSON.stringify(programme, (_, value: unknown) => value ?? undefined));

/** The programme after an edit; taking it back must give the one before. */
export function done(programme: Programme, edit: Edit): Programme {
  const after = apply(programme, edit.changes);
  expect(bare(apply(after, invert(edit.changes)))).toEqual(bare(programme));
  return after;
}

/** The cues that are not at whole frames, or have no length. */
export const offFrames = ({ cues, facts }: Programme): Cue[] =>
  Object.values(cues).filter(
    ({ start, end }) =>
      nearestFrame(start, facts.frameRate) !== start ||
      nearestFrame(end, facts.frameRate) !== end ||
      end <= start,
  );
