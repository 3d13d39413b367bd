/**
 * The programme in the browser: what the server has confirmed, and on top of it the steps that are on
 * their way there.
 *
 * Written as a plain reducer: its tables hold ten thousand cues, and every edit shares what it does not
 * touch.
 */
import { createAction, SHOULD_AUTOBATCH, type UnknownAction } from '@reduxjs/toolkit';
import { apply } from '@cadence/core/programme/record/apply.ts';
import type { Change, Edit } from '@cadence/core/programme/record/change.ts';
import {
  NO_HISTORY,
  record,
  type History,
  type Step,
} from '@cadence/core/programme/record/history.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { rebaseSteps } from '@cadence/core/programme/record/rebase.ts';
import type { KeptStep, OpenedProgramme } from '@cadence/core/programme/wire.ts';

export interface Open {
  readonly id: Id;
  readonly version: number;
  readonly confirmed: Programme;
  /** Steps the server has not acknowledged yet, oldest first. */
  readonly pending: readonly Step[];
  /** `confirmed` with `pending` applied: what the editor works on. */
  readonly programme: Programme;
  /** What of the confirmed steps can be undone and redone. */
  readonly confirmedHistory: History;
  /** The same with the pending steps. */
  readonly history: History;
  /** An edit in the hand, such as a drag, that is shown but not made yet. */
  readonly draft: Edit | null;
  /** `programme` with the draft applied. */
  readonly shown: Programme;
  /** When the last step was kept, in milliseconds since 1970; null before the first one. */
  readonly keptAt: number | null;
  /** Whether the server could be reached the last time. */
  readonly reached: boolean;
  /** The version that the server has where it is older than ours: its data was put back. Nothing is sent then. */
  readonly olderOnServer: number | null;
  /** What the server could not read of the programme, in sentences. */
  readonly damage: readonly string[];
  /** How many of our changes no longer applied after a rebase. */
  readonly leftOut: number;
}

export type ProgrammeState = Open | null;

/** Steps with more changes than this take longer than a screen frame to write, send or render. */
export const MANY = 300;

export const opened = createAction<OpenedProgramme & { id: Id; pending: readonly Step[] }>(
  'programme/opened',
);
export const closed = createAction('programme/closed');
export const made = createAction('programme/made', (step: Step) => ({
  payload: step,
  // Thousands of changes are applied in one task and rendered in a later one.
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
/** Steps that another window left behind. */
export const inherited = createAction<readonly Step[]>('programme/inherited');
/** The server has kept a step, of this id, before: it needs no sending. */
export const keptBefore = createAction<Id>('programme/keptBefore');
export const unreachable = createAction('programme/unreachable');
/** The server has an older version than this window, which is given. */
export const fellBehind = createAction<number>('programme/fellBehind');
export const drafted = createAction<Edit | null>('programme/drafted');

/** What can happen to the open programme. */
export type ProgrammeAction = ReturnType<
  | typeof opened
  | typeof closed
  | typeof made
  | typeof acknowledged
  | typeof refused
  | typeof arrived
  | typeof inherited
  | typeof keptBefore
  | typeof unreachable
  | typeof fellBehind
  | typeof drafted
>;

/** Puts the pending steps on a new confirmed state. */
function restack(
  confirmed: Programme,
  confirmedHistory: History,
  pending: readonly Step[],
): Pick<Open, 'confirmed' | 'confirmedHistory' | 'programme' | 'pending' | 'history' | 'leftOut'> {
  const { programme, steps, leftOut } = rebaseSteps(confirmed, pending);
  return {
    confirmed,
    confirmedHistory,
    programme,
    pending: steps,
    history: steps.reduce(record, confirmedHistory),
    leftOut: leftOut.length,
  };
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
    const { id, version, programme, history, damage = [], pending } = action.payload;
    return show({
      id,
      version,
      ...restack(programme, history ?? NO_HISTORY, pending),
      draft: null,
      keptAt: null,
      reached: true,
      olderOnServer: null,
      damage,
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
    // With nothing else pending, the confirmed programme is the one already shown.
    const confirmed =
      pending.length === 0 ? state.programme : apply(state.confirmed, first.changes);
    const { version, at } = action.payload;
    const confirmedHistory = record(state.confirmedHistory, first);
    return { ...state, version, confirmed, confirmedHistory, pending, keptAt: at, reached: true };
  }
  if (refused.match(action)) {
    const [first, ...pending] = state.pending;
    if (!first) return state;
    const { confirmed, confirmedHistory, leftOut } = state;
    const restacked = restack(confirmed, confirmedHistory, pending);
    return show({ ...state, ...restacked, draft: null, leftOut: leftOut + restacked.leftOut });
  }
  if (arrived.match(action)) {
    const news = action.payload.filter(({ version }) => version > state.version);
    if (news.length === 0) return state;
    let { confirmed, version, confirmedHistory, pending } = state;
    for (const kept of news) {
      confirmed = apply(confirmed, kept.step.changes);
      version = kept.version;
      pending = pending.filter((step) => step.id !== kept.step.id);
      confirmedHistory = record(confirmedHistory, kept.step);
    }
    const restacked = restack(confirmed, confirmedHistory, pending);
    return show({
      ...state,
      version,
      ...restacked,
      draft: null,
      leftOut: state.leftOut + restacked.leftOut,
    });
  }
  if (inherited.match(action) || keptBefore.match(action)) {
    const { confirmed, confirmedHistory, leftOut } = state;
    const pending = inherited.match(action)
      ? [...state.pending, ...action.payload.filter(isNewTo(state))]
      : state.pending.filter(({ id }) => id !== action.payload);
    const restacked = restack(confirmed, confirmedHistory, pending);
    return show({ ...state, ...restacked, leftOut: leftOut + restacked.leftOut });
  }
  if (unreachable.match(action)) return { ...state, reached: false };
  if (fellBehind.match(action))
    return { ...state, olderOnServer: action.payload, reached: true, keptAt: null };
  return state;
}

/** Whether a step is neither kept nor waiting yet. */
function isNewTo({ confirmedHistory, pending }: Open): (step: Step) => boolean {
  const { done, undone } = confirmedHistory;
  const known = new Set([...done, ...undone, ...pending].map(({ id }) => id));
  return ({ id }) => !known.has(id);
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
