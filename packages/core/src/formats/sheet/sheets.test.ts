import { strToU8, zipSync } from 'fflate';
import { plainText } from '../../text/lines.ts';
import { Unreadable } from '../captions.ts';
import { readCsvSheet } from '../csv/read.ts';
import { readDocx } from '../docx/read.ts';
import { readMarkdown } from '../markdown/read.ts';
import { readRtf as readRtfBytes } from '../rtf/read.ts';
import { latin } from '../samples.ts';
import { readText } from '../text/read.ts';
import { readSheet } from '../../text/sheet/sheet.ts';
import { scriptOf, type Block } from './blocks.ts';
import { writeSheet } from './write.ts';

const readRtf = (text: string) => readRtfBytes(latin(text));
const title = (text: string): Block => ({ kind: 'title', text });
const heading = (text: string): Block => ({ kind: 'heading', text });
const line = (text: string): Block => ({ kind: 'line', text });
const row = (role: string, ...names: string[]): Block => ({ kind: 'row', role, names });

const whole = [
  title('THE FERRY AT SKERRYMOOR'),
  heading('ON THE WATER'),
  row('Ferryman', 'Orlo Penhaligon-Vey'),
  row('Winch', 'Tamsin Ruddock', 'Ewart Ålund'),
  heading('WITH THANKS TO'),
  line('The Harbour Board'),
  line('Everybody who oiled the bell'),
];

describe('sheets of plain text', () => {
  const text = (separator: string) =>
    `THE FERRY AT SKERRYMOOR\n\n\nON THE WATER\n\nFerryman${separator}Orlo Penhaligon-Vey\nWinch${separator}Tamsin Ruddock\n${separator}Ewart Ålund\n\nWITH THANKS TO\n\nThe Harbour Board\nEverybody who oiled the bell\n`;
  it.each([
    ['tabs', '\t', '\t'],
    ['two colons', ' :: ', '::'],
    ['bars', ' | ', '|'],
    ['dots', ' ....... ', '....'],
  ])('with %s', (_, separator, named) => {
    const read = readText(text(separator));
    expect({ ...read, blocks: read.blocks.map(({ afterBlank: _, ...block }) => block) }).toEqual({
      blocks: whole,
      separator: named,
      warnings: [],
    });
  });
  it('has headings in capitals that stand right before rows, and separators', () => {
    expect(readText('ON THE WATER\nFerryman\tOrlo\n---\nCREW\nBell\tAnnis').blocks).toEqual([
      heading('ON THE WATER'),
      row('Ferryman', 'Orlo'),
      { kind: 'separator' },
      heading('CREW'),
      row('Bell', 'Annis'),
    ]);
  });
  it('is prose where a colon or a hyphen stands in a line now and then', () => {
    const prose = 'She said: hold on.\nThe chain sang\nand the gulls\ncomplained.\nThen nothing.';
    expect(readText(prose).separator).toBeUndefined();
    expect(readText(prose).blocks).toHaveLength(5);
  });
  it('is prose where lines trail off, or are indented', () => {
    const prose =
      'Wait... for it.\nThe chain sang…\n\tand the gulls\n\tcomplained....\nThen nothing.';
    expect(readText(prose).separator).toBeUndefined();
    expect(scriptOf(readText(prose).blocks).map((lines) => plainText(lines))).toEqual(
      prose.split('\n').map((text) => text.trim()),
    );
  });
  it('refuses nothing at all', () => {
    expect(() => readText(' \n\n')).toThrow(Unreadable);
  });
});

describe('sheets of tables', () => {
  it('takes roles, names and sections by their headings', () => {
    const csv =
      'Section,Role,Name\nOn the water,Ferryman,"Penhaligon-Vey, Orlo"\nOn the water,Winch,Tamsin\nOn the water,Winch,Ewart\n';
    expect(readCsvSheet(csv)).toEqual({
      blocks: [
        heading('On the water'),
        row('Ferryman', 'Penhaligon-Vey, Orlo'),
        row('Winch', 'Tamsin', 'Ewart'),
      ],
      separator: ',',
      warnings: [],
    });
  });
  it('takes the first column for roles where nothing is said', () => {
    expect(readCsvSheet('Ferryman;Orlo\nWinch;Tamsin;Ewart').blocks).toEqual([
      row('Ferryman', 'Orlo'),
      row('Winch', 'Tamsin', 'Ewart'),
    ]);
  });
});

