import { programmeWithCues } from '../programme/samples.ts';
import { cuesInOrder } from '../programme/order.ts';
import type { Cue } from '../programme/programme.ts';
import { wordingOf } from './wording.ts';

const slips = (...texts: string[]) => {
  const programme = programmeWithCues(
    texts.map((text, at): [string, number, number] => [text, 50 * at, 50 * at + 40]),
  );
  return wordingOf(cuesInOrder(programme, 's')).map(({ kind, cue, mend }) => [kind, cue, mend]);
};

describe('slips of the pen', () => {
  it('are words that stand twice, over the end of a line too', () => {
    expect(slips('Hold the the chain', 'from one bank\nbank of the Orran')).toEqual([
      ['doubled word', 'c1', 'Hold the chain'],
      ['doubled word', 'c2', 'from one\nbank of the Orran'],
    ]);
    expect(slips('Bye-bye, bye.', 'Hold. Hold on', 'the them', 'as as-yet')).toEqual([]);
  });
  it('are words whose sound was cut out from under a cue, which go by one press', () => {
    const { cues } = programmeWithCues([
      ['since the winter before last', 0, 40],
      ['It lies in the mud', 50, 90],
    ]);
    const cut = (cutShort: string, id: string) => ({ ...cues[id], cutShort }) as Cue;
    const found = wordingOf([cut('since the', 'c1'), cut('', 'c2')]);
    expect(found.map(({ kind, mend }) => [kind, mend])).toEqual([
      ['cut short', 'winter before last'],
      ['cut short', undefined],
    ]);
    // What is not in one run of the text is for the editor.
    expect(wordingOf([cut('winter last', 'c1')])[0]?.mend).toBeUndefined();
  });
  it('are wrong spaces', () => {
    expect(slips(' Hold  the chain , now . ', 'at 10 .5 and so ...')).toEqual([
      ['spaces', 'c1', 'Hold the chain, now.'],
    ]);
  });
  it('are quotes and brackets without their other half, unless a cue nearby has it', () => {
    expect(slips('“Hold the chain', 'and wait”', '(now', 'then', 'She said "yes')).toEqual([
      ['unmatched mark', 'c3', undefined],
      ['unmatched mark', 'c5', undefined],
    ]);
    expect(slips('"Hold', 'on"', 'all (of) [it]')).toEqual([]);
    expect(slips('late)')).toEqual([['unmatched mark', 'c1', undefined]]);
  });
});
