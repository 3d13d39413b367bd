/** Writing the text of a cue where it lies; the place that shows it does it. */
import type { Id } from '@cadence/core/programme/programme.ts';

let writer: ((cue: Id) => void) | undefined;

/** Says who lets the text of a cue be written; gives what ends it. */
export function writeWith(writes: (cue: Id) => void): () => void {
  writer = writes;
  return () => {
    if (writer === writes) writer = undefined;
  };
}

/** Lets the text of a cue be written, where the place at hand can. */
export const write = (cue: Id): void => writer?.(cue);
