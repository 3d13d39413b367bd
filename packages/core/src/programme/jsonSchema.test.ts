import { Ajv2020 } from 'ajv/dist/2020.js';
import { readFileSync } from 'node:fs';
import { longProgramme, programmeWithCues } from './samples.ts';
import { FILE_FORMAT } from './fileFormat.ts';
import { patternFileSchema, programmeSchema } from './jsonSchema.ts';
import { patternFile } from './patternFile.ts';
import { patternShelf } from './patternShelf.ts';

const schemaIn = (name: string) =>
  JSON.parse(
    readFileSync(new URL(`../../../../docs/${name}.schema.json`, import.meta.url), 'utf8'),
  );
const published = schemaIn('programme');
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

describe('the published schema of patterns', () => {
  const patterns = schemaIn('patterns');

  it('is the one that they are checked with, and takes the whole shelf', () => {
    expect(patterns).toEqual(JSON.parse(JSON.stringify(patternFileSchema())));
    const takes = new Ajv2020({ strict: false }).compile(patterns);
    const { facts } = programmeWithCues([]);
    const text = patternFile(facts, patternShelf(facts));
    expect([takes(JSON.parse(text)), takes.errors]).toEqual([true, null]);
    expect(takes({ ...JSON.parse(text), patterns: [] })).toBe(false);
  });
});
