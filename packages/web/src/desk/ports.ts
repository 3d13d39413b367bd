/** What the actions of the editor need, and are given: they reach nothing else. */
import type { UnknownAction } from '@reduxjs/toolkit';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import type { player } from '../playback/player.ts';
import type { View } from './view.ts';

export type PlayerPort = Pick<
  typeof player,
  'time' | 'state' | 'play' | 'pause' | 'toggle' | 'seek' | 'setSpeed' | 'setLooping'
>;

export interface DeskPorts {
  /** The programme as it is kept now, without the edit in the hand. */
  readonly programme: () => Programme;
  readonly view: () => View;
  readonly dispatch: (action: UnknownAction) => void;
  readonly player: PlayerPort;
  /** Makes an edit and says its note; returns whether it changed anything. */
  readonly make: (edit: Edit) => boolean;
  readonly undo: () => void;
  readonly redo: () => void;
  readonly newId: () => Id;
  /** Lets the text of a cue be written. */
  readonly write: (cue: Id) => void;
  /** @param id  a note with an id takes the place of the one before it */
  readonly note: (message: string, id?: string) => void;
}
