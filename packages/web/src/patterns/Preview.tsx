/** A pattern as it moves on a text, over and over while it is looked at; else as it stands half-way. */
import { useEffect, useRef } from 'react';
import { STILL } from '@cadence/core/movement/movement.ts';
import type { Cue, Pattern, Programme } from '@cadence/core/programme/programme.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { frames, nominalRate } from '@cadence/core/time/frameRate.ts';
import { add, subtract, type Ticks } from '@cadence/core/time/ticks.ts';
import { NO_PICTURES } from '@cadence/paint/stage.ts';
import { stage } from '../picture/studio.ts';

const [WIDTH, HEIGHT] = [234, 74];
/** Frames a second of a preview, and how long it is seen before it begins again. */
const [RATE, LONGEST] = [12, 4];

interface Props {
  readonly programme: Programme;
  readonly pattern: Pattern;
  readonly cue: Cue;
  readonly playing: boolean;
  /** Counts up when letters came. */
  readonly fonts: number;
}

/** A programme that has nothing but one cue in a pattern, in the middle of a frame as wide as the preview. */
function alone(programme: Programme, pattern: Pattern, cue: Cue): Programme {
  const height = Math.round((programme.facts.frame.width * HEIGHT) / WIDTH);
  const strand = programme.strands[cue.strand];
  const worn: Cue = { ...cue, style: {}, movement: null, pattern: pattern.id };
  return {
    ...programme,
    facts: { ...programme.facts, frame: { ...programme.facts.frame, height }, picture: null },
    strands: strand ? { [strand.id]: { ...strand, muted: false, overlapAllowed: false } } : {},
    cues: { [worn.id]: worn },
    patterns: {
      [pattern.id]: {
        ...pattern,
        look: { ...pattern.look, down: 'middle', across: 'centre', behind: null },
      },
    },
  };
}

export function Preview({ programme, pattern, cue, playing, fonts }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const scale = window.devicePixelRatio;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || fonts === 0) return undefined;
    const shown = alone(programme, pattern, cue);
    const { frameRate, frame } = shown.facts;
    const draw = (at: Ticks): void => {
      context.setTransform(1, 0, 0, 1, 0, 0);
      const list = sceneAt(shown, at, stage.shelf);
      stage.draw(context, list, NO_PICTURES, (WIDTH * scale) / frame.width);
    };
    const length = subtract(cue.end, cue.start);
    if (!playing || pattern.movement === STILL) {
      draw(add(cue.start, (length / 2) as Ticks));
      return undefined;
    }
    let frameNumber = 0;
    const step = Math.max(1, Math.round(nominalRate(frameRate) / RATE));
    const timer = setInterval(() => {
      const at = frames(frameNumber, frameRate);
      frameNumber =
        at >= length || frameNumber > LONGEST * nominalRate(frameRate) ? 0 : frameNumber + step;
      draw(add(cue.start, at));
    }, 1000 / RATE);
    return () => clearInterval(timer);
  }, [programme, pattern, cue, playing, fonts, scale]);
  return (
    <canvas
      ref={canvas}
      width={WIDTH * scale}
      height={HEIGHT * scale}
      style={{ width: '100%', aspectRatio: `${WIDTH} / ${HEIGHT}`, display: 'block' }}
      aria-hidden
    />
  );
}
