/**
 * Lines of a script that are heard again where nothing is written: a chorus that was written once, a line that is said twice.
 *
 * Where somebody sings or speaks for a while and no word lies, the lines of the script are tried by the coarse pass. The few
 * that fit best are aligned, and one of which the words are sure is taken. What is left before and after it is tried again.
 */
import type { Aligner } from './aligner.ts';
import { coarsePath } from './coarsePass.ts';
import { confidences } from './confidence.ts';
import { STEP } from './cepstra.ts';
import { framesIn, type Stretch, type Voice } from './fine.ts';
import type { Token } from './lattice.ts';
import type { Placed, Places } from './placed.ts';
import { STRIDE } from './settings.ts';
import { singsAt, type HeardSong } from './song.ts';
import { FRAME } from './wordEdges.ts';

/** A line of the script by its tokens, and the one after its last. */
export interface Line {
  readonly first: number;
  readonly last: number;
}

/** A line that is sung again, and where each of its words lies. */
export interface Again extends Line {
  readonly places: Places;
}

/** Less singing than this is no line, in frames. */
const LEAST_SUNG = 80;
/** A line of fewer tokens could be anywhere. */
export const LEAST_TOKENS = 2;
/** How many lines are looked at closely for one place. */
const CLOSELY = 3;
/** How sure its words must be on the whole, and each of them. */
const SURE_ENOUGH = 0.65;
const SURE_EACH = 0.35;
/** How much of a line is singing: what an instrument plays is that only here and there. */
const SUNG_THROUGH = 0.8;
/** So many lines are tried in one place: those nearest to it in the script. */
const MOST_TRIED = 60;
/** A place with more frames is no gap in a song. */
const MOST_FRAMES = 6000;

/** Whether one of some words stands in a line. */
export const hasOneOf = (
  { first, last }: Line,
  words: readonly { readonly index: number }[],
): boolean => words.some(({ index }) => index >= first && index < last);

/** Some frames: the first, and the one after the last. */
export interface Frames {
  readonly from: number;
  readonly to: number;
}

/** What lies between the frames of words, in order. */
export function gapsBetween(words: readonly (readonly [number, number])[], whole: Frames): Gap[] {
  const gaps: Gap[] = [];
  let from = whole.from;
  [...words, [whole.to, whole.to] as const].forEach(([start, end], after) => {
    if (start > from) gaps.push({ from, to: start, after });
    from = Math.max(from, end);
  });
  return gaps;
}

/** How many frames between two are singing. */
function sungFrames(song: HeardSong, from: number, to: number): number {
  let count = 0;
  for (let frame = from; frame < to; frame++) if (singsAt(song, frame)) count++;
  return count;
}

/** What is so much quieter than the loud frames of a sound is a pause between spoken words, in decibels. */
const PAUSE = 30;

/** For each frame, how many before it are loud enough to be spoken. */
function spokenUpTo({ loudness, frames }: Voice): Uint32Array {
  const steps = Math.round(FRAME / STEP);
  const loud = Float32Array.from(loudness).sort()[Math.floor(0.9 * loudness.length)] ?? 0;
  const counts = new Uint32Array(framesIn(frames) + 1);
  for (let frame = 0; frame + 1 < counts.length; frame++)
    counts[frame + 1] =
      (counts[frame] as number) + Number((loudness[frame * steps] ?? -Infinity) >= loud - PAUSE);
  return counts;
}

/** Tells whether there is singing, or speech where nobody sings, for a line between two frames. */
export function lineIn(voice: Voice): (gap: Frames) => boolean {
  const { song } = voice;
  const spoken = song ? undefined : spokenUpTo(voice);
  return ({ from, to }) => {
    if (to - from < LEAST_SUNG || to - from > MOST_FRAMES) return false;
    const heard = spoken
      ? (spoken[to] ?? 0) - (spoken[from] ?? 0)
      : song
        ? sungFrames(song, from, to)
        : 0;
    return heard >= LEAST_SUNG;
  };
}

/** The share of singing from the first to the last of some words. */
function sungShare({ song }: Voice, places: Places): number {
  const said = places.filter((place): place is Placed => place !== undefined);
  const [from, to] = [said[0]?.from ?? 0, said.at(-1)?.to ?? 0];
  return !song || to <= from ? 1 : sungFrames(song, from, to) / (to - from);
}

