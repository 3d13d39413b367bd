/** The desk of this window: the programme that is open here, and what changes it. */
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { server } from '../sync/api.ts';
import { connect } from '../sync/connect.ts';
import { Editing } from './edit.ts';
import { say } from './say.ts';
import { openNow, store } from './store.ts';

let connection: ReturnType<typeof connect> | undefined;

/** Opens a programme in this window; the one that was open is closed. */
export async function openProgramme(id: Id): Promise<void> {
  closeProgramme();
  connection = connect(id, {
    state: () => store.getState().open,
    dispatch: store.dispatch,
    tellRefused: say.problem,
  });
  await connection.outbox.open();
}

export function closeProgramme(): void {
  connection?.end();
  connection = undefined;
}

/** What to do where the server has an older state than this window. */
export const whereOlder = {
  /** Puts what this window has on top of it, in one step. */
  putOnTop: async (): Promise<void> => connection?.outbox.putOnTop(),
  /** Keeps what this window has as a programme of its own, and gives the id of that. */
  keepBeside: async (): Promise<Id> => {
    const { programme } = openNow();
    const title = `${programme.facts.title}, from this window`.slice(0, 300);
    const facts = { ...programme.facts, title };
    return (await server.importFile({ format: FILE_FORMAT, programme: { ...programme, facts } }))
      .id;
  },
};

export const newId = (): string => crypto.randomUUID();

export const { make, makeTyped, typing, draft, keepDraft, undo, redo, whenMade } = new Editing({
  open: openNow,
  dispatch: store.dispatch,
  outbox: () => connection?.outbox,
  note: say.note,
  problem: say.problem,
});
