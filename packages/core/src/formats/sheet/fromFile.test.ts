import { latin } from '../samples.ts';
import { sheetFromFile } from './fromFile.ts';

const textIn = async (name: string, text: string) => (await sheetFromFile(latin(text), name)).text;

describe('the text of a sheet from a file', () => {
  test('is plain text as it stands', async () => {
    const text = 'Deck  Perpetua Lisle\r\n[2 columns]\r\nAbel\r\n';
    expect(await textIn('credits.txt', text)).toBe('Deck  Perpetua Lisle\n[2 columns]\nAbel\n');
  });

  test('is the rows of a table, the blocks of a document, the titles of a feed, the lines of captions', async () => {
    expect(await textIn('credits.csv', 'Role,Name\nDeck,Perpetua Lisle\n')).toContain(
      'Deck\tPerpetua Lisle',
    );
    expect(await textIn('credits.md', '# The Ferry\n\nAbel\n')).toBe('[title] The Ferry\nAbel\n');
    const item = '<item><title>High water at nine</title></item>';
    expect(await textIn('board.rss', `<rss><channel>${item}</channel></rss>`)).toBe(
      'High water at nine\n',
    );
    expect(await textIn('a.srt', '1\n00:00:01,000 --> 00:00:02,000\nThe oar\n')).toBe('The oar\n');
  });

  test('keeps italics and bold, and says what a roll has not', async () => {
    const rtf = '{\\rtf1 the song {\\i Slack Water}\\par {\\ul Deck}\\par}';
    const { text, warnings } = await sheetFromFile(latin(rtf), 'credits.rtf');
    expect(text).toContain('the song *Slack Water*');
    expect(warnings.map(({ message }) => message)).toContain(
      'A roll has no underlines: those of 1 line were left out.',
    );
  });

  test('keeps sizes and where lines stand, until the next blank line, and says that sizes are three', async () => {
    const rtf = String.raw`{\rtf1\fs24\qc The winch turns\par and the chain lifts\par and drips\par
\pard\qr\fs16 Brae End\par\pard\qc\fs24 and falls\par
\b Deck\b0\tab Perpetua Lisle\par}`;
    const { text, warnings } = await sheetFromFile(latin(rtf), 'credits.rtf');
    expect(text).toBe(
      [
        'The winch turns',
        'and the chain lifts',
        'and drips',
        '[smaller] [right] Brae End',
        '[usual] [centre] and falls',
        '**Deck**\tPerpetua Lisle',
        '',
      ].join('\n'),
    );
    expect(warnings.map(({ message }) => message)).toEqual([
      'Text in 2 sizes became headings, normal, larger and smaller lines.',
    ]);
  });

  test('must be there', async () => {
    await expect(sheetFromFile(latin('\n \n'), 'credits.txt')).rejects.toThrow('no text');
  });
});
