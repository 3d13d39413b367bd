/**
 * The sections of a song: intro, verses, choruses, breaks, by how bars are like each other.
 *
 * Each bar is described by its harmony in two halves, its drums and its loudness. A section begins where the bars that
 * come are least like those that were (Foote, "Automatic audio segmentation using a measure of audio novelty",
 * ICME 2000; here bar against bar of the phrase before, so that a progression that comes again is not new), chosen
 * over the whole song with a liking for phrases of four bars. Sections that go alike, bar by bar, are of one kind
 * (average linkage), and are named by how often they come and how loud they are.
 */
import { momentaryLufs, type Level } from '../signal/loudness.ts';
import { harmonyBetween } from '../pulse/barInputs.ts';
import type { PulseEvidence } from '../pulse/pulseEvidence.ts';
import { DRUMS } from '../pulse/drums.ts';
import { opinionOfDrum } from '../pulse/strokes.ts';
import { STEPS_A_SECOND } from '../signal/steps.ts';
import type { SectionKind } from './sectionKinds.ts';

/** Times in seconds from the start of the sound. */
export interface FoundSection {
  readonly start: number;
  readonly end: number;
  readonly kind: SectionKind;
  /** Sections with one letter are alike: A, B, C in the order in which they first come. */
  readonly letter: string;
}

/** A song of fewer bars has no sections. */
const FEWEST_BARS = 12;
/** What has more bars, some twenty minutes, is more than one song. */
const MOST_BARS = 600;
/** The bars of a phrase. */
const PHRASE = 4;
/** How much harmony, drums and loudness count. */
const COUNTS = { harmony: 0.55, drums: 0.25, loudness: 0.2 } as const;
/** A difference of loudness, in LU, over which no bar is less like another. */
const QUIETER = 12;
/** How much newer than the phrase before a section must begin. */
const LEAST_NEW = 0.12;
/** What a section loses that is not whole phrases, and one that is not whole half phrases. */
const ODD = [0.06, 0.15] as const;
/** What one loses that is a single phrase. */
const SHORT = 0.08;
/** Sections whose bars differ by less, on average, are alike. */
const ALIKE = 0.12;
/** A section so much quieter than the mean, in LU, is a break. */
const BREAK = 2;

interface Bar {
  readonly start: number;
  readonly end: number;
  readonly harmony: readonly number[];
  readonly drums: readonly number[];
  readonly loudness: number;
}

const mean = (values: ArrayLike<number>, from = 0, to = values.length): number => {
  let sum = 0;
  for (let at = Math.max(0, from); at < to; at++) sum += values[at] ?? 0;
  return sum / Math.max(1, to - from);
};

/** What sounds in each bar. */
function barsOf(evidence: PulseEvidence, momentary: Uint8Array, lines: readonly number[]): Bar[] {
  const drums = DRUMS.map((drum) => opinionOfDrum(evidence, drum));
  const step = (time: number) => Math.round((time - evidence.firstMiddle) * STEPS_A_SECOND);
  return lines.slice(1).map((end, at) => {
    const start = lines[at] as number;
    const middle = (start + end) / 2;
    const half = (from: number, to: number) => {
      const all = harmonyBetween(evidence, from, to).flatMap((register) => [...register]);
      const size = Math.hypot(...all);
      return all.map((value) => (size > 0 ? value / size : 0));
    };
    const heard = momentary.slice(Math.round(10 * start), Math.max(1, Math.round(10 * end)));
    return {
      start,
      end,
      harmony: [...half(start, middle), ...half(middle, end)],
      drums: drums.map((opinion) => mean(opinion, step(start), step(end))),
      loudness: Math.max(-70, momentaryLufs(mean(heard))),
    };
  });
}

/** How unlike two bars are, from 0 to 1. */
function differences(bars: readonly Bar[]): (a: number, b: number) => number {
  const most = DRUMS.map((_, drum) => Math.max(0.03, ...bars.map((bar) => bar.drums[drum] ?? 0)));
  const table = bars.map((a) =>
    bars.map((b) => {
      const both = a.harmony.reduce((sum, value, at) => sum + value * (b.harmony[at] ?? 0), 0);
      const drums = mean(
        a.drums.map((value, at) => Math.abs(value - (b.drums[at] ?? 0)) / (most[at] ?? 1)),
      );
      const quieter = Math.min(1, Math.abs(a.loudness - b.loudness) / QUIETER);
      return (
        COUNTS.harmony * Math.max(0, 1 - both / 2) +
        COUNTS.drums * drums +
        COUNTS.loudness * quieter
      );
    }),
  );
  return (a, b) => table[a]?.[b] ?? 1;
}

/** How unlike the bars from one on are to those from another on, one by one. */
function unlike(differ: (a: number, b: number) => number, a: number, b: number, count: number) {
  let sum = 0;
  for (let at = 0; at < count; at++) sum += differ(a + at, b + at);
  return sum / Math.max(1, count);
}

