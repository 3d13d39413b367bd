/** Shaped lines that are wanted again in every frame, remembered by what they say and how they are set. */
import { emphasised } from '../text/emphasis.ts';
import type { Line } from '../text/lines.ts';
import type { ShapedLine, TextShaper } from './shaper.ts';

const known = new WeakMap<TextShaper, Map<string, ShapedLine>>();
/** The lines of the longest rolls there are, and as many again. */
const MOST_KNOWN = 20_000;

/** Shapes a line, once; stars in it set italics and bold, beside what all of it is set in. */
export function shapedLine(
  text: string,
  { family, size, bold = false }: { family: string; size: number; bold?: boolean },
  shaper: TextShaper,
): ShapedLine {
  const lines = known.get(shaper) ?? new Map<string, ShapedLine>();
  known.set(shaper, lines);
  const key = `${size} ${bold ? 'b' : ''} ${family}\n${text}`;
  const found = lines.get(key);
  if (found) return found;
  if (lines.size >= MOST_KNOWN) lines.clear();
  const line: Line = emphasised(text).map((span) => ({ ...span, ...(bold && { bold }) }));
  const made = shaper.shape(line, family, size);
  lines.set(key, made);
  return made;
}

/** Forgets what a shaper's fonts gave, after fonts have been added to it. */
export const forgetLines = (shaper: TextShaper): void => void known.delete(shaper);
