/**
 * Undo and redo as a reading of the steps that were taken.
 *
 * Nothing is ever taken out of the record: an undo is a step of its own that names the step it takes
 * back. What can be undone or redone is found by reading the record from its beginning.
 */
import type { Change } from './change.ts';

/**
 * One kept step. `undoes` or `redoes` names the step whose changes it takes back or does again; `goesWith` names the
 * step that brought it about, with which it is undone and redone.
 */
export interface Step {
  readonly id: string;
  readonly name: string;
  readonly changes: readonly Change[];
  readonly undoes?: string;
  readonly redoes?: string;
  readonly goesWith?: string;
}

export interface History {
  /** Steps that can be undone, the latest last. */
  readonly done: readonly Step[];
  /** Steps that can be redone, the next one last. */
  readonly undone: readonly Step[];
}

export const NO_HISTORY: History = { done: [], undone: [] };

/** The history after `step`. A step that names one no longer at the top changes nothing. */
export function record(history: History, step: Step): History {
  const { done, undone } = history;
  if (step.undoes !== undefined) {
    const last = done.at(-1);
    if (last?.id !== step.undoes) return history;
    return { done: done.slice(0, -1), undone: [...undone, last] };
  }
  if (step.redoes !== undefined) {
    const next = undone.at(-1);
    if (next?.id !== step.redoes) return history;
    return { done: [...done, next], undone: undone.slice(0, -1) };
  }
  return { done: [...done, step], undone: [] };
}

/**
 * What one press of undo takes back, the latest first: the last step, and where it goes with others, all of them
 * down to the one that brought them about.
 */
export function lastGroup({ done }: History): readonly Step[] {
  let from = done.length - 1;
  while (from > 0 && done[from]?.goesWith !== undefined) from--;
  return from < 0 ? [] : done.slice(from).reverse();
}

/** What one press of redo does again, in that order: the next step, and those that go with it. */
export function nextGroup({ undone }: History): readonly Step[] {
  let from = undone.length - 1;
  while (from > 0 && undone[from - 1]?.goesWith !== undefined) from--;
  return from < 0 ? [] : undone.slice(from).reverse();
}
