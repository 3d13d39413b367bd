import type { Carried } from '../../../conform/carrying.ts';
import { fromSeconds } from '../../../time/ticks.ts';
import { apply } from '../../record/apply.ts';
import { wholeSound } from '../../heard.ts';
import {
  beatsInOrder,
  cuesInOrder,
  hitsInOrder,
  marksInOrder,
  piecesInOrder,
} from '../../order.ts';
import { plainText } from '../../../text/lines.ts';
import type { Cue, Programme } from '../../programme.ts';
import { firstOverlap } from '../../record/rebase.ts';
import { at25, countingIds, programmeWithCues, sampleMaterial } from '../../samples.ts';
import { conformCues, layWithCues } from './conformCues.ts';
import { done } from '../done.samples.ts';
import { setText } from '../text/reword.ts';
import { moveSound } from '../programme/sounds.ts';

/** A programme that lasts as long as its sound, 40 s, with another sound of 30 s beside it. */
function programme(
  cues: readonly (readonly [text: string, start: number, end: number])[],
): Programme {
  const made = programmeWithCues(cues);
  return {
    ...made,
    facts: { ...made.facts, sound: 'old', length: fromSeconds(40) },
    materials: {
      old: { ...sampleMaterial('old'), length: fromSeconds(40) },
      new: { ...sampleMaterial('new'), length: fromSeconds(30) },
    },
  };
}

const stretch = (from: number, to: number, at: number, how: Carried['how'] = 'same'): Carried => ({
  from: fromSeconds(from),
  to: fromSeconds(to),
  at: fromSeconds(at),
  until: fromSeconds(at + to - from),
  how,
});

/** From the 10th to the 20th second it was taken out. */
const shorter = [stretch(0, 10, 0), stretch(20, 40, 10)];

const ranges = (made: Programme) =>
  cuesInOrder(made, 's').map(({ id, start, end }) => [id, start, end]);

function carriedOver(before: Programme, map: readonly Carried[]) {
  const { edit, ...told } = conformCues(before, 'old', 'new', map, countingIds('n'));
  return { after: apply(before, edit.changes), told };
}

test('cues go where their sound went and keep their length, and the programme ends with its sound', () => {
  const before = programme([
    ['The chain goes slack.', 25, 75],
    ['Then you hear it.', 600, 660],
  ]);
  const { after, told } = carriedOver(before, shorter);
  expect(ranges(after)).toEqual([
    ['c1', at25(25), at25(75)],
    ['c2', at25(350), at25(410)],
  ]);
  expect(told).toEqual({ kept: 2, notAsTheyWere: [], marksAtCuts: 0, corrections: 0 });
  expect(after.facts).toMatchObject({ sound: 'new', length: fromSeconds(30) });
});

test('of a cue that was cut out a mark stands at the cut, with its text', () => {
  const before = programme([
    ['The chain goes slack.', 25, 75],
    ['It lies\nin the mud.', 300, 400],
  ]);
  const { after, told } = carriedOver(before, shorter);
  expect(ranges(after)).toEqual([['c1', at25(25), at25(75)]]);
  expect(told.notAsTheyWere.map(({ cue, why }) => [cue.id, why])).toEqual([['c2', 'gone']]);
  expect(marksInOrder(after)).toMatchObject([
    { at: at25(250), name: 'Cut out: It lies in the mud.', purpose: 'doubt' },
  ]);
});

test('a cue that loses less than half stays with what is left, and is told', () => {
  const before = programme([
    ['The chain has lain in the mud', 200, 270],
    ['since the winter before last.', 460, 620],
  ]);
  const { after, told } = carriedOver(before, shorter);
  expect(ranges(after)).toEqual([
    ['c1', at25(200), at25(250)],
    ['c2', at25(250), at25(370)],
  ]);
  expect(told.notAsTheyWere.map(({ why }) => why)).toEqual(['shortened', 'shortened']);
  expect(firstOverlap(after)).toBeUndefined();
});

test('a cue that was cut short says which of its words are gone, until it is written anew', () => {
  const said = ['since', 'the', 'winter', 'before', 'last.'];
  const plain = programme([[said.join(' '), 460, 620]]);
  const cue = plain.cues.c1 as Cue;
  const words = said.map((text, at) => ({
    text,
    start: fromSeconds(18.4 + at * 1.2),
    end: fromSeconds(19.2 + at * 1.2),
    source: 'woven' as const,
  }));
  const { after } = carriedOver({ ...plain, cues: { c1: { ...cue, words } } }, shorter);
  const cut = after.cues.c1?.cutShort ?? '';
  expect(cut).not.toBe('');
  expect(plainText(cue.text).startsWith(cut)).toBe(true);
  const mended = done(after, setText(after, 'c1', plainText(cue.text).slice(cut.length)));
  expect(mended.cues.c1?.cutShort).toBeNull();
});

test('pieces that changed places take their cues along, and words with them', () => {
  const words = [
    { text: 'Slack.', start: fromSeconds(1.2), end: fromSeconds(1.9), source: 'pinned' as const },
  ];
  const plain = programme([
    ['Slack.', 25, 75],
    ['Then you hear it.', 600, 660],
  ]);
  const before = {
    ...plain,
    cues: { ...plain.cues, c1: { ...(plain.cues.c1 as NonNullable<typeof plain.cues.c1>), words } },
  };
  const { after } = carriedOver(before, [stretch(0, 20, 10), stretch(20, 30, 0)]);
  expect(ranges(after)).toEqual([
    ['c2', at25(100), at25(160)],
    ['c1', at25(275), at25(325)],
  ]);
  expect(after.cues.c1?.words).toEqual([
    { text: 'Slack.', start: fromSeconds(11.2), end: fromSeconds(11.9), source: 'pinned' },
  ]);
});