describe('sheets of Markdown', () => {
  it('has titles, headings, tables, lists, pictures and rules', () => {
    const text =
      '# The Ferry\n\n## On the *water*\n\n| Role | Name |\n|---|---|\n| Ferryman | Orlo &amp; co |\n| Winch | Tamsin |\n|  | Ewart |\n\n---\n\n- The Board\n- **Everybody**\n  - and more\n\n![](boat.png)\n';
    expect(readMarkdown(text)).toEqual({
      blocks: [
        title('The Ferry'),
        {
          ...heading('On the water'),
          spans: [[{ text: 'On the ' }, { text: 'water', italic: true }]],
        },
        row('Ferryman', 'Orlo & co'),
        row('Winch', 'Tamsin', 'Ewart'),
        { kind: 'separator' },
        line('The Board'),
        { ...line('Everybody'), spans: [[{ text: 'Everybody', bold: true }]] },
        line('and more'),
        { kind: 'picture', text: 'boat.png' },
      ],
      separator: '|',
      warnings: [],
    });
  });
  it('has rows in the items of lists, each of which is a paragraph', () => {
    const text = '## Crew\n\n- Bell: Annis\n- Winch: Tamsin\n\n## Bank\n\n1. Deck: Lisle\n';
    expect(readMarkdown(text).blocks).toEqual([
      heading('Crew'),
      row('Bell', 'Annis'),
      row('Winch', 'Tamsin'),
      heading('Bank'),
      row('Deck', 'Lisle'),
    ]);
  });
  it('takes rows with tabs, and ends quickly with what only looks nested', () => {
    expect(readMarkdown('## Crew\n\nBell\tAnnis\nWinch\tTamsin').blocks).toEqual([
      heading('Crew'),
      row('Bell', 'Annis'),
      row('Winch', 'Tamsin'),
    ]);
    expect(() => readMarkdown('['.repeat(400_000))).toThrow(Unreadable);
  });
});

