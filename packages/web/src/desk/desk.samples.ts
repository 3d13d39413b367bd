/** A made-up desk for tests: a programme, the view, and a player that only remembers where it was taken. */
import { apply } from '@cadence/core/programme/record/apply.ts';
import { invert, type Edit } from '@cadence/core/programme/record/change.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { countingIds } from '@cadence/core/programme/samples.ts';
import type { Range } from '@cadence/core/time/range.ts';
import { ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import type { DeskPorts } from './ports.ts';
import { viewReducer, type View } from './view.ts';

export function madeUpDesk(begin: Programme) {
  let programme = begin;
  let view: View = viewReducer(undefined, { type: 'begin' });
  const made: Edit[] = [];
  const said: string[] = [];
  const played: (Range | null)[] = [];
  const written: string[] = [];
  const state = { playing: false, speed: 1, stretch: null, looping: false, problem: null };
  const player = {
    time: ZERO as Ticks,
    state: () => state,
    play: (stretch: Range | null = null) => void played.push(stretch),
    pause: () => undefined,
    toggle: () => void played.push(null),
    seek: (to: Ticks) => {
      player.time = to;
    },
    setSpeed: (speed: number) => void Object.assign(state, { speed }),
    setLooping: (looping: boolean) => void Object.assign(state, { looping }),
  };
  const ports: DeskPorts = {
    programme: () => programme,
    view: () => view,
    dispatch: (action) => {
      view = viewReducer(view, action);
    },
    player,
    make: (edit) => {
      if (edit.note !== undefined) said.push(edit.note);
      if (edit.changes.length === 0) return false;
      made.push(edit);
      programme = apply(programme, edit.changes);
      return true;
    },
    undo: () => {
      programme = apply(programme, invert(made.pop()?.changes ?? []));
    },
    redo: () => undefined,
    newId: countingIds('new'),
    write: (cue) => void written.push(cue),
    note: (message) => void said.push(message),
  };
  return {
    ports,
    player,
    said,
    played,
    written,
    programme: () => programme,
    view: () => view,
    names: () => made.map(({ name }) => name),
  };
}
