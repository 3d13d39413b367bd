/** Songs that are sung otherwise than they are written: lines that come again between others, lines that are left out. */
import type { Range } from '../time/range.ts';
import type { Aligner } from './aligner.ts';
import type { Voice } from './fine.ts';
import { insertedIn, insertionsIn, omissionIn, unsettledIn } from './insertions.ts';
import type { Token } from './lattice.ts';
import { hasOneOf, type Line } from './repeats.ts';
import type { Pin, Repeat, Tap, Woven } from './woven.ts';

/** What was woven, as it is written. */
export interface AsWritten {
  readonly aligner: Aligner;
  readonly voice: Voice;
  readonly tokens: readonly Token[];
  /** Its lines by their tokens. */
  readonly script: readonly Line[];
  readonly pins: readonly Pin[];
  readonly taps: readonly Tap[];
  readonly within: Range | undefined;
}

/** A word of a line that is not sung. */
const UNSUNG: Woven = { start: null, end: null, confidence: 0, source: 'woven' };
/** A word that stands where it is by chance is about as sure as this. */
const CHANCE = 0.5;

/** Weaves lines as they are sung, in turn as `insertedIn` has them; gives the words that are written, where they are sung. */
type WeaveAs = (turn: readonly number[]) => Promise<readonly (Woven | undefined)[]>;

/** By how much words are surer; of one that is left out only what it was surer than {@link CHANCE} is lost. */
const gain = (before: readonly Woven[], after: readonly (Woven | undefined)[]): number =>
  before.reduce((sum, { confidence }, at) => {
    const now = after[at];
    return sum + (now ? now.confidence - confidence : Math.min(0, CHANCE - confidence));
  }, 0);

/**
 * Looks again where lines are not sure: with lines that come again between them, then without one that is not sung.
 *
 * @param woven  what came of the words as they are written; given back where nothing is surer
 */
export async function sungOtherwise(
  { aligner, voice, tokens, script, pins, taps, within }: AsWritten,
  woven: Woven[],
  weaveAs: WeaveAs,
): Promise<Woven[]> {
  let best = woven;
  const attempt = async (turn: readonly number[]): Promise<void> => {
    const found = await weaveAs(turn);
    if (gain(best, found) > 0) best = found.map((word) => word ?? UNSUNG);
  };
  const insertions = unsettledIn(voice, script, best, within)
    .filter((unsettled) => !hasOneOf(unsettled, pins))
    .flatMap((unsettled) => insertionsIn(aligner, voice, tokens, script, unsettled));
  if (insertions.length > 0) await attempt(insertedIn(script.length, insertions));

  const fixed = [...pins, ...taps];
  const unsung = new Set(
    unsettledIn(voice, script, best, within, 1)
      .map((unsettled) => omissionIn(aligner, voice, tokens, script, unsettled))
      .filter((line) => line !== undefined && !hasOneOf(script[line] as Line, fixed)),
  );
  const inserted = best === woven ? [] : insertions;
  if (unsung.size > 0)
    await attempt(insertedIn(script.length, inserted).filter((line) => !unsung.has(line)));
  return best;
}

/** So much surer is a line elsewhere, on average of its words, if it is there. */
const SURER = 0.15;
/** From so sure on a line is sung in both places; about as sure is one that is less sure by no more than this. */
const SUNG = 0.8;
const ABOUT = 0.05;

const meanOf = (some: readonly Woven[]): number =>
  some.reduce((sum, { confidence }) => sum + confidence, 0) / some.length;

/** Where a line goes that may be elsewhere: where it is clearly surer, or first where it is sung twice. */
function betterPlace(own: readonly Woven[], others: readonly Repeat[]): Repeat | undefined {
  const sure = meanOf(own);
  const [best] = [...others].sort((one, other) => meanOf(other.woven) - meanOf(one.woven));
  if (best && meanOf(best.woven) > sure + SURER) return best;
  return others
    .filter((other) => meanOf(other.woven) >= Math.max(SUNG, sure - ABOUT))
    .filter(({ woven }) => (woven[0]?.start ?? Infinity) < (own[0]?.start ?? -Infinity))
    .sort((one, other) => (one.woven[0]?.start ?? 0) - (other.woven[0]?.start ?? 0))[0];
}

/**
 * Lines that are found again beside where they stand, between their neighbours: each is where it is clearly surer. One that
 * is sung twice and written once is where it is sung first, whichever time was found first; the other is its repeat.
 *
 * @param words  as they are written; lines of the same words are one line
 * @param lines  those that may go elsewhere, by their words
 * @param again  lines that were found where no word stands
 */
export function whereSung(
  words: readonly string[],
  lines: readonly Line[],
  woven: readonly Woven[],
  again: readonly Repeat[],
): { readonly woven: Woven[]; readonly again: Repeat[] } {
  const textOf = (from: number, to: number) => words.slice(from, to).join(' ').toLowerCase();
  const best = [...woven];
  let left = [...again];
  for (const { first, last } of lines) {
    const own = best.slice(first, last);
    if (own.some(({ source }) => source === 'pinned')) continue;
    const before = best.slice(0, first).findLast(({ end }) => end !== null)?.end ?? -Infinity;
    const after = best.slice(last).find(({ start }) => start !== null)?.start ?? Infinity;
    const others = left.filter(
      (other) =>
        textOf(other.from, other.to) === textOf(first, last) &&
        (other.woven[0]?.start ?? -Infinity) >= before &&
        (other.woven.at(-1)?.end ?? Infinity) <= after,
    );
    const there = betterPlace(own, others);
    if (!there) continue;
    best.splice(first, last - first, ...there.woven);
    const isSungThere = meanOf(own) >= SUNG && own.every(({ start }) => start !== null);
    left = left.flatMap((other) =>
      other !== there ? [other] : isSungThere ? [{ ...other, woven: own }] : [],
    );
  }
  left.sort((one, other) => (one.woven[0]?.start ?? 0) - (other.woven[0]?.start ?? 0));
  return { woven: best, again: left };
}
