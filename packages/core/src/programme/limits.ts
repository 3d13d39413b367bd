/** What no edit goes below or beyond. */
import { frameLength } from '../time/frameRate.ts';
import type { Ticks } from '../time/ticks.ts';
import type { Programme } from './programme.ts';

/** The shortest cue there can be: one frame. */
export const shortestCue = (programme: Programme): Ticks => frameLength(programme.facts.frameRate);
