/** Lines of a script that are heard again where no word of it lies, with the times of their words. */
import type { Range } from '../time/range.ts';
import type { Aligner } from './aligner.ts';
import { confidences } from './confidence.ts';
import { framesIn, type Voice } from './fine.ts';
import type { Token } from './lattice.ts';
import { gapsBetween, lineIn, sungAgain, type Line } from './repeats.ts';
import { softlyBegun } from './softVowels.ts';
import { edgesOf, frameAt, soundsOf } from './wordEdges.ts';
import type { Repeat, Woven } from './woven.ts';

/** Where lines are looked for. */
interface Where {
  readonly aligner: Aligner;
  readonly voice: Voice;
  /** Of the phones. */
  readonly names: readonly string[];
  readonly within: Range | undefined;
  /** Of a song, as `softlyBegun` has them. */
  readonly levels: Uint8Array | undefined;
}

/** The words of a script that can be said, by their places in it, and how. */
interface Planned {
  readonly said: readonly number[];
  readonly tokens: readonly Token[];
}

/**
 * @param woven    of each word of the script
 * @param lines    the words that begin a line, by their places
 * @param planned  asked only where there is something to look for
 * @returns        in the order of the sound
 */
export function heardAgain(
  { aligner, voice, names, within, levels }: Where,
  woven: readonly Woven[],
  lines: readonly number[],
  planned: () => Planned,
  onProgress: (share: number) => void,
): Repeat[] {
  const taken = woven.flatMap(({ start, end }): [number, number][] =>
    start === null || end === null ? [] : [[frameAt(voice, start), frameAt(voice, end)]],
  );
  const count = framesIn(voice.frames);
  const bounds = within
    ? {
        from: Math.max(0, frameAt(voice, within.start)),
        to: Math.min(count, frameAt(voice, within.end)),
      }
    : { from: 0, to: count };
  const hasLine = lineIn(voice);
  const gaps = gapsBetween(taken, bounds).filter(hasLine);
  if (gaps.length === 0 || lines.length === 0) return [];
  const { said, tokens } = planned();
  const tokenOf = new Map(said.map((index, token) => [index, token]));
  const ends = [...lines.slice(1), woven.length];
  const all = lines.map((from, at): Line => {
    const own = said.filter((index) => index >= from && index < (ends[at] as number));
    const first = tokenOf.get(own[0] ?? -1) ?? 0;
    return { first, last: first + own.length };
  });
  return sungAgain(aligner, voice, tokens, all, gaps, onProgress).map(
    ({ first, last, places: rough }) => {
      const sure = confidences(rough, voice.song !== undefined);
      const places = levels ? softlyBegun(rough, levels, names) : rough;
      const edges = edgesOf(voice, places);
      const from = said[first] as number;
      const to = (said[last - 1] as number) + 1;
      return {
        from,
        to,
        woven: Array.from({ length: to - from }, (_, at): Woven => {
          const token = (tokenOf.get(from + at) ?? -1) - first;
          const [start, end] = edges[token] ?? [null, null];
          const sounds = soundsOf(voice, places[token], names);
          return { start, end, confidence: sure[token] ?? 0, source: 'woven', sounds };
        }),
      };
    },
  );
}
