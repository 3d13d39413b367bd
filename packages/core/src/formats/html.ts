/** The words of HTML, by the parser `htmlparser2`; nothing in it is run or fetched. */
import { Parser } from 'htmlparser2';
import { singleSpaced } from '../text/spaces.ts';

const blocks = new Set([
  ...['address', 'article', 'blockquote', 'dd', 'div', 'dl', 'dt', 'figure', 'h1', 'h2', 'h3'],
  ...['h4', 'h5', 'h6', 'hr', 'li', 'ol', 'p', 'pre', 'section', 'table', 'td', 'th', 'tr', 'ul'],
]);
const silent = new Set(['script', 'style', 'template', 'noscript', 'title']);

/** A line break while white space is made single: a character of the private use area. */
const BREAK = '\ue000';

/** Lines that are single-spaced each, without empty ones. */
const linesApart = (text: string): string =>
  text
    .split(BREAK)
    .map(singleSpaced)
    .filter((line) => line !== '')
    .join('\n');

/** Text without markup, its white space one space each; the ends of blocks count as space, and line breaks are kept. */
export function textOfHtml(html: string): string {
  let text = '';
  let hidden = 0;
  const parser = new Parser({
    onopentagname: (name) => {
      if (silent.has(name)) hidden++;
      if (name === 'br') text += BREAK;
      else if (blocks.has(name)) text += ' ';
    },
    onclosetag: (name) => {
      if (silent.has(name)) hidden--;
      if (blocks.has(name)) text += ' ';
    },
    ontext: (part) => {
      if (hidden === 0) text += part.replaceAll(BREAK, '');
    },
  });
  parser.write(html);
  parser.end();
  return linesApart(text);
}