test('words that were said again are there roughly: no longer pins, and doubtful', () => {
  const words = [
    { text: 'Slack.', start: fromSeconds(1.2), end: fromSeconds(1.9), source: 'pinned' as const },
  ];
  const plain = programme([['Slack.', 25, 75]]);
  const before = {
    ...plain,
    cues: { c1: { ...(plain.cues.c1 as NonNullable<typeof plain.cues.c1>), words } },
  };
  const { after, told } = carriedOver(before, [stretch(0, 30, 2, 'again')]);
  expect(after.cues.c1).toMatchObject({
    start: at25(75),
    end: at25(125),
    words: [{ source: 'woven', confidence: 0.5, start: fromSeconds(3.2) }],
  });
  expect(told.notAsTheyWere.map(({ why }) => why)).toEqual(['rough']);
});

test('the new sound is heard as the old one was: from the same instant, as loud, faded and muted', () => {
  const plain = programme([]);
  const old = {
    ...wholeSound(sampleMaterial('old')),
    id: 'x',
    at: fromSeconds(1),
    from: fromSeconds(22),
    to: fromSeconds(30),
    level: -6,
    fadeIn: fromSeconds(2),
    muted: true,
  };
  const { after } = carriedOver({ ...plain, sounds: { x: old } }, shorter);
  expect(Object.values(after.sounds)).toEqual([
    { ...old, id: 'n1', material: 'new', from: fromSeconds(12), to: fromSeconds(20) },
  ]);
  // What was heard whole and as it was is so still, and needs no entry.
  expect(carriedOver(plain, shorter).after.sounds).toEqual({});
});

test('marks go along; one in what was taken out stands at the cut', () => {
  const plain = programme([]);
  const mark = (id: string, seconds: number) => ({
    id,
    at: fromSeconds(seconds),
    name: id,
    purpose: 'place' as const,
  });
  const before = { ...plain, marks: { a: mark('a', 4), b: mark('b', 15), c: mark('c', 24) } };
  const { after, told } = carriedOver(before, shorter);
  expect(marksInOrder(after).map(({ id, at }) => [id, at])).toEqual([
    ['a', fromSeconds(4)],
    ['b', fromSeconds(10)],
    ['c', fromSeconds(14)],
  ]);
  expect(told.marksAtCuts).toBe(1);
});

test('a sound that is moved takes its cues along', () => {
  const before = programme([['The chain goes slack.', 25, 75]]);
  const laying = moveSound(before, 'old', at25(50), countingIds('n'));
  const { edit } = layWithCues(before, 'old', laying, countingIds('m'));
  expect(ranges(apply(before, edit.changes))).toEqual([['c1', at25(75), at25(125)]]);
});

test('nothing changes where there is no such sound', () => {
  const before = programme([['The chain goes slack.', 25, 75]]);
  expect(conformCues(before, 'none', 'new', shorter, countingIds()).edit.changes).toEqual([]);
  expect(conformCues(before, 'old', 'none', shorter, countingIds()).edit.changes).toEqual([]);
});

describe('what the editor corrected in the old sound', () => {
  const second = (at: number) => fromSeconds(at);
  const base = programme([]);
  const before: Programme = {
    ...base,
    pieces: {
      kept: { id: 'kept', material: 'old', start: second(22), end: second(24), kept: true },
      cut: { id: 'cut', material: 'old', start: second(12), end: second(14), kept: true },
      found: { id: 'found', material: 'old', start: second(1), end: second(2) },
      over: { id: 'over', material: 'new', start: second(11), end: second(15) },
      beside: { id: 'beside', material: 'new', start: second(20), end: second(21) },
    },
    hits: {
      h: { id: 'h', material: 'old', start: second(30), end: second(30.1), level: -9, kept: true },
    },
    beats: {
      b: { id: 'b', material: 'old', at: second(25), bar: '3/4', fixed: true },
      near: { id: 'near', material: 'new', at: second(15.05), bar: '4/4', fixed: false },
      far: { id: 'far', material: 'new', at: second(19), bar: null, fixed: false },
    },
  };

  test('is so in the new one, where that sound is still there', () => {
    const { after, told } = carriedOver(before, shorter);
    expect(told.corrections).toBe(3);
    expect(piecesInOrder(after, 'new')).toMatchObject([
      { start: second(12), end: second(14), kept: true },
      { start: second(20), end: second(21) },
    ]);
    expect(hitsInOrder(after, 'new')).toMatchObject([{ start: second(20), kept: true }]);
    expect(beatsInOrder(after, 'new').map(({ at, fixed }) => [at, fixed])).toEqual([
      [second(15), true],
      [second(19), false],
    ]);
    // The old sound keeps its own.
    expect(piecesInOrder(after, 'old')).toHaveLength(3);
  });

  test('does not go over what was corrected in the new one', () => {
    const own = { id: 'own', material: 'new', start: second(13), end: second(16), kept: true };
    const fixed = { id: 'own', material: 'new', at: second(3), bar: null, fixed: true };
    const { after, told } = carriedOver(
      {
        ...before,
        pieces: { ...before.pieces, own },
        beats: { ...before.beats, own: fixed },
      },
      shorter,
    );
    expect(told.corrections).toBe(1);
    expect(piecesInOrder(after, 'new').filter(({ kept }) => kept)).toMatchObject([{ id: 'own' }]);
    expect(beatsInOrder(after, 'new')).toHaveLength(3);
  });

  test('stays behind where it was only said again', () => {
    const again = shorter.map((each) => ({ ...each, how: 'again' as const }));
    expect(carriedOver(before, again).told.corrections).toBe(0);
  });
});
