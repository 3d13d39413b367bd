/** The store, and how components reach it. */
import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { heardPieces } from '@cadence/core/programme/heard.ts';
import type { Cue, Id, Piece, Programme, Strand } from '@cadence/core/programme/programme.ts';
import { arrivalsReducer } from './arrivals.ts';
import { cuesInHand, selectedCues, strandInHand } from './inHand.ts';
import { programmeReducer, type Open } from '../sync/programmeState.ts';
import { looked, rememberView, viewReducer } from './view.ts';

export const store = configureStore({
  reducer: { open: programmeReducer, view: viewReducer, arrivals: arrivalsReducer },
  // The tables are large and only ever replaced; walking them after each action would be felt.
  middleware: (standard) => standard({ immutableCheck: false, serializableCheck: false }),
});

let lastView = store.getState().view;
store.subscribe(() => {
  const { open, view } = store.getState();
  if (view === lastView) return;
  const moved = view.selection !== lastView.selection;
  lastView = view;
  rememberView(view);
  // Wherever a cue is selected, its strand is taken in hand.
  const strand = open?.programme.cues[view.selection.at(-1) ?? '']?.strand;
  if (moved && open && strand !== undefined && strand !== currentStrand(open.programme))
    store.dispatch(looked({ strand }));
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

/** The strand in hand. */
export const currentStrand = (programme: Programme): Id =>
  strandInHand(programme, store.getState().view);

/** The strand in hand, for what is to be drawn anew when another is taken. */
export function useStrand(): Strand {
  useApp((state) => state.view.strand);
  const { strands } = useShown((programme) => programme);
  return strands[currentStrand(openNow().shown)] as Strand;
}

export const currentCues = (programme: Programme): readonly Cue[] =>
  cuesInHand(programme, store.getState().view);

const NO_PIECES: readonly Piece[] = [];

/** Strands of these kinds say nothing that is heard. */
const SILENT = new Set(['card', 'roll', 'crawl']);

/** The pieces of speech that the strand in hand is to say: cards, rolls and crawls say none. */
export const currentPieces = (programme: Programme): readonly Piece[] =>
  SILENT.has(programme.strands[currentStrand(programme)]?.kind ?? '')
    ? NO_PIECES
    : heardPieces(programme);

/** The open programme as it is now, for what is done in answer to a key or a pointer. */
export function openNow(): Open {
  const { open } = store.getState();
  if (!open) throw new Error('No programme is open.');
  return open;
}

/** The selected cues that still exist. */
export const selectionNow = (): Cue[] => selectedCues(openNow().programme, store.getState().view);
