/** The store, and how components reach it. */
import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { cuesInOrder, strandsInOrder } from '@cadence/core/programme/order.ts';
import type { Cue, Id, Programme } from '@cadence/core/programme/programme.ts';
import { arrivalsReducer } from '../material/arrivals.ts';
import { programmeReducer, type Open } from './programmeState.ts';
import { rememberView, viewReducer } from './view.ts';

export const store = configureStore({
  reducer: { open: programmeReducer, view: viewReducer, arrivals: arrivalsReducer },
  // The tables are large and only ever replaced; walking them after each action would be felt.
  middleware: (standard) => standard({ immutableCheck: false, serializableCheck: false }),
});

let lastView = store.getState().view;
store.subscribe(() => {
  const { view } = store.getState();
  if (view === lastView) return;
  lastView = view;
  rememberView(view);
});

export type State = ReturnType<typeof store.getState>;
export const useApp = <T>(select: (state: State) => T): T => useSelector(select);
export const useAppDispatch = () => useDispatch<typeof store.dispatch>();

/** The open programme; only inside a place, where there is one. */
export function useOpen<T>(select: (open: Open) => T): T {
  return useApp((state) => {
    if (!state.open) throw new Error('No programme is open.');
    return select(state.open);
  });
}

/** The programme as it is shown, with an edit in the hand applied. */
export const useShown = <T>(select: (programme: Programme) => T): T =>
  useOpen((open) => select(open.shown));

/** The strand that is worked on: the first of the programme. */
export const currentStrand = (programme: Programme): Id => strandsInOrder(programme)[0]?.id ?? '';

export const currentCues = (programme: Programme): readonly Cue[] =>
  cuesInOrder(programme, currentStrand(programme));

/** The open programme as it is now, for what is done in answer to a key or a pointer. */
export function openNow(): Open {
  const { open } = store.getState();
  if (!open) throw new Error('No programme is open.');
  return open;
}

/** The selected cues that still exist. */
export function selectionNow(): Cue[] {
  const { programme } = openNow();
  return store
    .getState()
    .view.selection.map((id) => programme.cues[id])
    .filter((cue) => cue !== undefined);
}
