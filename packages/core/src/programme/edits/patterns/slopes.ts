/** The slopes of a cue: until when its text comes in, and from when on it goes, and dragging them. */
import { framesLong, type Duration } from '../../../movement/movement.ts';
import { framesOf } from '../../../movement/threads.ts';
import { countFrames, frames } from '../../../time/frameRate.ts';
import { add, subtract, type Ticks } from '../../../time/ticks.ts';
import { timeOfCue } from '../../cueTime.ts';
import { movementOf, styleOf } from '../../patterns.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import type { Edit } from '../../record/change.ts';
import type { Edge } from '../cues/trimCue.ts';
import { changeMovement } from './patterns.ts';

/** Times of the programme; undefined where the text does not come in, or go, in a time of its own. */
export interface Slopes {
  readonly start?: Ticks;
  readonly end?: Ticks;
}

/** The slopes of a cue as long as one of its parts takes, within the cue. */
export function slopesOf(programme: Programme, cue: Cue): Slopes {
  if (cue.passage) return {};
  const movement = movementOf(programme, cue, styleOf(programme, cue).fade ?? 0);
  if (!movement) return {};
  const { comesIn, goes } = movement;
  const { frameRate } = programme.facts;
  const long = (takes: Duration): Ticks => {
    // What is in frames needs nothing of what is heard.
    const asked = takes.in === 'frames' ? takes.count : framesOf(takes, timeOfCue(programme, cue));
    const most = countFrames(subtract(cue.end, cue.start), frameRate);
    return frames(Math.min(most, Math.max(0, Math.round(asked))), frameRate);
  };
  return {
    ...(comesIn?.takes && { start: add(cue.start, long(comesIn.takes)) }),
    ...(goes?.takes && goes.when !== 'cut' && { end: subtract(cue.end, long(goes.takes)) }),
  };
}

/** Has a cue come in, or go, in the time up to an instant: of its own, whatever its pattern says. */
export function moveSlope(programme: Programme, id: Id, edge: Edge, to: Ticks): Edit {
  const cue = programme.cues[id];
  const name = edge === 'start' ? 'Change how a cue comes in' : 'Change how a cue goes';
  const movement = cue && movementOf(programme, cue, styleOf(programme, cue).fade ?? 0);
  const phase = movement?.[edge === 'start' ? 'comesIn' : 'goes'];
  if (!cue || !phase) return { name, changes: [] };
  const { frameRate } = programme.facts;
  const since = countFrames(to, frameRate) - countFrames(cue.start, frameRate);
  const left = countFrames(cue.end, frameRate) - countFrames(to, frameRate);
  const most = countFrames(subtract(cue.end, cue.start), frameRate);
  const takes = framesLong(Math.max(0, Math.min(most, edge === 'start' ? since : left)));
  const part = edge === 'start' ? 'comesIn' : 'goes';
  return { ...changeMovement(programme, [id], { [part]: { ...phase, takes } }), name };
}
