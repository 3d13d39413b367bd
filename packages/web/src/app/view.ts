/** How the editor looks at the programme: what is selected, how wide a row is, and what is remembered. */
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Id } from '@cadence/core/programme/programme.ts';

export const ROW_SPANS = [4, 8, 16, 30, 60] as const;

export interface View {
  /** Selected cues, the one worked on last. */
  readonly selection: readonly Id[];
  readonly secondsARow: number;
  readonly snap: boolean;
  readonly loop: boolean;
  readonly safeArea: boolean;
  readonly speed: number;
}

const REMEMBERED = 'cadence-view';

function remembered(): Partial<View> {
  try {
    return JSON.parse(localStorage.getItem(REMEMBERED) ?? '{}') as Partial<View>;
  } catch {
    return {};
  }
}

const initialState: View = {
  secondsARow: 8,
  snap: true,
  loop: false,
  safeArea: false,
  speed: 1,
  ...remembered(),
  selection: [],
};

const slice = createSlice({
  name: 'view',
  initialState,
  reducers: {
    selected: (state, action: PayloadAction<readonly Id[]>) => ({
      ...state,
      selection: action.payload,
    }),
    looked: (state, action: PayloadAction<Partial<Omit<View, 'selection'>>>) => ({
      ...state,
      ...action.payload,
    }),
  },
});

export const { selected, looked } = slice.actions;
export const viewReducer = slice.reducer;

/** Keeps what should be the same after a reload. */
export function rememberView({ selection: _selection, ...rest }: View): void {
  localStorage.setItem(REMEMBERED, JSON.stringify(rest));
}
