import type { Ticks } from '../../time/ticks.ts';
import type { Programme, WordTime } from '../programme.ts';
import { linesOf } from '../../text/lines.ts';
import { saidAt, textOfSaid } from './saidAt.ts';
import { at25, programmeWithCues } from '../samples.ts';

describe('the word that is said', () => {
  const word = (text: string, start: number, end: number): WordTime => ({
    text,
    start: at25(start),
    end: at25(end),
    source: 'woven',
  });
  const bare = programmeWithCues([
    ['Heave and hold', 10, 30],
    ['the chain', 40, 60],
  ]);
  const [first, second] = [bare.cues.c1, bare.cues.c2];
  const programme: Programme = {
    ...bare,
    cues: {
      ...(first && { c1: { ...first, words: [word('Heave', 8, 15), word('hold', 20, 32)] } }),
      ...(second && { c2: { ...second, words: [word('the', 42, 45), word('chain', 45, 58)] } }),
    },
  };
  const said = (frame: number) => {
    const found = saidAt(programme, 's', at25(frame));
    return found && `${found.cue.id} ${found.word.text}`;
  };

  it('is the one whose time it is, to its end', () => {
    expect(said(12)).toBe('c1 Heave');
    expect(said(45)).toBe('c2 chain');
    expect(saidAt(programme, 's', (at25(58) - 1) as Ticks)?.word.text).toBe('chain');
    expect(said(58)).toBeUndefined();
  });

  it('is also that which is said beside its cue', () => {
    expect(said(8)).toBe('c1 Heave');
    expect(said(31)).toBe('c1 hold');
  });

  it('is none in a pause, before all and after all', () => {
    for (const frame of [0, 17, 36, 90]) expect(said(frame)).toBeUndefined();
    expect(saidAt(bare, 's', at25(12))).toBeUndefined();
  });

  it('stands in the text of its cue where it is written', () => {
    const place = (frame: number) => {
      const found = saidAt(programme, 's', at25(frame));
      return found && textOfSaid(found, at25(frame));
    };
    expect(place(9)).toEqual({ from: 0, to: 5 });
    expect(place(25)).toEqual({ from: 10, to: 14 });
    const found = saidAt(programme, 's', at25(25));
    const reworded = found && { ...found, cue: { ...found.cue, text: linesOf('Heave and pull') } };
    expect(reworded && textOfSaid(reworded, at25(25))).toBeUndefined();
  });

  it('is lit syllable by syllable where it is split', () => {
    const cue = programme.cues.c1;
    const split = cue?.words.map((each) =>
      each.text === 'Heave' ? { ...each, syllables: [{ from: 3, share: 0.5 }] } : each,
    );
    const found = cue && split?.[0] && { cue: { ...cue, words: split }, word: split[0] };
    const place = (frame: number) => found && textOfSaid(found, at25(frame));
    expect(place(9)).toEqual({ from: 0, to: 3 });
    expect(place(13)).toEqual({ from: 3, to: 5 });
  });
});
