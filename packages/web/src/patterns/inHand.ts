/** The pattern that is in hand in Patterns, and what it is given to. */
import { patternOf, patternsAtHand } from '@cadence/core/programme/patterns.ts';
import { strandOfWords } from '@cadence/core/programme/captions.ts';
import type { Cue, Id, Pattern, Programme, Strand } from '@cadence/core/programme/programme.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import { isBlank } from '@cadence/core/text/lines.ts';
import { currentStrand, selectionNow, useApp, useShown } from '../desk/store.ts';

/** The strand that patterns are given to: the one in hand, or one with text where that holds rolls or crawls. */
export function strandOfText(programme: Programme): Strand | undefined {
  const inHand = programme.strands[currentStrand(programme)];
  return inHand && strandOfWords(programme, inHand);
}

/** The cue that is looked at: the one selected last, else the first of its strand that has text. */
export function cueInHand(programme: Programme): Cue | undefined {
  const selected = selectionNow().at(-1);
  const cue = selected && programme.cues[selected.id];
  if (cue && !cue.passage) return cue;
  const strand = strandOfText(programme);
  return strand && cuesInOrder(programme, strand.id).find(({ text }) => !isBlank(text));
}

export interface InHand {
  readonly patterns: readonly Pattern[];
  /** The one that is looked at; the first where none was chosen, and the cue has none. */
  readonly pattern: Pattern;
  readonly cue: Cue | undefined;
}

/** @param chosen  the pattern that was chosen last, if any */
export function useInHand(chosen: Id | null): InHand {
  const programme = useShown((shown) => shown);
  useApp((state) => state.view.selection);
  useApp((state) => state.view.strand);
  const patterns = patternsAtHand(programme);
  const cue = cueInHand(programme);
  const worn = cue && patternOf(programme, cue);
  const pattern = patterns.find(({ id }) => id === chosen) ?? worn ?? patterns[0];
  if (!pattern) throw new Error('The shelf is empty.');
  return { patterns, pattern, cue };
}

/** How many cues have each pattern. */
export function wearersOf(programme: Programme): ReadonlyMap<Id, number> {
  const counts = new Map<Id, number>();
  for (const cue of Object.values(programme.cues)) {
    const pattern = patternOf(programme, cue);
    if (pattern) counts.set(pattern.id, (counts.get(pattern.id) ?? 0) + 1);
  }
  return counts;
}
