/**
 * The pulse of music: tempo over time, beats, bars and their metre.
 *
 * A network's activations (`pulseEvidence.ts`) are decoded into beats (`beats.ts`) and bars (`bars.ts`);
 * each beat is then put on the peak of the activation about it and, where the beats around it keep an even
 * pace, on the line through them. Stretches in which the activations stay low have no pulse.
 */
import { decodeBars } from './bars.ts';
import { decodeBeats } from './beats.ts';
import { BEATS_A_BAR, METRES, type Metre } from './metre.ts';
import { vertex } from './onsets.ts';
import type { PulseEvidence } from './pulseEvidence.ts';
import { STEPS_A_SECOND } from '../signal/steps.ts';

export interface FoundBeat {
  /** In seconds from the start of the sound. */
  readonly at: number;
  /** Whether a bar begins with it. */
  readonly bar: boolean;
  /** From 0 to 1. */
  readonly confidence: number;
}

export interface FoundPulse {
  readonly beats: readonly FoundBeat[];
  /** The metre of most bars; null where there is no steady pulse. */
  readonly metre: Metre | null;
  /** From 0 to 1: the mean over the beats; 0 where there is no steady pulse. */
  readonly confidence: number;
}

const ACTIVATIONS = 3;
/** Mean activation over some beats under which there is no pulse. */
const LEAST_CONFIDENCE = 0.3;
/** Beats to either side over which confidence is averaged. */
const ABOUT = 4;
/** A step is about two frames of 10 ms: its middle lies 5 ms after that of the first. */
const HALF_STEP = 0.005;
/** A pulse of fewer beats is none. */
const FEWEST = 6;

/** One of the activations, 0 to 1, by step. */
function activation({ activations }: PulseEvidence, which: number): Float32Array {
  const of = new Float32Array(Math.floor(activations.length / ACTIVATIONS));
  for (let step = 0; step < of.length; step++)
    of[step] = (activations[step * ACTIVATIONS + which] as number) / 255;
  return of;
}

/** The highest activation within two steps. */
function near(of: Float32Array, step: number): number {
  let best = 0;
  for (let off = -2; off <= 2; off++) best = Math.max(best, of[step + off] ?? 0);
  return best;
}

/** The mean activation over the beats around each, from 0 to 1. */
function confidenceAt(beat: Float32Array, steps: readonly number[]): number[] {
  const sums = new Float64Array(steps.length + 1);
  steps.forEach((step, at) => (sums[at + 1] = (sums[at] as number) + near(beat, step)));
  return steps.map((_, at) => {
    const [from, to] = [Math.max(0, at - ABOUT), Math.min(steps.length, at + ABOUT + 1)];
    return ((sums[to] as number) - (sums[from] as number)) / (to - from);
  });
}

/**
 * How sure it is of beats, wherever they come from.
 *
 * @param times  of the beats, in seconds, in order
 * @returns      from 0 to 1, one a beat: the mean over the beats around it
 */
export function sureOf(evidence: PulseEvidence, times: readonly number[]): number[] {
  const steps = times.map((at) =>
    Math.round((at - evidence.firstMiddle - HALF_STEP) * STEPS_A_SECOND),
  );
  return confidenceAt(activation(evidence, 0), steps);
}

export function findPulse(evidence: PulseEvidence): FoundPulse {
  const [beat, bar, threes] = [0, 1, 2].map((which) => activation(evidence, which)) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const steps = decodeBeats(beat);
  const confidence = confidenceAt(beat, steps);
  const runs = runsOf(steps, confidence);
  const found = runs.flatMap((run) => {
    const times = evened(run.map((at) => timeOf(evidence, beat, steps[at] as number)));
    const inThrees = dividesInThree(
      threes.subarray(steps[run[0] as number], (steps[run.at(-1) as number] ?? 0) + 1),
    );
    const places = decodeBars(
      run.map((at) => near(bar, steps[at] as number)),
      inThrees ? [BEATS_A_BAR['6/8']] : undefined,
    );
    return run.map((at, index) => ({
      at: times[index] as number,
      bar: places[index]?.place === 0,
      confidence: confidence[at] as number,
      metre: metreOf(places[index]?.length ?? 4, inThrees),
    }));
  });
  return {
    beats: found.map(({ at, bar: first, confidence: sure }) => ({
      at,
      bar: first,
      confidence: sure,
    })),
    metre: most(found.map(({ metre }) => metre)),
    confidence: found.length > 0 ? mean(found.map((each) => each.confidence)) : 0,
  };
}

