/**
 * Undo and redo as a reading of the steps that were taken.
 *
 * Nothing is ever taken out of the record: an undo is a step of its own that names the step it takes
 * back. What can be undone or redone is found by reading the record from its beginning.
 */
import type { Change } from './change.ts';

/** One kept step. `undoes` or `redoes` names the step whose changes it takes back or does again. */
export interface Step {
  readonly id: string;
  readonly name: string;
  readonly changes: readonly Change[];
  readonly undoes?: string;
  readonly redoes?: string;
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
