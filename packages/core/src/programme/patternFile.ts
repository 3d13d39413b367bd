/** Patterns as a file, to be taken from one programme to another. */
import { pacedMovement, scaledPattern } from './edits/patterns/scaled.ts';
import { PATTERN_FORMAT } from './fileFormat.ts';
import type { Facts, Pattern } from './programme.ts';
import { check, checkWhole, patternFileShape } from './schema.ts';

export interface PatternFile {
  readonly format: typeof PATTERN_FORMAT;
  /** The height of the frame in whose pixels they are, and the frames a second that they count. */
  readonly height: number;
  readonly rate: { readonly num: number; readonly den: number };
  readonly patterns: readonly Pattern[];
}

/** Patterns of a programme as a file; pictures, which are the programme's own, stay behind. */
export function patternFile(
  { frame, frameRate: { num, den } }: Pick<Facts, 'frame' | 'frameRate'>,
  patterns: readonly Pattern[],
): string {
  const file: PatternFile = {
    format: PATTERN_FORMAT,
    height: frame.height,
    rate: { num, den },
    patterns: patterns.map(({ look: { behindImage: _, ...look }, ...pattern }) => ({
      ...pattern,
      look,
    })),
  };
  return `${JSON.stringify(file, null, 2)}\n`;
}

/**
 * The patterns of a file, fitted to the frame and the rate of a programme.
 *
 * @throws NotValid, SyntaxError where it is no JSON
 */
export function patternsOfFile(
  text: string,
  { frame, frameRate }: Pick<Facts, 'frame' | 'frameRate'>,
): Pattern[] {
  const file = check<PatternFile>(patternFileShape, JSON.parse(text));
  const scale = frame.height / file.height;
  const ratio = (frameRate.num * file.rate.den) / (frameRate.den * file.rate.num);
  return file.patterns.map((pattern) => {
    checkWhole('pattern', pattern);
    const fitted = scale === 1 ? pattern : { ...pattern, ...scaledPattern(pattern, scale) };
    return ratio === 1 ? fitted : { ...fitted, movement: pacedMovement(fitted.movement, ratio) };
  });
}
