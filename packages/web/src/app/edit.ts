/** Making edits, undoing and redoing them: the only ways in which the interface changes a programme. */
import { invert, type Edit } from '@cadence/core/programme/change.ts';
import type { Step } from '@cadence/core/programme/history.ts';
import { tooLarge } from '@cadence/core/programme/limits.ts';
import { withTies } from '@cadence/core/programme/ties.ts';
import { layBy, takeUp } from './laidBy.ts';
import { sendWaiting } from './outbox.ts';
import { drafted, made, MANY, stepOf } from './programmeState.ts';
import { say } from './say.ts';
import { openNow, store } from './store.ts';

export const newId = (): string => crypto.randomUUID();

const watching = new Set<(edit: Edit) => void>();

/** Has a listener told of every edit that the editor makes, once it is made; not of what is undone or redone. */
export function whenMade(listener: (edit: Edit) => void): () => void {
  watching.add(listener);
  return () => watching.delete(listener);
}

/**
 * Makes an edit with what is tied to what it moves, and says its note if it has one. Returns whether it changed
 * anything.
 */
export function make(wanted: Edit, known: Partial<Step> = {}): boolean {
  const edit = wanted.changes.length > 0 ? withTies(openNow().programme, wanted) : wanted;
  if (edit.note) say.note(edit.note);
  if (edit.changes.length === 0) {
    if (openNow().draft) store.dispatch(drafted(null));
    return false;
  }
  // Large edits are made in workers, which have looked at them.
  const problem = edit.changes.length <= MANY ? tooLarge(edit) : undefined;
  if (problem !== undefined) {
    say.problem(`${problem} Nothing was changed.`);
    return false;
  }
  store.dispatch(made(stepOf(edit, known)));
  sendWaiting();
  watching.forEach((listener) => {
    listener(edit);
  });
  return true;
}

/** Makes an edit of what was typed, which may have been laid by. */
export const makeTyped = (edit: Edit): boolean => make(edit, takeUp());

/** Lays by what making an edit of the typing would come to, in case that the page ends before it rests. */
export const typing = (edit: Edit): void => layBy(openNow().id, edit);

/** Shows an edit that is still in the hand; null puts everything back. */
export function draft(edit: Edit | null): void {
  store.dispatch(drafted(edit && edit.changes.length > 0 ? edit : null));
}

/** Makes the edit that is in the hand. */
export function keepDraft(): void {
  const { draft: edit } = openNow();
  if (edit) make({ name: edit.name, changes: edit.changes });
}

/** The name of the step by which words settle after an edit: the editor takes it back, and does it again, with that edit. */
export const SETTLED = 'Settle words';

export function undo(): void {
  let step = openNow().history.done.at(-1);
  for (let goesOn = true; step && goesOn; step = openNow().history.done.at(-1)) {
    const { id, name, changes } = step;
    store.dispatch(made(stepOf({ name, changes: invert(changes) }, { undoes: id })));
    goesOn = name === SETTLED;
  }
  sendWaiting();
}

export function redo(): void {
  let step = openNow().history.undone.at(-1);
  for (let goesOn = true; step && goesOn; step = openNow().history.undone.at(-1)) {
    store.dispatch(made(stepOf(step, { id: newId(), redoes: step.id })));
    goesOn = openNow().history.undone.at(-1)?.name === SETTLED;
  }
  sendWaiting();
}

/** The name of the last of some steps that the editor made. */
export const nameOfLast = (steps: readonly Step[]): string | undefined =>
  steps.findLast(({ name }) => name !== SETTLED)?.name;
