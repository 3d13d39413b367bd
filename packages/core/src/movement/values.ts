/** Values of a move at times that have names, and what it is between them. */
import { eased } from './easing.ts';
import type { NamedTime, Stay } from './movement.ts';
import type { CueTime } from './threads.ts';

interface Instant {
  /** A frame of the cue. */
  readonly at: number;
  readonly value: number;
}

const known = new WeakMap<CueTime, WeakMap<Stay, readonly Instant[]>>();

/** The instants of a cue that have a name, in frames. */
const named = (when: NamedTime, time: CueTime): readonly number[] =>
  when === 'start' ? [0] : when === 'end' ? [time.length - 1] : (time[when] ?? []);

function instantsOf(stay: Stay, time: CueTime): readonly Instant[] {
  const ofTime = known.get(time) ?? new WeakMap<Stay, readonly Instant[]>();
  known.set(time, ofTime);
  const found = ofTime.get(stay);
  if (found) return found;
  const instants = (stay.at ?? [])
    .flatMap(({ when, values }) =>
      named(when, time).map((at, place): Instant => ({
        at: Math.round(at),
        value: values[place % values.length] ?? 0,
      })),
    )
    // What was named later counts where two fall on one frame.
    .sort((a, b) => a.at - b.at);
  ofTime.set(stay, instants);
  return instants;
}

/**
 * The value at a frame of a cue: as at the first of its instants before it, as at the last after it, and in between on its
 * way from one to the next. Undefined where none of its times is in the cue.
 */
export function valueAt(stay: Stay, frame: number, time: CueTime): number | undefined {
  const instants = instantsOf(stay, time);
  const next = instants.findIndex(({ at }) => at > frame);
  const before = instants[next < 0 ? instants.length - 1 : next - 1];
  const after = next < 0 ? undefined : instants[next];
  if (!before || !after) return (before ?? after)?.value;
  const share = (frame - before.at) / (after.at - before.at);
  return before.value + (after.value - before.value) * eased(stay.easing ?? 'soft', share);
}
