/** What is left to do in a programme before its text can leave. */
import { isBlank } from '../text/lines.ts';
import { overlap, type Range } from '../time/range.ts';
import { doubtfulIn } from './edits/words/weaveCues.ts';
import { heardPieces } from './heard.ts';
import { cuesInOrder } from './order.ts';
import { isUnsure } from './woven/unsure.ts';
import type { Id, Programme, StrandKind } from './programme.ts';

export type Task = 'make cues' | 'type' | 'weave' | 'unsure' | 'doubtful' | 'place';

/** One thing that is left to do, and how many of what it is about there are. */
export interface Left {
  readonly task: Task;
  readonly count: number;
}

/** Strands whose words come in with the sound. */
const BY_WORD: ReadonlySet<StrandKind> = new Set(['lyric', 'narration']);

/** How many stretches, by start, are touched by none of others, by start. */
function untouched(all: readonly Range[], others: readonly Range[]): number {
  let at = 0;
  return all.filter((range) => {
    while (at < others.length && (others[at] as Range).end <= range.start) at++;
    const other = others[at];
    return !other || !overlap(other, range);
  }).length;
}

/**
 * What is left, in the order in which it is done: pieces of speech without a cue, cues without text, words that were not
 * woven, lines that weaving is not sure of, doubtful words of others, passages that are not on the programme.
 */
export function whatIsLeft(programme: Programme, strand: Id): Left[] {
  const cues = cuesInOrder(programme, strand).filter(({ passage }) => !passage);
  const kind = programme.strands[strand]?.kind;
  const pieces = kind === 'card' ? 0 : untouched(heardPieces(programme), cues);
  const empty = cues.filter(({ text }) => isBlank(text)).length;
  const isWoven = cues.some(({ words }) => words.length > 0);
  const wanted = programme.facts.sound !== null && (isWoven || (kind && BY_WORD.has(kind)));
  const unwoven = wanted
    ? cues.filter(({ text, words }) => !isBlank(text) && words.length === 0).length
    : 0;
  const unsure = cues.filter(isUnsure).length;
  const doubtful = cues.reduce((sum, cue) => sum + (isUnsure(cue) ? 0 : doubtfulIn(cue).length), 0);
  const placed = new Set(Object.values(programme.cues).map(({ passage }) => passage));
  const loose = Object.keys(programme.passages).filter((id) => !placed.has(id)).length;
  const all: Left[] = [
    { task: cues.length === 0 ? 'make cues' : 'type', count: pieces + empty },
    { task: 'weave', count: unwoven },
    { task: 'unsure', count: unsure },
    { task: 'doubtful', count: doubtful },
    { task: 'place', count: loose },
  ];
  return all.filter(({ count }) => count > 0);
}
