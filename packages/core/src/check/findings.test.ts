import { apply } from '../programme/record/apply.ts';
import { setStyle, setText } from '../programme/edits/text/reword.ts';
import { programmeWithCues } from '../programme/samples.ts';
import { squareShaper } from '../scene/samples.ts';
import { nameEverywhere, nameHere, type Finding } from './finding.ts';
import { findingsOf } from './findings.ts';

const { shaper } = squareShaper();
const tide = programmeWithCues([
  ['The tide turns\nat the sluice.', 10, 60],
  ['', 60, 80],
  ['Slack water', 80, 120],
]);

describe('findings', () => {
  const kinds = (programme: typeof tide) =>
    findingsOf(programme, shaper).map((finding) => finding.kind);

  it('name what is empty', () => {
    expect(kinds(tide)).toEqual(['empty']);
  });

  it('measure reading against the profile', () => {
    const fast = apply(
      tide,
      setText(tide, 'c3', 'Slack water and nothing else moves but gulls').changes,
    );
    expect(findingsOf(fast)[1]).toMatchObject({
      kind: 'too fast',
      figure: 27.5,
      limit: 20,
      cue: 'c3',
    });
    expect(kinds(fast)).toContain('long line');
  });

  it('measure stay, gaps, overlaps and the end', () => {
    const odd = programmeWithCues([
      ['Gulls', 0, 10],
      ['the winch', 11, 400],
      ['the chain', 390, 1600],
    ]);
    expect(kinds(odd)).toEqual([
      'small gap',
      'too short',
      'overlap',
      'too long',
      'beyond the end',
      'too long',
    ]);
  });

  it('do not fault single words of a strand for being short, nor lines of a card for being many', () => {
    const words = programmeWithCues([
      ['Slack', 0, 8],
      ['water', 8, 16],
      ['again', 16, 20],
    ]);
    expect(findingsOf(words)).toEqual([]);
    const sentence = programmeWithCues([
      ['Slack', 0, 8],
      ['water runs', 8, 16],
    ]);
    expect(findingsOf(sentence).map(({ kind }) => kind)).toContain('too short');
    const list = programmeWithCues([['Abel\nBryony\nCass Ferrier', 0, 100]]);
    const on = (kind: 'card' | 'subtitle') => ({
      ...list,
      strands: Object.fromEntries(
        Object.entries(list.strands).map(([id, strand]) => [id, { ...strand, kind }]),
      ),
    });
    expect(findingsOf(on('subtitle')).map(({ kind }) => kind)).toEqual(['too many lines']);
    expect(findingsOf(on('card'))).toEqual([]);
  });
  it('measure the frame and the fonts', () => {
    const wide = apply(tide, setStyle(tide, ['c1'], { size: 300 }).changes);
    expect(findingsOf(wide, shaper)[0]).toMatchObject({ kind: 'out of frame', unit: 'px' });
    const strange = apply(tide, setText(tide, 'c3', 'señal').changes);
    expect(kinds(strange)).toContain('missing glyph');
    const sung = apply(tide, setText(tide, 'c3', '♪ Slack water').changes);
    expect(findingsOf(sung, shaper).find(({ kind }) => kind === 'missing glyph')).toMatchObject({
      severity: 'doubtful',
      font: 'Notes',
      message: 'Noto Sans has no ♪; Notes stands in. Notes has all of it',
    });
  });

  it('name what no dictionary has and what is written otherwise elsewhere, with its place', () => {
    const words = new Set('the tide turns at again slack water winch of was and'.split(' '));
    const speller = { isRight: (word: string) => words.has(word.toLowerCase()), suggest: () => [] };
    const programme = programmeWithCues([
      ['the winch of Penhaligon', 0, 50],
      ['and Penhaligon was slakc', 60, 110],
      ['at Pehaligon again', 120, 170],
    ]);
    const named = { ...programme.facts, spelling: { language: 'en-GB', right: ['Penhaligon'] } };
    const found = findingsOf(
      { ...programme, facts: named } as typeof programme,
      undefined,
      speller,
    );
    expect(found.map(({ kind, cue, place }) => [kind, cue, place])).toEqual([
      ['spelling', 'c2', { from: 19, to: 24 }],
      ['spelling', 'c3', { from: 3, to: 12 }],
      ['name', 'c3', { from: 3, to: 12 }],
    ]);
    expect(found[2]?.mend).toBe('at Penhaligon again');
  });

  it('are passed over once or always', () => {
    const twice = programmeWithCues([
      ['had had to', 0, 50],
      ['it had had', 60, 110],
      ['the the tide', 120, 170],
    ]);
    const passing = (...names: string[]) =>
      findingsOf({ ...twice, facts: { ...twice.facts, passedOver: names } }).map(({ cue }) => cue);
    const first = findingsOf(twice)[0] as Finding;
    expect(passing()).toEqual(['c1', 'c2', 'c3']);
    expect(passing(nameHere(first))).toEqual(['c2', 'c3']);
    expect(passing(nameEverywhere(first))).toEqual(['c3']);
  });
});
