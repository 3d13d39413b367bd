/** Cues that say little become one with the next, as long as they can be read together. */
import { breakLines, type Limits } from '../../../text/breakLines.ts';
import { isBlank, plainText, type Line } from '../../../text/lines.ts';
import { endsSentence } from '../../../text/sentences.ts';
import { subtract, type Ticks } from '../../../time/ticks.ts';
import { remove, update, type Change, type Edit } from '../../record/change.ts';
import { languageOfStrand } from '../../languageOfStrand.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import { joinedComments } from '../text/emphasise.ts';
import { inParts } from '../text/fitLines.ts';
import { plural } from '../../../text/plural.ts';

/** Cues that follow each other, and the text of the one that they become. */
export interface Merged {
  readonly cues: readonly Cue[];
  readonly text: readonly Line[];
}

const speakerOf = ({ text }: Cue): string | undefined => text.flat()[0]?.speaker;

/**
 * What cues become when those that follow each other closely are put together: as long as the whole fits the lines
 * of the profile and its longest stay. A sentence that stands long enough by itself is left alone.
 *
 * @param ids  the cues to look at; all of the strand where nothing is said
 * @param gap  the longest time between two that are put together
 */
export function merged(
  programme: Programme,
  strand: Id,
  gap: Ticks,
  ids?: readonly Id[],
): Merged[] {
  const { lines, longestLine, longestStay, shortestStay } = programme.facts.profile;
  const limits = { lines, longestLine, language: languageOfStrand(programme, strand) };
  const among = ids && new Set(ids);
  const all: Merged[] = [];
  let open: { cues: Cue[]; text: readonly Line[] } | undefined;
  const close = () => {
    if (open && open.cues.length > 1) all.push(open);
    open = undefined;
  };
  for (const cue of cuesInOrder(programme, strand)) {
    if ((among && !among.has(cue.id)) || isBlank(cue.text)) {
      close();
      continue;
    }
    const [first, last] = [open?.cues[0], open?.cues.at(-1)];
    const together = open && inOne([...open.text, ...cue.text], limits);
    const goes =
      first &&
      last &&
      subtract(cue.start, last.end) <= gap &&
      subtract(cue.end, first.start) <= longestStay &&
      speakerOf(first) === speakerOf(cue) &&
      !(
        endsSentence(plainText(last.text).trim()) && subtract(last.end, first.start) >= shortestStay
      );
    if (open && goes && together) open = { cues: [...open.cues, cue], text: together };
    else {
      close();
      open = { cues: [cue], text: cue.text };
    }
  }
  close();
  return all;
}

/** Text as the lines of one cue; undefined where it does not fit. */
function inOne(text: readonly Line[], limits: Limits): readonly Line[] | undefined {
  if (!breakLines(plainText(text), limits)) return undefined;
  const parts = inParts(text, limits);
  return parts.length === 1 ? parts[0] : undefined;
}

/** Merges cues, see {@link merged}. The first of each keeps its id and its style. */
export function mergeCues(programme: Programme, strand: Id, gap: Ticks, ids?: readonly Id[]): Edit {
  const all = merged(programme, strand, gap, ids);
  const before = all.reduce((sum, { cues }) => sum + cues.length, 0);
  return {
    name: `Merge ${plural(before, 'cue')} into ${all.length}`,
    changes: all.flatMap(({ cues, text }): Change[] => {
      const [first, last] = [cues[0] as Cue, cues.at(-1) as Cue];
      return [
        ...cues.slice(1).map((cue) => remove('cue', cue)),
        ...update('cue', first, {
          end: last.end,
          text,
          words: cues.flatMap(({ words }) => words),
          ...joinedComments(cues),
        }),
      ];
    }),
  };
}
