import { closesSentence, keptIn, recase, type Casing } from './casing.ts';

const kept = keptIn([
  'We asked the BBQ people of Skerrymoor.',
  'Then Orlo Penhaligon told McBride.',
  'The ferry waits. The Ferry waited.',
  'THE WINCH IS LOUD',
]);
const as = (text: string, casing: Casing) => recase(text, casing, kept);

describe('casing', () => {
  it('knows abbreviations and names by how they are written elsewhere', () => {
    expect(Object.fromEntries(kept)).toEqual({
      bbq: 'BBQ',
      skerrymoor: 'Skerrymoor',
      penhaligon: 'Penhaligon',
      orlo: 'Orlo',
      mcbride: 'McBride',
    });
    expect(keptIn([], ['Orran', 'winch']).get('orran')).toBe('Orran');
  });
  it.each<[Casing, string]>([
    ['capitals', 'ORLO PENHALIGON’S BBQ, I’M AT THE WINCH. IT’S LATE'],
    ['small', 'Orlo Penhaligon’s BBQ, I’m at the winch. it’s late'],
    ['words', 'Orlo Penhaligon’s BBQ, I’m at the Winch. It’s Late'],
    ['sentences', 'Orlo Penhaligon’s BBQ, I’m at the winch. It’s late'],
  ])('%s', (casing, expected) => {
    expect(as('orlo PENHALIGON’S bbq, i’m at the WINCH. it’s late', casing)).toBe(expected);
  });
  it('gives first letters to the parts of hyphened words and to the first and last of a title', () => {
    expect(as('the well-oiled chain of the', 'words')).toBe('The Well-Oiled Chain of The');
  });
  it('goes on in a sentence that began before', () => {
    expect(recase('AND THE GULLS. THEN RAIN', 'sentences', kept, false)).toBe(
      'and the gulls. Then rain',
    );
    expect(['It sings.', 'It sings,', '“No!”', ''].map(closesSentence)).toEqual([
      true,
      false,
      true,
      true,
    ]);
  });
  it('leaves scripts without capitals alone', () => {
    expect(as('渡し船 Straße', 'capitals')).toBe('渡し船 STRASSE');
    expect(as('渡し船', 'words')).toBe('渡し船');
  });
});
