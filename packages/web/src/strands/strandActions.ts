/** What the editor can do with strands, whichever way it is asked for. */
import {
  addStrand,
  cuesToStrand,
  moveStrand,
  muteStrand,
  removeStrand,
} from '@cadence/core/programme/edits/strands.ts';
import { strandsInOrder } from '@cadence/core/programme/order.ts';
import type { Id, StrandKind } from '@cadence/core/programme/programme.ts';
import { make, newId } from '../desk/desk.ts';
import { say } from '../desk/say.ts';
import { currentStrand, openNow, selectionNow, store } from '../desk/store.ts';
import { looked, selected, tookStrand } from '../desk/view.ts';

const take = (id: Id): void => void store.dispatch(tookStrand(id));

/** Takes the strand `by` places further down in hand, if there is one. */
function step(by: 1 | -1): void {
  const { programme } = openNow();
  const all = strandsInOrder(programme).map(({ id }) => id);
  const next = all[all.indexOf(currentStrand(programme)) + by];
  if (next !== undefined) take(next);
  else say.note(all.length === 1 ? 'There is one strand.' : 'There is no further strand that way.');
}

/** Adds a strand and takes it in hand. */
function add(kind: StrandKind): void {
  const id = newId();
  make(addStrand(openNow().programme, kind, id));
  take(id);
}

function toggleOnly(): void {
  const { only } = store.getState().view;
  store.dispatch(looked({ only: !only }));
}

function setMuted(id: Id, muted: boolean): void {
  make(muteStrand(openNow().programme, id, muted));
}

function toggleMuted(): void {
  const { programme } = openNow();
  const id = currentStrand(programme);
  setMuted(id, !(programme.strands[id]?.muted ?? false));
}

function move(id: Id, by: 1 | -1): void {
  make(moveStrand(openNow().programme, id, by));
}

function remove(id: Id): void {
  make(removeStrand(openNow().programme, id));
}

/** Takes the selected cues, or copies of them, to another strand, which is then in hand. */
function bring(to: Id, copies: boolean): void {
  const ids = selectionNow().map(({ id }) => id);
  if (ids.length === 0) {
    say.note('Select cues first.');
    return;
  }
  const edit = cuesToStrand(openNow().programme, ids, to, copies ? newId : undefined);
  make(edit);
  if (edit.changes.length === 0) return;
  take(to);
  store.dispatch(selected(edit.changes.map(({ id }) => id)));
}

export const strands = { take, step, add, toggleOnly, setMuted, toggleMuted, move, remove, bring };
