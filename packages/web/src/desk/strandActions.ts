/** What the editor can do with strands, whichever way it is asked for. */
import {
  addStrand,
  cuesToStrand,
  moveStrand,
  muteStrand,
  removeStrand,
} from '@cadence/core/programme/edits/programme/strands.ts';
import { strandsInOrder } from '@cadence/core/programme/order.ts';
import type { Id, StrandKind } from '@cadence/core/programme/programme.ts';
import { selectedCues, strandInHand } from './inHand.ts';
import type { DeskPorts } from './ports.ts';
import { looked, selected, tookStrand } from './view.ts';

export function strandActions(desk: DeskPorts) {
  const { make, newId, note, dispatch } = desk;
  const take = (id: Id): void => void dispatch(tookStrand(id));

  /** Takes the strand `by` places further down in hand, if there is one. */
  function step(by: 1 | -1): void {
    const programme = desk.programme();
    const all = strandsInOrder(programme).map(({ id }) => id);
    const next = all[all.indexOf(strandInHand(programme, desk.view())) + by];
    if (next !== undefined) take(next);
    else
      note(
        all.length === 1
          ? 'This programme has one strand.'
          : `This is the ${by > 0 ? 'last' : 'first'} strand.`,
      );
  }

  /** Adds a strand and takes it in hand. */
  function add(kind: StrandKind): void {
    const id = newId();
    make(addStrand(desk.programme(), kind, id));
    take(id);
  }

  function toggleOnly(): void {
    const { only } = desk.view();
    dispatch(looked({ only: !only }));
  }

  function setMuted(id: Id, muted: boolean): void {
    make(muteStrand(desk.programme(), id, muted));
  }

  function toggleMuted(): void {
    const programme = desk.programme();
    const id = strandInHand(programme, desk.view());
    setMuted(id, !(programme.strands[id]?.muted ?? false));
  }

  function move(id: Id, by: 1 | -1): void {
    make(moveStrand(desk.programme(), id, by));
  }

  function remove(id: Id): void {
    make(removeStrand(desk.programme(), id));
  }

  /** Takes the selected cues, or copies of them, to another strand, which is then in hand. */
  function bring(to: Id, copies: boolean): void {
    const ids = selectedCues(desk.programme(), desk.view()).map(({ id }) => id);
    if (ids.length === 0) {
      note('Select cues first.');
      return;
    }
    const edit = cuesToStrand(desk.programme(), ids, to, copies ? newId : undefined);
    make(edit);
    if (edit.changes.length === 0) return;
    take(to);
    dispatch(selected(edit.changes.map(({ id }) => id)));
  }

  return { take, step, add, toggleOnly, setMuted, toggleMuted, move, remove, bring };
}
