/** Files that are on their way in. They belong to the window, not to the programme. */
import { createAction, createReducer } from '@reduxjs/toolkit';
import type { Id } from '@cadence/core/programme/programme.ts';

export interface Arrival {
  readonly id: Id;
  readonly name: string;
  /** Whether it is a sound or a film, in which speech may be found. */
  readonly isHeard: boolean;
  readonly state: 'reading' | 'failed';
  /** From 0 to 1. */
  readonly share: number;
  /** What is being done, or what went wrong, in a sentence. */
  readonly message: string;
}

export const arriving = createAction<Arrival>('arrivals/arriving');
export const changed = createAction<Pick<Arrival, 'id'> & Partial<Arrival>>('arrivals/changed');
export const gone = createAction<Id>('arrivals/gone');

export const arrivalsReducer = createReducer([] as readonly Arrival[], (builder) =>
  builder
    .addCase(arriving, (state, { payload }) => [...state, payload])
    .addCase(changed, (state, { payload }) =>
      state.map((arrival) => (arrival.id === payload.id ? { ...arrival, ...payload } : arrival)),
    )
    .addCase(gone, (state, { payload }) => state.filter((arrival) => arrival.id !== payload)),
);

/** The outline found so far, one pair a second, for a waveform that grows. */
export const growing = new Map<Id, { pairs: Int8Array[]; duration: number }>();

const stops = new Map<Id, AbortController>();

export function beginArrival(id: Id): AbortSignal {
  const stop = new AbortController();
  stops.set(id, stop);
  return stop.signal;
}

export function endArrival(id: Id): void {
  stops.delete(id);
  growing.delete(id);
}

export const stopArrival = (id: Id): void => stops.get(id)?.abort();