/** Mean activation over a stretch from which on its beats divide in three. */
const LEAST_THREES = 0.4;

function dividesInThree(activation: Float32Array): boolean {
  const sum = activation.reduce((total, value) => total + value, 0);
  return sum > LEAST_THREES * activation.length;
}

function metreOf(length: number, inThrees: boolean): Metre {
  if (inThrees) return '6/8';
  return length === 3 ? '3/4' : length === 2 ? '2/4' : '4/4';
}

const mean = (values: readonly number[]) =>
  values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);

function most(metres: readonly Metre[]): Metre | null {
  const count = (metre: Metre) => metres.filter((each) => each === metre).length;
  return metres.length === 0
    ? null
    : METRES.reduce((best, metre) => (count(metre) > count(best) ? metre : best));
}

/** Stretches of beats, by index, that are sure enough. */
function runsOf(steps: readonly number[], confidence: readonly number[]): number[][] {
  const runs: number[][] = [];
  let run: number[] = [];
  steps.forEach((_, at) => {
    if ((confidence[at] as number) >= LEAST_CONFIDENCE) run.push(at);
    else if (run.length > 0) [runs[runs.length], run] = [run, []];
  });
  if (run.length > 0) runs.push(run);
  return runs.filter(({ length }) => length >= FEWEST);
}

/** The peak of the activation about a step, in seconds. */
function timeOf({ firstMiddle }: PulseEvidence, beat: Float32Array, step: number): number {
  let top = step;
  for (let off = -2; off <= 2; off++)
    if ((beat[step + off] ?? 0) > (beat[top] ?? 0)) top = step + off;
  return Math.max(0, firstMiddle + HALF_STEP + (top + vertex(beat, top)) / STEPS_A_SECOND);
}

/** Beats to either side of one through which a line is laid, and how far one may lie off it. */
const LINE = 3;
const OFF_LINE = 0.03;

/** Each beat put on the line through its neighbours where all of them lie near it. */
export function evened(times: readonly number[]): number[] {
  return times.map((time, at) => {
    const from = Math.max(0, at - LINE);
    const around = times.slice(from, at + LINE + 1);
    if (around.length < 4) return time;
    const { slope, level } = lineThrough(around);
    const off = around.map((each, index) => Math.abs(each - level - slope * index));
    return Math.max(...off) < OFF_LINE ? level + slope * (at - from) : time;
  });
}

/** The line with least squares through values at 0, 1, 2 and so on. */
function lineThrough(values: readonly number[]): { slope: number; level: number } {
  const middle = (values.length - 1) / 2;
  const average = mean(values);
  let [above, below] = [0, 0];
  values.forEach((value, at) => {
    above += (at - middle) * (value - average);
    below += (at - middle) ** 2;
  });
  const slope = above / below;
  return { slope, level: average - slope * middle };
}

export interface TempoAt {
  readonly at: number;
  /** Beats a minute. */
  readonly bpm: number;
}

/** Changes of tempo under this part are left out. */
const TEMPO_CHANGE = 0.015;

/** The tempo over time: an entry where it begins and wherever it has changed by more than 1.5 %. */
export function tempoOf(times: readonly number[]): TempoAt[] {
  const tempos: TempoAt[] = [];
  times.forEach((time, at) => {
    const from = Math.max(0, at - LINE);
    const around = times.slice(from, at + LINE + 1);
    if (around.length < 2) return;
    const bpm = 60 / lineThrough(around).slope;
    const last = tempos.at(-1);
    if (!last || Math.abs(bpm / last.bpm - 1) > TEMPO_CHANGE) tempos.push({ at: time, bpm });
  });
  return tempos;
}

/** The middle one of all tempi from beat to beat, in beats a minute; undefined of fewer than three beats. */
export function dominantTempo(times: readonly number[]): number | undefined {
  if (times.length < 3) return undefined;
  const steps = times.slice(1).map((time, at) => time - (times[at] as number));
  const middle = steps.sort((a, b) => a - b)[steps.length >> 1] as number;
  return 60 / middle;
}