describe('sheets of RTF', () => {
  it('reads letters of a code page and of Unicode, tabs, and headings by their size', () => {
    const rtf = String.raw`{\rtf1\ansi\ansicpg1252{\fonttbl{\f0 Sans;}}{\*\generator Some;}
\pard\qc\b\fs52 THE FERRY AT SKERRYMOOR\b0\par
\pard\fs32 ON THE WATER\par
\pard\fs22 Ferryman\tab {\b Orlo Penhaligon-Vey}\par
\pard\fs22 Winch\tab Tamsin Ruddock\par
\tab Ewart \'c5lund\par
\fs32 WITH THANKS TO\par
\fs22 The Harbour\u160?Board\par
Everybody who \{oiled\} the bell\par}`;
    const { blocks } = readRtf(rtf);
    expect(blocks.slice(0, 5).map(({ spans: _, starred: __, ...block }) => block)).toEqual(
      whole.slice(0, 5),
    );
    expect(blocks[2]?.starred).toEqual({ role: 'Ferryman', names: ['**Orlo Penhaligon-Vey**'] });
    expect(blocks[0]?.spans).toEqual([[{ text: 'THE FERRY AT SKERRYMOOR', bold: true }]]);
    expect(blocks.slice(5)).toEqual([
      line('The Harbour\u00a0Board'),
      line('Everybody who {oiled} the bell'),
    ]);
  });
  it('reads table rows, bytes of other code pages, and what is there of a file that is cut off', () => {
    const { blocks, warnings } = readRtf(
      String.raw`{\rtf1\ansicpg1251\trowd Bell\cell \'c0\'ed\'ed\'e0\cell\row Winch\cell Tam`,
    );
    expect(blocks).toEqual([row('Bell', 'Анна'), row('Winch', 'Tam')]);
    expect(warnings.map(({ kind }) => kind)).toEqual(['cut off']);
  });
  it('leaves out the bullets and numbers of lists', () => {
    const { blocks } = readRtf(
      String.raw`{\rtf1 Crew\par{\listtext\u8226\'95\tab}Bell\par{\pntext 1.\tab}Winch\par}`,
    );
    expect(blocks.map(({ text }) => text)).toEqual(['Crew', 'Bell', 'Winch']);
  });
  it('does not show hidden, deleted and index text, nor what a field is made of', () => {
    const { blocks } = readRtf(
      String.raw`{\rtf1 The {\v secret }tide\par{\v not this line\par}{\deleted old }new\par{\v only this}\par\plain {\field{\*\fldinst PAGE 7}{\fldrslt seven}}{\xe entry}\par{\upr{plain}{\*\ud pl\u228?in}}\par}`,
    );
    expect(blocks.map(({ text }) => text)).toEqual(['The tide', 'new', 'seven', 'pläin']);
    expect(blocks.some(({ afterBlank }) => afterBlank)).toBe(false);
  });
  it.each([
    ['the document', String.raw`\ansicpg1250 \'9a\'b3`, 'šł'],
    [
      'a font',
      String.raw`\ansicpg1252{\fonttbl{\f0 A;}{\f1\fcharset204 B;}}\f1 \'c0\'ed\f0 \'e9`,
      'Анé',
    ],
    ['a font with its number', String.raw`{\fonttbl{\f3\cpg1253 A;}}{\f3 \'e1}\'e1`, 'αá'],
    ['letters that are not written by number', '\\ansicpg1251 \xc0\xed\xed\xe0', 'Анна'],
    ['two bytes, one of them a letter', String.raw`\ansicpg932 \'83A\'83\'41`, 'アア'],
    ['DOS', String.raw`\pca \'84\'9b`, 'äø'],
    ['Windows between 0x80 and 0x9f', String.raw`\ansicpg1252 \'93a\'94\'85`, '“a”…'],
  ])('decodes bytes by the code page of %s', (_, words, said) => {
    expect(readRtf(`{\\rtf1\\ansi${words}}`).blocks[0]?.text).toBe(said);
  });
  it('reads UTF-8 that a writer put between the control words', () => {
    const { blocks } = readRtfBytes(strToU8('{\\rtf1 Åland\\par Анна}'));
    expect(blocks.map(({ text }) => text)).toEqual(['Åland', 'Анна']);
  });
  it('keeps the blank line before a smaller line, which is no heading', () => {
    const { blocks } = readRtf(
      String.raw`{\rtf1\fs24 Bell\tab Annis\par Winch\tab Tamsin\par\par\fs16 Made at Brae End\par\par\fs24 Deck\tab Lisle\par}`,
    );
    expect(blocks).toEqual([
      row('Bell', 'Annis'),
      row('Winch', 'Tamsin'),
      { ...line('Made at Brae End'), measure: 'smaller', afterBlank: true },
      { ...row('Deck', 'Lisle'), afterBlank: true },
    ]);
    const sheet = writeSheet(blocks);
    expect(sheet).toContain('Tamsin\n\n[smaller] Made at Brae End\n\nDeck');
    expect(readSheet(sheet).parts.map(({ kind }) => kind)).toEqual([
      ...['row', 'row', 'space', 'text', 'space', 'row'],
    ]);
  });
  it('refuses what is no RTF, or has no words', () => {
    for (const text of ['tide', '{\\rtf1 }', '{\\rtf1{\\fonttbl{\\f0 Sans;}}}'])
      expect(() => readRtf(text)).toThrow(Unreadable);
  });
});

