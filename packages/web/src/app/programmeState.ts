/**
 * The programme in the browser: what the server has confirmed, and on top of it the steps that are on
 * their way there.
 *
 * Written as a plain reducer: its tables hold ten thousand cues, and every edit shares what it does not
 * touch.
 */
import { createAction, SHOULD_AUTOBATCH, type UnknownAction } from '@reduxjs/toolkit';
import { apply } from '@cadence/core/programme/apply.ts';
import type { Change, Edit } from '@cadence/core/programme/change.ts';
import { NO_HISTORY, record, type History, type Step } from '@cadence/core/programme/history.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { rebase } from '@cadence/core/programme/rebase.ts';
import type { KeptStep, OpenedProgramme } from './api.ts';

export interface Open {
  readonly id: Id;
  readonly version: number;
  readonly confirmed: Programme;
  /** Steps the server has not acknowledged yet, oldest first. */
  readonly pending: readonly Step[];
  /** `confirmed` with `pending` applied: what the editor works on. */
  readonly programme: Programme;
  readonly history: History;
  /** An edit in the hand, such as a drag, that is shown but not made yet. */
  readonly draft: Edit | null;
  /** `programme` with the draft applied. */
  readonly shown: Programme;
  /** When the last step was kept, in milliseconds since 1970; null before the first one. */
  readonly keptAt: number | null;
  /** Whether the server could be reached the last time. */
  readonly reached: boolean;
  /** How many changes had to be left out when others were put under ours. */
  readonly leftOut: number;
}

export type ProgrammeState = Open | null;

/** Steps of more changes than this take longer than a screen frame to write, to send and to show at once. */
export const MANY = 300;

export const opened = createAction<OpenedProgramme & { id: Id; pending: readonly Step[] }>(
  'programme/opened',
);
export const closed = createAction('programme/closed');
export const made = createAction('programme/made', (step: Step) => ({
  payload: step,
  // The page shows what thousands of changes make of it in a task after the one that applies them.
  meta: { [SHOULD_AUTOBATCH]: step.changes.length > MANY },
}));
export const acknowledged = createAction(
  'programme/acknowledged',
  (kept: { version: number; at: number }) => ({
    payload: kept,
    meta: { [SHOULD_AUTOBATCH]: true },
  }),
);
export const refused = createAction('programme/refused');
export const arrived = createAction<readonly KeptStep[]>('programme/arrived');
export const unreachable = createAction('programme/unreachable');
export const drafted = createAction<Edit | null>('programme/drafted');

/** Puts the pending steps on a new confirmed state. */
function restack(
  confirmed: Programme,
  pending: readonly Step[],
): Pick<Open, 'programme' | 'pending'> & { leftOut: number } {
  let programme = confirmed;
  let leftOut = 0;
  const kept: Step[] = [];
  for (const step of pending) {
    const fitted = rebase(programme, step.changes);
    leftOut += fitted.leftOut.length;
    // A step that named another as undone stays what it is, even when nothing of it is left.
    kept.push({ ...step, changes: fitted.changes });
    programme = apply(programme, fitted.changes);
  }
  return { programme, pending: kept, leftOut };
}

const show = (open: Omit<Open, 'shown'>): Open => ({
  ...open,
  shown: open.draft ? apply(open.programme, open.draft.changes) : open.programme,
});

export function programmeReducer(
  state: ProgrammeState = null,
  action: UnknownAction,
): ProgrammeState {
  if (opened.match(action)) {
    const { id, version, programme: confirmed, history, pending } = action.payload;
    const stacked = restack(confirmed, pending);
    return show({
      id,
      version,
      confirmed,
      ...stacked,
      history: stacked.pending.reduce(record, history ?? NO_HISTORY),
      draft: null,
      keptAt: null,
      reached: true,
    });
  }
  if (!state) return state;
  if (closed.match(action)) return null;
  if (made.match(action)) {
    const step = action.payload;
    const programme = apply(state.programme, step.changes);
    return show({
      ...state,
      programme,
      pending: [...state.pending, step],
      history: record(state.history, step),
      draft: null,
    });
  }
  if (drafted.match(action)) return show({ ...state, draft: action.payload });
  if (acknowledged.match(action)) {
    const [first, ...pending] = state.pending;
    if (!first) return state;
    // With nothing else on its way, what is confirmed now is what was shown all along.
    const confirmed =
      pending.length === 0 ? state.programme : apply(state.confirmed, first.changes);
    const { version, at } = action.payload;
    return { ...state, version, confirmed, pending, keptAt: at, reached: true };
  }
  if (refused.match(action)) {
    const [first, ...pending] = state.pending;
    if (!first) return state;
    const done = state.history.done.filter((step) => step.id !== first.id);
    const restacked = restack(state.confirmed, pending);
    return show({ ...state, ...restacked, history: { ...state.history, done }, draft: null });
  }
  if (arrived.match(action)) {
    const news = action.payload.filter(({ version }) => version > state.version);
    if (news.length === 0) return state;
    let { confirmed, version, history, pending } = state;
    for (const kept of news) {
      confirmed = apply(confirmed, kept.step.changes);
      version = kept.version;
      const mine = pending.some((step) => step.id === kept.step.id);
      pending = pending.filter((step) => step.id !== kept.step.id);
      if (!mine) history = record(history, kept.step);
    }
    const restacked = restack(confirmed, pending);
    return show({
      ...state,
      confirmed,
      version,
      history,
      ...restacked,
      draft: null,
      leftOut: state.leftOut + restacked.leftOut,
    });
  }
  if (unreachable.match(action)) return { ...state, reached: false };
  return state;
}

/** A step from an edit. */
export const stepOf = (
  edit: { name: string; changes: readonly Change[] },
  more: Partial<Step> = {},
): Step => ({
  id: crypto.randomUUID(),
  name: edit.name,
  changes: edit.changes,
  ...more,
});
