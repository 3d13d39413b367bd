/** Captions and files for tests. */
import { linesOf, plainText, type Line } from '../text/lines.ts';
import { fromSeconds, toSeconds } from '../time/ticks.ts';
import type { Caption, Captions } from './captions.ts';
import { recogniseFile } from './readFile.ts';

/** A caption from one second to another. */
export const caption = (
  start: number,
  end: number,
  text: string | Line[],
  more: Partial<Caption> = {},
): Caption => ({
  start: fromSeconds(start),
  end: fromSeconds(end),
  text: typeof text === 'string' ? linesOf(text) : text,
  ...more,
});

/** What was read as start, end and text. */
export const seen = ({ captions }: Pick<Captions, 'captions'>) =>
  captions.map(({ start, end, text }) => [toSeconds(start), toSeconds(end), plainText(text)]);

/** The bytes of text in Latin letters. */
export const latin = (text: string): Uint8Array =>
  Uint8Array.from(text, (letter) => letter.charCodeAt(0) & 0xff);

/** What a file of this text and name is taken for. */
export const recognised = (text: string, name: string) =>
  recogniseFile(latin(text), () => text, name);