/** How far around where the coarse pass had a line it is aligned, in frames. */
const AROUND = 150;

/** Where a line lies in a gap by the coarse pass, and how badly it fits: what a frame of the best path costs on average. */
interface Rough extends Frames {
  readonly fit: number;
}

/** @returns  undefined where the coarse pass leaves a word out */
function roughly(
  aligner: Aligner,
  voice: Voice,
  tokens: readonly Token[],
  gap: Frames,
): Rough | undefined {
  const { coarse } = voice;
  const first = Math.floor(gap.from / STRIDE);
  const last = Math.min(coarse.count, Math.ceil(gap.to / STRIDE));
  const found = coarsePath(aligner.plain, voice.coarse, tokens, first, last);
  if (!found) return undefined;
  const said = new Set(found.tokenOf.filter((token) => token >= 0));
  if (said.size < tokens.length) return undefined;
  const begins = first + found.tokenOf.findIndex((token) => token >= 0);
  const ends = first + found.tokenOf.findLastIndex((token) => token >= 0) + 1;
  return {
    fit: -found.path.score / (last - first),
    from: Math.max(gap.from, begins * STRIDE - AROUND),
    to: Math.min(gap.to, ends * STRIDE + AROUND),
  };
}

/** Lines of which none is said like one before it. */
export function differing<T extends Line>(lines: readonly T[], tokens: readonly Token[]): T[] {
  const seen = new Set<string>();
  return lines.filter(({ first, last }) => {
    const key = JSON.stringify(tokens.slice(first, last).map(({ readings }) => readings));
    return !seen.has(key) && seen.add(key);
  });
}

/** A place without words of the script. */
export interface Gap extends Frames {
  /** How many words of the script lie before it. */
  readonly after: number;
}

/**
 * @param lines  of the script
 * @param gaps   where no word of it lies
 * @param onProgress  called now and then with the progress, from 0 to 1
 */
export function sungAgain(
  aligner: Aligner,
  voice: Voice,
  tokens: readonly Token[],
  lines: readonly Line[],
  gaps: readonly Gap[],
  onProgress: (share: number) => void,
): Again[] {
  const free = tokens.map((token): Token => ({ ...token, bounds: undefined }));
  const tried = differing(lines, tokens).filter(({ first, last }) => last - first >= LEAST_TOKENS);
  const hasLine = lineIn(voice);
  const near = ({ after }: Gap): Line[] =>
    [...tried]
      .sort((a, b) => Math.abs(a.first - after) - Math.abs(b.first - after))
      .slice(0, MOST_TRIED)
      .sort((a, b) => a.first - b.first);
  const within = (gap: Gap): Again[] => {
    if (!hasLine(gap)) return [];
    const best = near(gap)
      .flatMap((line) => {
        const rough = roughly(aligner, voice, free.slice(line.first, line.last), gap);
        return rough ? [{ line, rough }] : [];
      })
      .sort((a, b) => a.rough.fit - b.rough.fit)
      .slice(0, CLOSELY)
      .map(({ line, rough }) => {
        const stretch: Stretch = { from: rough.from, to: rough.to, ...line };
        const found = aligner.places(voice, free, stretch);
        const sure = confidences(found, voice.song !== undefined);
        return {
          ...line,
          places: found,
          sure: sure.reduce((sum, one) => sum + one, 0) / sure.length,
          least: Math.min(...sure),
          share: sungShare(voice, found),
        };
      })
      .filter(
        ({ sure, least, share }) =>
          sure >= SURE_ENOUGH && least >= SURE_EACH && share >= SUNG_THROUGH,
      )
      .sort((a, b) => b.sure - a.sure)[0];
    if (!best) return [];
    const said = best.places.filter((place): place is Placed => place !== undefined);
    const [start, end] = [said[0]?.from ?? gap.to, said.at(-1)?.to ?? gap.from];
    return [
      ...within({ ...gap, to: start }),
      { first: best.first, last: best.last, places: best.places },
      ...within({ ...gap, from: end }),
    ];
  };
  return gaps.flatMap((gap, at) => {
    onProgress(at / gaps.length);
    return within(gap);
  });
}
