import { withBeats } from '../programme/edits/done.samples.ts';
import type { Cue, Programme } from '../programme/programme.ts';
import { at25, programmeWithCues } from '../programme/samples.ts';
import { fromSeconds } from '../time/ticks.ts';
import { clicksIn } from './clicks.ts';
import { INSTANTS, instantsOf } from './instants.ts';

/** Four in a bar from 1 s on, a beat every half second; a mark, a piece, a hit, and two cues. */
const programme: Programme = {
  ...withBeats(5),
  strands: programmeWithCues([]).strands,
  cues: programmeWithCues([
    ['Heave and hold', 10, 40],
    ['the chain.', 60, 80],
  ]).cues,
  marks: { k: { id: 'k', at: at25(20), name: '', purpose: 'place' } },
  pieces: { p: { id: 'p', material: 'm', start: at25(12), end: at25(30) } },
  hits: { h: { id: 'h', material: 'm', start: at25(7), end: at25(9), level: -9, kept: false } },
};

describe('instants that something can be set to', () => {
  it.each([
    ['beats', [1, 1.5, 2, 2.5, 3].map(fromSeconds)],
    ['bars', [1, 3].map(fromSeconds)],
    ['marks', [at25(20)]],
    ['hits', [at25(7)]],
    ['pieces', [at25(12)]],
  ] as const)('are those of the %s', (of, instants) => {
    expect(instantsOf(programme, of)).toEqual(instants);
  });

  it('all have a name', () => {
    expect(new Set(INSTANTS.map(({ label }) => label)).size).toBe(5);
  });
});

describe('clicks while it plays', () => {
  const stretch = { start: at25(0), end: at25(51) };
  const at = (hand: 'cues' | 'beats' | 'marks', tapFor: 'marks' | 'cues' | 'words' | 'beats') =>
    clicksIn(programme, stretch, { hand, tapFor, strand: 's' });

  it('are on marks where nothing else is worked on', () => {
    expect(at('cues', 'marks')).toEqual([{ at: at25(20), strong: false }]);
  });

  it('are on beats where these are worked on, strong where a bar begins', () => {
    const beats = [
      { at: fromSeconds(1), strong: true },
      { at: fromSeconds(1.5), strong: false },
      { at: fromSeconds(2), strong: false },
    ];
    expect(at('beats', 'marks')).toEqual(beats);
    expect(at('marks', 'beats')).toEqual(beats);
  });

  it('are on starts of cues and words where these are tapped, strong where they were', () => {
    expect(at('cues', 'cues')).toEqual([{ at: at25(10), strong: false }]);
    const words = [
      { text: 'Heave', start: at25(10), end: at25(20), source: 'tapped' as const },
      { text: 'and', start: at25(20), end: at25(30), source: 'spread' as const },
    ];
    const timed = {
      ...programme,
      cues: { ...programme.cues, c1: { ...(programme.cues['c1'] as Cue), words } },
    };
    expect(clicksIn(timed, stretch, { hand: 'cues', tapFor: 'words', strand: 's' })).toEqual([
      { at: at25(10), strong: true },
      { at: at25(20), strong: false },
    ]);
  });
});
