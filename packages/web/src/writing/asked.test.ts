import { programmeWithCues, sampleMaterial } from '@cadence/core/programme/samples.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { NOTHING, PICTURE } from '@cadence/core/scene/sceneAt.ts';
import { frames } from '@cadence/core/time/frameRate.ts';
import { fromSeconds, ZERO } from '@cadence/core/time/ticks.ts';
import { LEAVES, type Leaves } from '../desk/view.ts';
import { filmAsked, rangeAsked, stillsAsked, textAsked, whyNot, writingsAsked } from './asked.ts';

const rate = { num: 25, den: 1, dropFrame: false };
const base = programmeWithCues([
  ['Slack water.', 25, 75],
  ['Noon, and the bell', 100, 150],
]);
const programme: Programme = {
  ...base,
  facts: { ...base.facts, length: fromSeconds(10), sound: 'm' },
  materials: { m: sampleMaterial('m') },
};
const leaves: Leaves = { ...LEAVES, kinds: ['film'] };
const nothing = { selection: [], passage: '' };
const all = { start: ZERO, end: fromSeconds(10) };

describe('the range that is asked for', () => {
  const of = (
    part: Partial<Leaves>,
    hand: typeof nothing | { selection: string[]; passage: string } = nothing,
  ) => rangeAsked(programme, { ...leaves, ...part }, hand);

  it('is all of the programme, or that of the selected cues', () => {
    expect(of({})).toEqual(all);
    expect(of({ range: 'selection' }, { selection: ['c2', 'c1'], passage: '' })).toEqual({
      start: frames(25, rate),
      end: frames(150, rate),
    });
  });

  it('is on frames of the programme', () => {
    expect(of({ range: 'typed', from: '1.01s', to: '2.0s' })).toEqual({
      start: frames(25, rate),
      end: frames(50, rate),
    });
  });

  it.each([
    [{ range: 'selection' }, 'No cue is selected.'],
    [{ range: 'passage' }, 'The roll or crawl in hand is not on the programme.'],
    [{ range: 'typed', from: '1s', to: 'soon' }, 'Write two times, such as 00:00:00:00.'],
    [{ range: 'typed', from: '3s', to: '1s' }, 'The second time must come after the first.'],
    [{ range: 'typed', from: '3s', to: '11s' }, 'This range is outside the programme.'],
    [{ range: 'typed', from: '3s', to: '3.01s' }, 'There is not a whole frame in this range.'],
  ] as const)('says why there is none: %o', (part, says) => {
    expect(of(part)).toBe(says);
  });
});

describe('what is asked for', () => {
  it('is a film in its size and rate, with the sound that its container holds', () => {
    expect(filmAsked(programme, { ...leaves, lines: 720, half: true }, all, 'aac')).toMatchObject({
      container: 'mp4',
      video: 'h264',
      audio: 'aac',
      width: 1280,
      height: 720,
      rate: { num: 25, den: 2 },
      on: PICTURE,
    });
    expect(filmAsked(programme, { ...leaves, format: 'webm vp9' }, all, 'aac').audio).toBe('opus');
    const silent = { ...programme, facts: { ...programme.facts, sound: null } };
    expect(filmAsked(silent, leaves, all, 'aac').audio).toBeUndefined();
  });

  it('is text alone, without sound: see-through, or over a colour', () => {
    expect(textAsked(programme, leaves, all)).toMatchObject({
      container: 'webm',
      video: 'vp9',
      audio: undefined,
      on: NOTHING,
    });
    expect(textAsked(programme, { ...leaves, text: 'colour' }, all)).toMatchObject({
      container: 'mp4',
      on: '#00b140',
    });
  });

  it('is a still of the middle of each cue, named by when it begins and its words', () => {
    expect(stillsAsked(programme, { ...leaves, stills: 'cues' }, 's', ZERO)).toEqual([
      { at: frames(50, rate), name: '00-00-01-00-slack-water' },
      { at: frames(125, rate), name: '00-00-04-00-noon-and-the-bell' },
    ]);
  });

  it('is each kind once, in one order, whatever was chosen first', () => {
    const asked = writingsAsked(
      programme,
      { ...leaves, kinds: ['sound', 'text', 'film'] },
      { range: all, audio: 'opus', strand: 's', now: ZERO },
    );
    expect(asked.map(({ of }) => of)).toEqual(['film', 'text', 'sound']);
  });

  it('says why it cannot be written', () => {
    const why = (part: Partial<Leaves>, of = programme) =>
      whyNot(of, { ...leaves, ...part }, all, 's');
    expect(why({})).toBeUndefined();
    expect(why({ kinds: ['stills'], stills: 'marks' })).toBe(
      'There are no marks to take stills of.',
    );
    const silent = { ...programme, facts: { ...programme.facts, sound: null } };
    expect(why({ kinds: ['sound'] }, silent)).toBe('No sound is heard in this programme.');
    // A range that is none does not matter to stills.
    expect(
      whyNot(programme, { ...leaves, kinds: ['stills'] }, 'No cue is selected.', 's'),
    ).toBeUndefined();
  });
});
