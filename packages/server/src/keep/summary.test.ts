import { programmeWithCues } from '@cadence/core/programme/samples.ts';
import type { Material, Programme } from '@cadence/core/programme/programme.ts';
import { summarise } from './summary.ts';

const tide = programmeWithCues([
  ['The tide turns', 0, 50],
  ['', 60, 90],
]);
const material = (id: string, kind: Material['kind']) =>
  ({ id, kind, hash: `hash of ${id}` }) as Material;

test('the list tells how far a programme is, and what is seen of it', () => {
  expect(summarise(tide)).toMatchObject({ cues: 2, written: 1, still: null, image: null });
  const { facts } = tide;
  const materials = { f: material('f', 'film'), h: material('h', 'image') };
  const seen = (part: Partial<Programme['facts']>) =>
    summarise({ ...tide, materials, facts: { ...facts, ...part } });
  expect(seen({ picture: 'f' })).toMatchObject({ still: 'hash of f', image: null });
  expect(seen({ backdrop: { colour: '#000000', image: 'h' } })).toMatchObject({
    still: null,
    image: 'hash of h',
    backdrop: '#000000',
  });
  expect(summarise(tide)).toMatchObject({ words: 'The tide turns', kinds: ['subtitle'] });
  expect(summarise({ ...tide, cues: {} })).toMatchObject({ words: '', kinds: [] });
  // Without the picture, the colour is shown.
  expect(seen({ backdrop: { colour: '#000000', image: 'gone' } }).image).toBeNull();
});
