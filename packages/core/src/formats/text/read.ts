/** Reading plain text: a sheet of lines, rows and headings. */
import { Unreadable } from '../captions.ts';
import { blocksOf, type Sheet } from '../sheet/blocks.ts';

/** @throws Unreadable where there is no text */
export function readText(source: string): Sheet {
  const lines = source.replace(/^\uFEFF/, '').split('\n');
  if (lines.every((line) => line.trim() === ''))
    throw new Unreadable('There is no text in this file.');
  const paragraphs = lines.map((text, at) => ({
    text,
    afterBlank: at === 0 || (lines[at - 1] ?? '').trim() === '',
  }));
  return { ...blocksOf(paragraphs), warnings: [] };
}