describe('sheets of DOCX', () => {
  const NAMES = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
  const part = (text: string) => strToU8(`<?xml version="1.0"?>${text}`);
  const packed = (body: string, more: Record<string, Uint8Array> = {}) =>
    zipSync({
      '[Content_Types].xml': part(
        '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
      ),
      '_rels/.rels': part(
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
      ),
      'word/styles.xml': part(
        `<w:styles ${NAMES}><w:style w:type="paragraph" w:styleId="Title"><w:name w:val="Title"/></w:style><w:style w:type="paragraph" w:styleId="H1"><w:name w:val="heading 1"/></w:style></w:styles>`,
      ),
      'word/document.xml': part(`<w:document ${NAMES}><w:body>${body}</w:body></w:document>`),
      'word/_rels/document.xml.rels': part(
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="s" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/styles" Target="styles.xml"/></Relationships>',
      ),
      ...more,
    });
  const paragraph = (text: string, style = '') =>
    `<w:p>${style && `<w:pPr><w:pStyle w:val="${style}"/></w:pPr>`}<w:r>${text
      .split('\t')
      .map((each) => `<w:t>${each}</w:t>`)
      .join('<w:tab/>')}</w:r></w:p>`;
  const cell = (...texts: string[]) =>
    `<w:tc>${texts.map((text) => paragraph(text)).join('')}</w:tc>`;

  it('has titles, headings, rows by tab and by table', async () => {
    const body =
      paragraph('THE FERRY AT SKERRYMOOR', 'Title') +
      paragraph('ON THE WATER', 'H1') +
      paragraph('Ferryman\tOrlo Penhaligon-Vey') +
      `<w:tbl><w:tr>${cell('Winch')}${cell('Tamsin Ruddock', 'Ewart Ålund')}</w:tr></w:tbl>` +
      paragraph('WITH THANKS TO', 'H1') +
      paragraph('The Harbour Board') +
      paragraph('Everybody who oiled the bell');
    const { blocks, warnings } = await readDocx(packed(body));
    expect(blocks).toEqual(whole);
    expect(warnings).toEqual([]);
  });
  it('keeps italics, bold and underline', async () => {
    const run = (text: string, look = '') =>
      `<w:r><w:rPr>${look}</w:rPr><w:t xml:space="preserve">${text}</w:t></w:r>`;
    const body = `<w:p>${run('Slack ')}${run('water', '<w:i/>')}${run(' now', '<w:b/><w:u w:val="single"/>')}</w:p>`;
    const { blocks } = await readDocx(packed(body));
    expect(blocks).toEqual([
      {
        ...line('Slack water now'),
        spans: [
          [
            { text: 'Slack ' },
            { text: 'water', italic: true },
            { text: ' now', bold: true, underline: true },
          ],
        ],
      },
    ]);
    expect(scriptOf(blocks)).toEqual([blocks[0]?.spans]);
    expect(scriptOf([row('Bell', 'Annis', 'Ewart'), { kind: 'separator' }])).toEqual([
      [[{ text: 'Bell Annis, Ewart' }]],
    ]);
  });
  it('keeps sizes and where lines stand, said by the paragraph or by its style', async () => {
    const set = (text: string, paragraphs: string, letters = '') =>
      `<w:p><w:pPr>${paragraphs}</w:pPr><w:r><w:rPr>${letters}</w:rPr>${text
        .split('\t')
        .map((each) => `<w:t>${each}</w:t>`)
        .join('<w:tab/>')}</w:r></w:p>`;
    const centred = '<w:pStyle w:val="Mid"/>';
    const body =
      set('The Ferry at Skerrymoor', centred, '<w:sz w:val="48"/>') +
      set('Kept by the village', centred) +
      set('and by the tide', centred) +
      set('Brae End', '<w:jc w:val="right"/>') +
      set('Printed in March', '<w:jc w:val="left"/>', '<w:sz w:val="16"/>') +
      set('Deck\tPerpetua Lisle', centred, '<w:sz w:val="28"/>');
    const styles = `<w:styles ${NAMES}><w:docDefaults><w:rPrDefault><w:rPr><w:sz w:val="20"/></w:rPr></w:rPrDefault></w:docDefaults><w:style w:type="paragraph" w:styleId="Base"><w:pPr><w:jc w:val="center"/></w:pPr></w:style><w:style w:type="paragraph" w:styleId="Mid"><w:name w:val="Mid"/><w:basedOn w:val="Base"/></w:style></w:styles>`;
    const { blocks, warnings } = await readDocx(packed(body, { 'word/styles.xml': part(styles) }));
    expect(blocks).toEqual([
      title('The Ferry at Skerrymoor'),
      line('Kept by the village'),
      line('and by the tide'),
      { ...line('Brae End'), stand: 'right' },
      { ...line('Printed in March'), stand: 'left', measure: 'smaller' },
      { ...row('Deck', 'Perpetua Lisle'), measure: 'larger' },
    ]);
    expect(warnings.map(({ message }) => message)).toEqual([
      'Text in 4 sizes became headings, normal, larger and smaller lines.',
    ]);
  });
  it('does not show hidden, deleted, moved and field text, notes, nor messages of the package', async () => {
    const run = (text: string, look = '') =>
      `<w:r><w:rPr>${look}</w:rPr><w:t xml:space="preserve">${text}</w:t></w:r>`;
    const body =
      `<w:p>${run('The ')}${run('secret ', '<w:vanish/>')}${run('tide', '<w:vanish w:val="0"/>')}</w:p>` +
      `<w:p>${run('all of it', '<w:vanish/>')}</w:p>` +
      `<w:p><w:pPr><w:pStyle w:val="Ghost"/></w:pPr>${run('by style')}</w:p>` +
      `<w:p><w:del>${run('old ').replaceAll('w:t', 'w:delText')}</w:del><w:ins>${run('new')}</w:ins></w:p>` +
      `<w:p><w:moveFrom>${run('away')}</w:moveFrom></w:p>` +
      `<w:p><w:r><w:fldChar w:fldCharType="begin"/></w:r><w:r><w:instrText>PAGE 7</w:instrText></w:r><w:r><w:fldChar w:fldCharType="separate"/></w:r>${run('seven')}<w:r><w:fldChar w:fldCharType="end"/></w:r></w:p>` +
      `<w:p><w:pPr><w:pStyle w:val="Nowhere"/></w:pPr>${run('eight', '<w:rStyle w:val="Unknown"/>')}<w:odd/></w:p>`;
    const styles = `<w:styles ${NAMES}><w:style w:type="paragraph" w:styleId="Ghost"><w:name w:val="Ghost"/><w:rPr><w:vanish/></w:rPr></w:style></w:styles>`;
    const { blocks, warnings } = await readDocx(packed(body, { 'word/styles.xml': part(styles) }));
    expect(blocks).toEqual(['The tide', 'new', 'seven', 'eight'].map((text) => line(text)));
    expect(warnings.map(({ message }) => message)).toEqual([
      '1 part of this document cannot be read. Text in it was left out.',
    ]);
  });
  it('keeps the blank line before a smaller line', async () => {
    const smaller =
      '<w:p><w:r><w:rPr><w:sz w:val="12"/></w:rPr><w:t>Made at Brae End</w:t></w:r></w:p>';
    const body = paragraph('Abel') + paragraph('Bryony and the bell') + '<w:p/>' + smaller;
    const { blocks } = await readDocx(packed(body));
    expect(writeSheet(blocks)).toContain('Bryony and the bell\n\n[smaller] Made at Brae End');
  });
  it('refuses other bytes, damage, entities, and what unpacks to too much', async () => {
    const bomb = packed(paragraph('x'), { 'word/more.xml': new Uint8Array(90e6) });
    expect(bomb.length).toBeLessThan(1e6);
    const good = packed(paragraph('Tide'));
    const entities = packed(paragraph('x'), {
      'word/document.xml': part('<!DOCTYPE d [<!ENTITY a "a">]><d>&a;</d>'),
    });
    for (const bytes of [
      bomb,
      entities,
      good.subarray(0, 200),
      zipSync({ a: strToU8('b') }),
      strToU8('tide'),
    ])
      await expect(readDocx(bytes)).rejects.toThrow(Unreadable);
  });
});
