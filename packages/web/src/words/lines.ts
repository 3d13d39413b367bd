/** The lines of Words: the cues, and between them the pieces of speech that have no cue yet. */
import { addCue } from '@cadence/core/programme/edits/cues/addCue.ts';
import { setText } from '@cadence/core/programme/edits/text/reword.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import type { Cue, Id, Piece, Programme } from '@cadence/core/programme/programme.ts';
import { frameAfter, frameBefore } from '@cadence/core/time/frameRate.ts';
import { overlap, type Range } from '@cadence/core/time/range.ts';

export interface WordsLine extends Range {
  /** Of the cue, or of the piece. */
  readonly id: Id;
  readonly cue: Cue | null;
}

/** Both lists by start; a piece that a cue touches is that cue's. */
export function linesOfWords(cues: readonly Cue[], pieces: readonly Piece[]): WordsLine[] {
  const lines: WordsLine[] = [];
  let at = 0;
  for (const piece of pieces) {
    while (at < cues.length && (cues[at] as Cue).end <= piece.start)
      lines.push(lineOf(cues[at++] as Cue));
    const cue = cues[at];
    if (!cue || !overlap(cue, piece))
      lines.push({ id: piece.id, cue: null, start: piece.start, end: piece.end });
  }
  while (at < cues.length) lines.push(lineOf(cues[at++] as Cue));
  return lines;
}

const lineOf = (cue: Cue): WordsLine => ({ id: cue.id, cue, start: cue.start, end: cue.end });

/**
 * Keeps what was typed on a line: as the text of its cue, or as a new cue over its piece. A piece where
 * nothing was typed stays a piece.
 */
export function keepLine(
  programme: Programme,
  strand: Id,
  line: WordsLine,
  text: string,
  newId: () => Id,
): Edit {
  if (line.cue) return setText(programme, line.cue.id, text);
  if (text.trim() === '') return { name: 'Edit text', changes: [] };
  const { frameRate } = programme.facts;
  const range = { start: frameBefore(line.start, frameRate), end: frameAfter(line.end, frameRate) };
  return { ...addCue(programme, strand, range, text, newId), name: 'Type a cue' };
}
