/** Words that went astray are looked for again, all over the time between those beside them that did not. */
import type { Aligner } from './aligner.ts';
import { confidences } from './confidence.ts';
import type { Stretch, Voice } from './fine.ts';
import type { Token } from './lattice.ts';
import type { Placed } from './placed.ts';

/** A word that is less sure may have gone astray. */
const ASTRAY = 0.5;
/** More words, or a longer time, cannot be looked at as one. */
const MOST_WORDS = 80;
const MOST_FRAMES = 60_000;
/** There is nowhere else to look where there is hardly more time than words take, in frames a word. */
const ROOM = 70;

/** Runs of words that went astray in a part of a script, each with the time that is free for it. */
function runsIn(
  part: Stretch,
  places: readonly (Placed | undefined)[],
  sure: readonly number[],
): Stretch[] {
  const runs: Stretch[] = [];
  let first = part.first;
  while (first < part.last) {
    if ((sure[first] as number) >= ASTRAY) {
      first++;
      continue;
    }
    let last = first;
    while (last < part.last && (sure[last] as number) < ASTRAY) last++;
    runs.push({
      first,
      last,
      from: first > part.first ? (places[first - 1]?.to ?? part.from) : part.from,
      to: last < part.last ? (places[last]?.from ?? part.to) : part.to,
      tight: {
        start: first === part.first && Boolean(part.tight?.start),
        end: last === part.last && Boolean(part.tight?.end),
      },
    });
    first = last;
  }
  return runs;
}

const sum = (values: readonly number[]): number => values.reduce((all, value) => all + value, 0);

/**
 * Places as they are, or better ones where words went astray: found by the model that knows the voice, which tells the
 * right place from a chance one where the coarse pass could not.
 *
 * @param parts  what lies between pins
 */
export function realigned(
  aligner: Aligner,
  voice: Voice,
  tokens: readonly Token[],
  parts: readonly Stretch[],
  places: readonly (Placed | undefined)[],
): readonly (Placed | undefined)[] {
  const sureAtFirst = confidences(places, voice.song !== undefined);
  let [best, sure] = [places, sureAtFirst];
  for (const run of parts.flatMap((part) => runsIn(part, places, sureAtFirst))) {
    const [words, frames] = [run.last - run.first, run.to - run.from];
    if (words > MOST_WORDS || frames > MOST_FRAMES || frames < ROOM * words) continue;
    const again = aligner.places(voice, tokens, run);
    const next = [...best.slice(0, run.first), ...again, ...best.slice(run.last)];
    const surer = confidences(next, voice.song !== undefined);
    if (sum(surer) <= sum(sure)) continue;
    [best, sure] = [next, surer];
  }
  return best;
}
