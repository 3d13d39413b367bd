import fc from 'fast-check';
import { withProperMarks, type Proper } from './punctuation.ts';

const none: Proper = { quotes: false, dashes: false, ellipses: false, figures: false };
const all: Proper = { quotes: true, dashes: true, ellipses: true, figures: true };
const only = (key: keyof Proper) => (text: string) =>
  withProperMarks(text, { ...none, [key]: true });

describe('proper marks', () => {
  it.each([
    ['"Hold the chain," she said.', '“Hold the chain,” she said.'],
    ["The boat's chain, the gulls' cry", 'The boat’s chain, the gulls’ cry'],
    ["'Hold it' ('now')", '‘Hold it’ (‘now’)'],
    ["'tis the winter of '63, rock 'n' roll", '’tis the winter of ’63, rock ’n’ roll'],
    ['She said: "\'Tis late."', 'She said: “’Tis late.”'],
    ['and then"\n"who', 'and then”\n“who'],
  ])('quotes: %s', (typed, set) => expect(only('quotes')(typed)).toBe(set));

  it.each([
    ['the winch - a loud one - sings', 'the winch – a loud one – sings'],
    ['the winch--a loud one', 'the winch – a loud one'],
    ['the winch---a loud one', 'the winch—a loud one'],
    ['- Who is it?\n-Me.', '– Who is it?\n–Me.'],
    ['from 1963-1971, pages 10-12, 6.45-7.10', 'from 1963–1971, pages 10–12, 6.45–7.10'],
    ['on 2026-11-25, call 555-123-456', 'on 2026-11-25, call 555-123-456'],
    ['well-oiled', 'well-oiled'],
    ['I thought--', 'I thought–'],
  ])('dashes: %s', (typed, set) => expect(only('dashes')(typed)).toBe(set));

  it.each([
    ['wait...', 'wait…'],
    ['wait. . . now', 'wait… now'],
    ['the end....', 'the end….'],
    ['1.2.3', '1.2.3'],
  ])('ellipses: %s', (typed, set) => expect(only('ellipses')(typed)).toBe(set));

  it.each([
    ['12000 gulls, 1250000 herrings', '12,000 gulls, 1,250,000 herrings'],
    ['in 1963, code 00441, 12.34567, AB12345', 'in 1963, code 00441, 12.34567, AB12345'],
    ['5 km at 12 kn, 40 % of it', '5\u00a0km at 12\u00a0kn, 40\u00a0% of it'],
    ['3 x 4 m, -5 °C, 1/2 a mile, 24/7', '3 × 4\u00a0m, −5\u00a0°C, ½ a mile, 24/7'],
  ])('figures: %s', (typed, set) => expect(only('figures')(typed)).toBe(set));

  it('stay as they are when it is done again', () => {
    const part = fc.constantFrom(
      '"',
      "'",
      '-',
      '--',
      '...',
      ' ',
      'a',
      'the',
      '12000',
      '3',
      '/',
      '.',
      ',',
      'km',
      '\n',
      'x',
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 14 }), (parts) => {
        const once = withProperMarks(parts.join(''), all);
        expect(withProperMarks(once, all)).toBe(once);
      }),
      { numRuns: 2000, examples: [[['"', '-', '--', ' ', '-', '--', '3']]] },
    );
  });
});
