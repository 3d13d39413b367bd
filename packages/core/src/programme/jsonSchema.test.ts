import { Ajv2020 } from 'ajv/dist/2020.js';
import { readFileSync } from 'node:fs';
import { longProgramme, programmeWithCues } from './samples.ts';
import { FILE_FORMAT } from './fileFormat.ts';
import { programmeSchema } from './jsonSchema.ts';

const published = JSON.parse(
  readFileSync(new URL('../../../../docs/programme.schema.json', import.meta.url), 'utf8'),
);
const isValid = new Ajv2020({ strict: false }).compile(published);
const file = (programme: unknown) => ({ format: FILE_FORMAT, programme });

describe('the published schema', () => {
  it('is the one that programmes are checked with', () => {
    expect(published).toEqual(JSON.parse(JSON.stringify(programmeSchema())));
  });
  it('takes whole programmes', () => {
    for (const programme of [longProgramme(20), programmeWithCues([['Slack water', 0, 50]])])
      expect([isValid(file(programme)), isValid.errors]).toEqual([true, null]);
  });
  it('refuses what is not whole, has other fields, or times that are none', () => {
    const programme = programmeWithCues([['Slack water', 0, 50]]);
    const cue = programme.cues.c1;
    const withCue = (part: object) => ({ ...programme, cues: { c1: { ...cue, ...part } } });
    const { cues: _, ...without } = programme;
    for (const wrong of [
      without,
      withCue({ start: 0.5 }),
      withCue({ start: -1 }),
      withCue({ text: 'Slack' }),
      withCue({ colour: 'red' }),
      { ...programme, facts: { ...programme.facts, frame: { width: 1 } } },
    ])
      expect(isValid(file(wrong))).toBe(false);
    expect(isValid({ programme })).toBe(false);
  });
});
