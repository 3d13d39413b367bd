import { singleSpaced, trimSpaces } from './spaces.ts';

describe('white space', () => {
  test('goes from the ends; spaces that are part of the text stay', () => {
    expect(trimSpaces(' \t\u00a0Slack\u2009water\u3000\r\n ')).toBe('\u00a0Slack\u2009water\u3000');
    expect(trimSpaces(' \n ')).toBe('');
  });

  test('between words is one space; a no-break space is none of it', () => {
    expect(singleSpaced('  10\u00a0km \n\t north  ')).toBe('10\u00a0km north');
  });
});
