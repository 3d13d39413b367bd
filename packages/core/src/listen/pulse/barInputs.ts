/**
 * What the bars are found from: what sounds on each beat and half-way to the next, and how the harmony changes there.
 *
 * Beat by beat, whatever the tempo (after Durand, Bello, David and Richard, "Feature adapted convolutional neural
 * networks for downbeat tracking", ICASSP 2016; and Krebs, Böck and Widmer, "Downbeat tracking using beat-synchronous
 * features and recurrent networks", ISMIR 2016).
 */
import { STEPS_A_SECOND } from '../signal/steps.ts';
import { FRAMES_A_SECOND } from '../signal/spectra.ts';
import { DRUMS } from './drums.ts';
import { FIRST_HARMONY, HARMONIES_A_SECOND, HARMONY, NAMES } from './harmony.ts';
import { ONSET_STEP } from './onsets.ts';
import { ACTIVATIONS, type PulseEvidence } from './pulseEvidence.ts';

/** So many beats before and after a beat are compared. */
const SPANS = [1, 2, 4] as const;
/** So far back a beat is compared with another one. */
const BACK = [2, 3, 4] as const;

/** Numbers that are told of each beat. */
export const BAR_INPUTS = 6 + 2 * DRUMS.length + 2 * SPANS.length + BACK.length + 2;

/** A sum over stretches of beats, by register. */
type Registers = readonly [Float64Array, Float64Array];

/** From 0 for the same pitches to 1 for others. */
function distance(a: Float64Array, b: Float64Array): number {
  let [both, one, other] = [0, 0, 0];
  for (let at = 0; at < a.length; at++) {
    const [x, y] = [a[at] as number, b[at] as number];
    both += x * y;
    one += x * x;
    other += y * y;
  }
  return one * other > 0 ? 1 - both / Math.sqrt(one * other) : 0;
}

/** The mean harmony between two instants, in seconds. */
export function harmonyBetween({ harmony }: PulseEvidence, from: number, to: number): Registers {
  const place = (time: number) => (time - FIRST_HARMONY) * HARMONIES_A_SECOND;
  const first = Math.max(0, Math.round(place(from)));
  const last = Math.min(harmony.length / HARMONY, Math.max(first + 1, Math.round(place(to))));
  const registers: Registers = [new Float64Array(NAMES), new Float64Array(NAMES)];
  for (let frame = first; frame < last; frame++)
    for (let name = 0; name < HARMONY; name++) {
      const register = registers[name < NAMES ? 0 : 1];
      const value = harmony[frame * HARMONY + name] as number;
      register[name % NAMES] = (register[name % NAMES] as number) + value / (last - first);
    }
  return registers;
}

function sumOf(all: readonly Registers[], register: 0 | 1, from: number, to: number): Float64Array {
  const sum = new Float64Array(NAMES);
  for (let at = Math.max(0, from); at < Math.min(all.length, to); at++)
    for (let name = 0; name < NAMES; name++)
      sum[name] = (sum[name] as number) + (all[at]?.[register][name] as number);
  return sum;
}

const loudness = (of: Float64Array) => Math.log(1 + of.reduce((sum, value) => sum + value, 0));

/**
 * @param beats  times in seconds, in order
 * @returns      {@link BAR_INPUTS} numbers a beat
 */
export function barInputs(evidence: PulseEvidence, beats: readonly number[]): Float32Array {
  const { activations, strokes, onsets, firstMiddle } = evidence;
  const near = (of: Uint8Array, which: number, count: number, time: number): number => {
    const step = Math.round((time - firstMiddle) * STEPS_A_SECOND - 0.25);
    let most = 0;
    for (let off = -2; off <= 2; off++)
      most = Math.max(most, of[(step + off) * count + which] ?? 0);
    return most / 255;
  };
  const opinion = (which: number, time: number) => near(activations, which, ACTIVATIONS, time);
  const struck = (drum: number, time: number) => near(strokes, drum, DRUMS.length, time);
  const strength = (time: number): number => {
    const frame = Math.round((time - firstMiddle) * FRAMES_A_SECOND);
    let most = 0;
    for (let off = -3; off <= 3; off++) most = Math.max(most, onsets[frame + off] ?? 0);
    return most * ONSET_STEP;
  };
  const length = (at: number) => {
    const to = Math.min(beats.length - 1, at + 1);
    return to > 0 ? (beats[to] as number) - (beats[to - 1] as number) : 0.5;
  };
  const harmonies = beats.map((time, at) => harmonyBetween(evidence, time, time + length(at)));
  const inputs = new Float32Array(beats.length * BAR_INPUTS);
  beats.forEach((time, at) => {
    const middle = time + length(at) / 2;
    const own = harmonies[at] as Registers;
    const before = harmonies[at - 1] ?? own;
    const over = (register: 0 | 1, span: number) =>
      at === 0
        ? 0
        : distance(
            sumOf(harmonies, register, at - span, at),
            sumOf(harmonies, register, at, at + span),
          );
    const back = (by: number) => {
      const other = harmonies[Math.max(0, at - by)] as Registers;
      return distance(own[0], other[0]) + distance(own[1], other[1]);
    };
    inputs.set(
      [
        opinion(1, time),
        opinion(0, time),
        opinion(0, middle),
        strength(time),
        strength(middle),
        Math.log2(length(at)),
        ...DRUMS.flatMap((_, drum) => [struck(drum, time), struck(drum, middle)]),
        ...SPANS.flatMap((span) => [over(0, span), over(1, span)]),
        ...BACK.map(back),
        loudness(own[0]) - loudness(before[0]),
        loudness(own[1]) - loudness(before[1]),
      ],
      at * BAR_INPUTS,
    );
  });
  return inputs;
}
