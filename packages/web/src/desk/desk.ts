/** The desk of this window: the programme that is open here, and what changes it. */
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { server } from '../sync/api.ts';
import { connect } from '../sync/connect.ts';
import { Editing } from './edit.ts';
import { Opening } from './opening.ts';
import { say } from './say.ts';
import { openNow, store } from './store.ts';

const opening = new Opening((id) =>
  connect(id, {
    state: () => store.getState().open,
    dispatch: store.dispatch,
    tellRefused: say.problem,
  }),
);
const outbox = () => opening.connection?.outbox;

/** Opens a programme in this window, unless it is the one that is open or being opened; another one is closed. */
export const openProgramme = (id: Id): Promise<void> => opening.open(id);

export const closeProgramme = (): void => opening.close();

/** What to do where the server has an older state than this window. */
export const whereOlder = {
  /** Puts what this window has on top of it, in one step. */
  putOnTop: async (): Promise<void> => outbox()?.putOnTop(),
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
  outbox,
  note: say.note,
  problem: say.problem,
});
