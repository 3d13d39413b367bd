/**
 * The pulse of music: tempo over time, beats, bars and their metre.
 *
 * A network's activations (`pulseEvidence.ts`) are decoded into beats (`beats.ts`) and bars (`bars.ts`);
 * each beat is then put on the peak of the activation about it and, where the beats around it keep an even
 * pace, on the line through them. Stretches in which the activations stay low have no pulse.
 */
import { decodeBars, type BarOpinion, type BarPlace } from './bars.ts';
import { barOpinions } from './barOpinions.ts';
import { decodeBeats } from './beats.ts';
import { METRES, type Metre } from './metre.ts';
import { dividesInThree } from './threes.ts';
import { vertex } from './onsets.ts';
import { opinionOf, STEP_MIDDLE, type PulseEvidence } from './pulseEvidence.ts';
import { STEPS_A_SECOND } from '../signal/steps.ts';

export interface FoundBeat {
  /** In seconds from the start of the sound. */
  readonly at: number;
  /** Whether a bar begins with it. */
  readonly bar: boolean;
  /** Of its bar. */
  readonly metre: Metre;
  /** From 0 to 1. */
  readonly confidence: number;
  /** How sure it is that a bar begins with it, or does not, from 0 to 1. */
  readonly barConfidence: number;
  /** What the bars are settled by. */
  readonly opinion: BarOpinion;
}

export interface FoundPulse {
  readonly beats: readonly FoundBeat[];
  /** The metre of most bars; null where there is no steady pulse. */
  readonly metre: Metre | null;
  /** From 0 to 1: the mean over the beats; 0 where there is no steady pulse. */
  readonly confidence: number;
}

/** Mean activation over some beats under which there is no pulse. */
const LEAST_CONFIDENCE = 0.3;
/** Beats to either side over which confidence is averaged. */
const ABOUT = 4;
/** A pulse of fewer beats is none. */
const FEWEST = 6;

/** Where bars begin, in seconds, in order. */
export const barLinesOf = ({ beats }: Pick<FoundPulse, 'beats'>): number[] =>
  beats.filter(({ bar }) => bar).map(({ at }) => at);

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
    Math.round((at - evidence.firstMiddle - STEP_MIDDLE) * STEPS_A_SECOND),
  );
  return confidenceAt(opinionOf(evidence, 0), steps);
}

export function findPulse(evidence: PulseEvidence): FoundPulse {
  const beat = opinionOf(evidence, 0);
  const steps = decodeBeats(beat);
  const confidence = confidenceAt(beat, steps);
  const runs = runsOf(steps, confidence);
  const found = runs.flatMap((run) => {
    const times = evened(run.map((at) => timeOf(evidence, beat, steps[at] as number)));
    const inThrees = dividesInThree(evidence, times);
    const opinions = barOpinions(evidence, times, inThrees);
    return decodeBars(opinions).map((place, index): FoundBeat => ({
      at: times[index] as number,
      bar: place.place === 0,
      metre: metreOf(place, inThrees),
      confidence: confidence[run[index] as number] as number,
      barConfidence: place.confidence,
      opinion: opinions[index] as BarOpinion,
    }));
  });
  return {
    beats: found,
    metre: most(found.map(({ metre }) => metre)),
    confidence: found.length > 0 ? mean(found.map((each) => each.confidence)) : 0,
  };
}

/** Beats in three make 6/8 of a bar of two; four of them swing. */
function metreOf({ length }: BarPlace, inThrees: boolean): Metre {
  if (inThrees && length === 2) return '6/8';
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
  return Math.max(0, firstMiddle + STEP_MIDDLE + (top + vertex(beat, top)) / STEPS_A_SECOND);
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
