/**
 * Strokes of a drum kit in music, drum by drum.
 *
 * A network says in each step whether a drum is struck; a stroke is where its opinion is at a peak that is high
 * enough (after Vogl, Widmer and Knees, "Towards multi-instrument drum transcription", DAFx 2018). Soft strokes
 * between the others, ghosts, were left open in its teaching and are seldom found.
 */
import { STEPS_A_SECOND } from '../signal/steps.ts';
import { DRUMS, type Drum } from './drums.ts';
import { vertex } from './onsets.ts';
import { oneOf, STEP_MIDDLE, type PulseEvidence } from './pulseEvidence.ts';

export interface FoundStroke {
  /** In seconds from the start of the sound. */
  readonly at: number;
  readonly drum: Drum;
  /** From 0 to 1. */
  readonly confidence: number;
}

/** An opinion under this is no stroke. */
const LEAST: Readonly<Record<Drum, number>> = { kick: 0.4, snare: 0.45, closed: 0.25, open: 0.2 };
/** Two strokes of a drum are never nearer than so many steps of 20 ms. */
const APART = 3;

/** That a drum is struck, from 0 to 1, by step. */
export const opinionOfDrum = ({ strokes }: Pick<PulseEvidence, 'strokes'>, drum: Drum) =>
  oneOf(strokes, DRUMS.indexOf(drum), DRUMS.length);

/** Every stroke, in order. */
export function findStrokes(evidence: PulseEvidence): FoundStroke[] {
  const strokes = DRUMS.flatMap((drum) => {
    const opinion = opinionOfDrum(evidence, drum);
    const found: FoundStroke[] = [];
    let last = -APART;
    opinion.forEach((value, step) => {
      if (value < LEAST[drum] || step - last < APART) return;
      if (value < (opinion[step - 1] ?? 0) || value <= (opinion[step + 1] ?? 0)) return;
      last = step;
      const at =
        evidence.firstMiddle + STEP_MIDDLE + (step + vertex(opinion, step)) / STEPS_A_SECOND;
      found.push({ at: Math.max(0, at), drum, confidence: value });
    });
    return found;
  });
  return strokes.sort((a, b) => a.at - b.at);
}
