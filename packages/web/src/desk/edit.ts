/** Making edits, undoing and redoing them: the only ways in which the interface changes a programme. */
import { invert, type Edit } from '@cadence/core/programme/record/change.ts';
import { lastGroup, nextGroup, type Step } from '@cadence/core/programme/record/history.ts';
import { tooLarge } from '@cadence/core/programme/record/limits.ts';
import { withTies } from '@cadence/core/programme/ties.ts';
import type { Outbox } from '../sync/outbox.ts';
import {
  drafted,
  made,
  MANY,
  stepOf,
  type Open,
  type ProgrammeAction,
} from '../sync/programmeState.ts';

/** What editing needs to know and to reach. */
export interface EditingPorts {
  /** The open programme as it is now. */
  readonly open: () => Open;
  readonly dispatch: (action: ProgrammeAction) => void;
  readonly outbox: () => Pick<Outbox, 'soon' | 'draft' | 'claimDraft'> | undefined;
  readonly note: (message: string) => void;
  readonly problem: (message: string) => void;
}

/** Hears of an edit that the editor made, and of the id of its step. */
export type MadeListener = (edit: Edit, step: Step['id']) => void;

/** What a step can be told besides its edit: its id, and the step that it goes with. */
export type StepFields = Partial<Pick<Step, 'id' | 'goesWith'>>;

/** Everything that changes the open programme. */
export class Editing {
  readonly #ports: EditingPorts;
  readonly #listeners = new Set<MadeListener>();

  constructor(ports: EditingPorts) {
    this.#ports = ports;
  }

  /** Calls a listener after every edit that the editor makes, but not after undo and redo. */
  readonly whenMade = (listener: MadeListener): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  /**
   * Makes an edit with what is tied to what it moves, and tells its note if it has one. Returns whether it changed
   * anything.
   */
  readonly make = (wanted: Edit, fields: StepFields = {}): boolean =>
    this.#make(this.#whole(wanted), fields);

  /** Makes an edit of what was typed, which may have been a draft. */
  readonly makeTyped = (edit: Edit): boolean =>
    this.make(edit, this.#ports.outbox()?.claimDraft() ?? {});

  /** Keeps in the browser what an edit of the typing would come to, in case the page ends before it rests. */
  readonly typing = (edit: Edit): void => this.#ports.outbox()?.draft(edit);

  /** Shows an edit that is still in the hand, with all that it would bring about; null puts everything back. */
  readonly draft = (edit: Edit | null): void => {
    const whole = edit && this.#whole(edit);
    this.#ports.dispatch(drafted(whole && whole.changes.length > 0 ? whole : null));
  };

  /** Makes the edit that is in the hand, just as it is shown. */
  readonly keepDraft = (): void => {
    const { draft } = this.#ports.open();
    if (draft) this.#make({ name: draft.name, changes: draft.changes }, {});
  };

  /** Undoes the last step, and what went with it. */
  readonly undo = (): void => {
    for (const { id, name, changes } of lastGroup(this.#ports.open().history))
      this.#ports.dispatch(made(stepOf({ name, changes: invert(changes) }, { undoes: id })));
    this.#ports.outbox()?.soon();
  };

  /** Does again what was undone last, and what goes with it. */
  readonly redo = (): void => {
    for (const { id, name, changes } of nextGroup(this.#ports.open().history))
      this.#ports.dispatch(made(stepOf({ name, changes }, { redoes: id })));
    this.#ports.outbox()?.soon();
  };

  /** An edit with what is tied to what it moves. */
  #whole(edit: Edit): Edit {
    return edit.changes.length > 0 ? withTies(this.#ports.open().programme, edit) : edit;
  }

  #make(edit: Edit, fields: StepFields): boolean {
    const { open, dispatch, outbox, note, problem } = this.#ports;
    if (edit.note) note(edit.note);
    if (edit.changes.length === 0) {
      if (open().draft) dispatch(drafted(null));
      return false;
    }
    // Large edits are made in workers, which have looked at them.
    const refused = edit.changes.length <= MANY ? tooLarge(edit) : undefined;
    if (refused !== undefined) {
      problem(`${refused} Nothing was changed.`);
      return false;
    }
    const step = stepOf(edit, fields);
    dispatch(made(step));
    outbox()?.soon();
    this.#listeners.forEach((listener) => {
      listener(edit, step.id);
    });
    return true;
  }
}
