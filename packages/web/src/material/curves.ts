/** What the plots of a sound show, computed from what was heard; and the figures beside them. */
import { momentaryLufs, silenceIn } from '@cadence/core/listen/signal/loudness.ts';
import type { KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { dominantTempo, sureOf, tempoOf } from '@cadence/core/listen/pulse/pulse.ts';
import { FRAMES_A_SECOND } from '@cadence/core/listen/signal/spectra.ts';
import { swingOf } from '@cadence/core/listen/pulse/swing.ts';

type Momentary = KeptHeard['level']['momentary'];

export interface Bars {
  readonly labels: readonly string[];
  readonly values: readonly number[];
}

export type Curve = readonly { readonly x: number; readonly y: number }[];

export interface Figures {
  /** Beats a minute; undefined without beats. */
  readonly tempo: number | undefined;
  /** See {@link swingOf}. */
  readonly swing: number | undefined;
  /** Share of the sound, 0 to 1. */
  readonly silence: number;
}

/** @param beats  in seconds, in order */
export const figuresOf = (
  level: KeptHeard['level'],
  pulse: KeptHeard['pulse'],
  beats: readonly number[],
): Figures => ({
  tempo: dominantTempo(beats),
  swing: swingOf(pulse, beats),
  silence: silenceIn(level),
});

/** How much of the sound, in percent, lies at which momentary loudness, in steps of 3 LU. */
export function loudnessBars(momentary: Momentary): Bars {
  const steps = Array.from({ length: 22 }, (_, at) => -63 + 3 * at);
  const counts = steps.map(() => 0);
  for (const kept of momentary) {
    const at = Math.floor((momentaryLufs(kept) + 64.5) / 3);
    if (at >= 0 && at < counts.length) counts[at] = (counts[at] ?? 0) + 1;
  }
  const total = Math.max(1, momentary.length);
  return { labels: steps.map(String), values: counts.map((count) => (100 * count) / total) };
}

/** Upper bounds of the bins of pauses, in seconds; the last holds all that are longer. */
const BOUNDS = [0.3, 0.4, 0.5, 0.6, 0.8, 1, 1.5, 2, 3, Infinity];

/** How many pauses are of which length. */
export const pauseBars = (pauses: readonly number[]): Bars => ({
  labels: BOUNDS.map((bound) => (bound === Infinity ? 'more' : `${bound} s`)),
  values: BOUNDS.map(
    (bound, at) => pauses.filter((pause) => pause < bound && pause >= (BOUNDS[at - 1] ?? 0)).length,
  ),
});

/** How many points a curve is drawn with at most. */
const POINTS = 240;

/** Beats a minute over the seconds. */
export function tempoCurve(beats: readonly number[]): Curve {
  const curve = tempoOf(beats).map(({ at, bpm }) => ({ x: at, y: bpm }));
  const last = curve.at(-1);
  return last ? [...curve, { x: beats.at(-1) ?? last.x, y: last.y }] : [];
}

/** How sure the program is of the beats as they stand now, in percent over the seconds. */
export function sureCurve(pulse: KeptHeard['pulse'], beats: readonly number[]): Curve {
  const sure = sureOf(pulse, beats);
  const each = Math.max(1, Math.ceil(beats.length / POINTS));
  return beats.flatMap((x, at) => (at % each === 0 ? [{ x, y: 100 * (sure[at] ?? 0) }] : []));
}

/** Onset strength in percent of the strongest, over the seconds. */
export function onsetCurve(onsets: KeptHeard['pulse']['onsets']): Curve {
  const most = onsets.reduce((high, value) => Math.max(high, value), 1);
  const each = onsets.length / POINTS;
  return Array.from({ length: POINTS }, (_, at) => {
    let high = 0;
    for (let frame = Math.floor(at * each); frame < (at + 1) * each; frame++)
      high = Math.max(high, onsets[frame] ?? 0);
    return { x: (at * each) / FRAMES_A_SECOND, y: (100 * high) / most };
  });
}