/** Where sections begin, by bar, and the end of the last. */
function headsOf(count: number, differ: (a: number, b: number) => number): number[] {
  const phrases = (bar: number, span: number): number | undefined => {
    const length = Math.min(span, count - bar);
    return bar >= span && length >= 2 ? unlike(differ, bar - span, bar, length) : undefined;
  };
  // What goes on as two phrases before is not new; half of these is enough to tell.
  const newness = (bar: number): number =>
    Math.min(phrases(bar, PHRASE) ?? 0, 2 * (phrases(bar, 2 * PHRASE) ?? 1));
  const odd = (length: number) =>
    (length % PHRASE === 0 ? 0 : length % 2 === 0 ? ODD[0] : ODD[1]) +
    (length <= PHRASE ? SHORT : 0);
  const best = [0];
  const came = [0];
  for (let bar = 1; bar <= count; bar++) {
    let [top, from] = [-Infinity, 0];
    for (let before = 0; before < bar; before++) {
      if (bar - before < (bar === count ? 1 : PHRASE)) continue;
      const value = (best[before] as number) - odd(bar - before);
      if (value > top) [top, from] = [value, before];
    }
    best.push(top + (bar < count ? newness(bar) - LEAST_NEW : 0));
    came.push(from);
  }
  const heads = [count];
  for (let bar = count; bar > 0; bar = came[bar] as number) heads.push(came[bar] as number);
  return heads.reverse();
}

/** The kind of each section by number, in the order in which they first come. */
function kindsOf(heads: readonly number[], differ: (a: number, b: number) => number): number[] {
  const parts = heads.slice(1).map((end, at) => ({ from: heads[at] as number, end }));
  const apart = parts.map((a) =>
    parts.map((b) => unlike(differ, a.from, b.from, Math.min(a.end - a.from, b.end - b.from))),
  );
  let groups = parts.map((_, at) => [at]);
  for (;;) {
    let [least, pair] = [ALIKE, undefined as readonly [number, number] | undefined];
    groups.forEach((one, a) => {
      groups.slice(a + 1).forEach((other, b) => {
        const far = mean(one.flatMap((x) => other.map((y) => apart[x]?.[y] ?? 1)));
        if (far < least) [least, pair] = [far, [a, a + 1 + b]];
      });
    });
    if (!pair) break;
    const [a, b] = pair;
    const joined = [...(groups[a] ?? []), ...(groups[b] ?? [])];
    groups = [...groups.filter((_, at) => at !== a && at !== b), joined];
  }
  const sorted = groups.map((group) => Math.min(...group)).sort((a, b) => a - b);
  return parts.map((_, at) =>
    sorted.indexOf(Math.min(...(groups.find((group) => group.includes(at)) ?? [at]))),
  );
}

/**
 * @param lines  bar lines in seconds, in order
 * @returns      in order, without gaps, from the first bar line to the last; none of what is too short or too long for a song
 */
export function findSections(
  evidence: PulseEvidence,
  { momentary }: Pick<Level, 'momentary'>,
  lines: readonly number[],
): FoundSection[] {
  const count = lines.length - 1;
  if (count < FEWEST_BARS || count > MOST_BARS) return [];
  const bars = barsOf(evidence, momentary, lines);
  const differ = differences(bars);
  const first = headsOf(bars.length, differ);
  const alike = kindsOf(first, differ);
  // A section goes on as long as what comes is alike.
  const begins = (at: number) => alike[at] !== alike[at - 1];
  const heads = first.filter((_, at) => at === alike.length || begins(at));
  const kinds = alike.filter((_, at) => begins(at));
  const parts = kinds.map((kind, at) => {
    const [from, to] = [heads[at] as number, heads[at + 1] as number];
    const within = bars.slice(from, to);
    return {
      kind,
      bars: to - from,
      start: within[0]?.start ?? 0,
      end: within.at(-1)?.end ?? 0,
      loudness: mean(within.map(({ loudness }) => loudness)),
    };
  });
  const whole = mean(bars.map(({ loudness }) => loudness));
  const groups = [...new Set(kinds)].map((kind) => {
    const own = parts.filter((part) => part.kind === kind);
    return {
      kind,
      times: own.length,
      bars: own.reduce((sum, part) => sum + part.bars, 0),
      loudness: mean(own.map(({ loudness }) => loudness)),
    };
  });
  const again = groups.filter(({ times }) => times > 1).sort((a, b) => b.loudness - a.loudness);
  const chorus = again[0]?.kind;
  // Where nothing comes again it is not known which is the verse.
  const verse =
    chorus === undefined
      ? undefined
      : groups
          .filter(({ kind, bars: long }) => kind !== chorus && long >= PHRASE)
          .sort((a, b) => b.times - a.times || b.bars - a.bars)
          .find(({ loudness, times }) => times > 1 || loudness > whole - BREAK)?.kind;
  const sung = kinds.findIndex((kind, at) => {
    const quiet = (parts[at]?.loudness ?? 0) < whole - BREAK;
    return kind === chorus || kind === verse || !quiet;
  });
  const nameOf = (at: number): SectionKind => {
    const { kind, loudness } = parts[at] as (typeof parts)[number];
    if (kind === chorus) return 'chorus';
    if (kind === verse) return 'verse';
    if (at === 0 || at < sung) return 'intro';
    if (at === parts.length - 1) return 'ending';
    return loudness < whole - BREAK ? 'break' : 'part';
  };
  return parts.map(({ kind, start, end }, at) => ({
    start,
    end,
    kind: nameOf(at),
    letter: String.fromCharCode(65 + (kind % 26)),
  }));
}
