/** Making edits, undoing and redoing them: the only ways in which the interface changes a programme. */
import { invert, type Edit } from '@cadence/core/programme/change.ts';
import { tooLarge } from '@cadence/core/programme/limits.ts';
import { withTies } from '@cadence/core/programme/ties.ts';
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
export function make(wanted: Edit): boolean {
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
  store.dispatch(made(stepOf(edit)));
  sendWaiting();
  watching.forEach((listener) => {
    listener(edit);
  });
  return true;
}

/** Shows an edit that is still in the hand; null puts everything back. */
export function draft(edit: Edit | null): void {
  store.dispatch(drafted(edit && edit.changes.length > 0 ? edit : null));
}

/** Makes the edit that is in the hand. */
export function keepDraft(): void {
  const { draft: edit } = openNow();
  if (edit) make({ name: edit.name, changes: edit.changes });
}

export function undo(): void {
  const step = openNow().history.done.at(-1);
  if (!step) return;
  store.dispatch(
    made(stepOf({ name: step.name, changes: invert(step.changes) }, { undoes: step.id })),
  );
  sendWaiting();
}

export function redo(): void {
  const step = openNow().history.undone.at(-1);
  if (!step) return;
  store.dispatch(made(stepOf(step, { id: newId(), redoes: step.id })));
  sendWaiting();
}
