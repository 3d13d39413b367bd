import { blocksOf } from './blocks.ts';
import { asSung } from './songSheet.ts';

const read = (text: string) => {
  const { blocks } = blocksOf(text.split('\n').map((line) => ({ text: line })));
  const { blocks: sung, ...counts } = asSung(blocks);
  return { ...counts, lines: sung.map((block) => block.text) };
};

describe('a song sheet', () => {
  it('leaves the names of parts out, and sings a part that is only named', () => {
    const sheet = `[Verse 1]
The ferry leaves at nine

[Chorus]
Slack water,
hold the chain

Verse 2:
The lamps are lit

(Chorus)

Bridge
One more tide

CHORUS x2`;
    expect(read(sheet)).toEqual({
      names: 6,
      again: 6,
      lines: [
        'The ferry leaves at nine',
        ...['Slack water,', 'hold the chain'],
        'The lamps are lit',
        ...['Slack water,', 'hold the chain'],
        'One more tide',
        ...['Slack water,', 'hold the chain', 'Slack water,', 'hold the chain'],
      ],
    });
  });

  it('sings a line or a part as often as it says', () => {
    expect(read('Heave and hold (x3)\nslack the chain')).toEqual({
      names: 0,
      again: 2,
      lines: ['Heave and hold', 'Heave and hold', 'Heave and hold', 'slack the chain'],
    });
    expect(read('Home again, 2x').lines).toEqual(['Home again', 'Home again']);
    expect(read('Let it run (twice)').lines).toEqual(['Let it run', 'Let it run']);
    expect(read('Heave\nand hold\n(x2)\n\nHome').lines).toEqual([
      ...['Heave', 'and hold', 'Heave', 'and hold'],
      'Home',
    ]);
  });

  it('lets a part begin after a blank line under its name, and end at one', () => {
    expect(read('Refrain\n\nSlack water\n\nThe lamps\n\nRefrain\n\nHome').lines).toEqual([
      ...['Slack water', 'The lamps', 'Slack water', 'Home'],
    ]);
    expect(read('Refrain\n\nSlack water\n\nThe lamps\n\nRefrain\n\nSlack water').lines).toEqual([
      ...['Slack water', 'The lamps', 'Slack water'],
    ]);
    expect(read('Refrain:\nSlack water\n\nThe lamps\n\nRefrain:').lines).toEqual([
      ...['Slack water', 'The lamps', 'Slack water'],
    ]);
  });

  it('takes nothing for a count or a name that is sung', () => {
    const lines = [
      ...['Sing it again', 'I told you twice', 'We are 3 times lost', 'A bridge of rope'],
      ...['Again', 'Twice', 'Break'],
    ];
    expect(read(lines.join('\n'))).toEqual({ names: 0, again: 0, lines });
    expect(read('The year was 1902 x').again).toBe(0);
  });

  it('names a part that was never written, and nothing is sung for it', () => {
    expect(read('Intro\n\nHeave\n\nSolo\n\nHold').lines).toEqual(['Heave', 'Hold']);
  });
});
