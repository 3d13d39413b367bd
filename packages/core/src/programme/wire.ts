/** What goes between the interface and the server. */
import type { Change } from './record/change.ts';
import type { History, Step } from './record/history.ts';
import type { Facts, Id, Programme, StrandKind } from './programme.ts';

/** What the list of programmes shows of one. */
export interface Summary {
  readonly length: Facts['length'];
  readonly frame: Facts['frame'];
  readonly frameRate: Facts['frameRate'];
  readonly materials: number;
  readonly pieces: number;
  readonly cues: number;
  /** Cues with text. */
  readonly written: number;
  /** Content hash of the film that is seen, for its small picture. */
  readonly still: string | null;
  /** Content hash of the still picture behind the text; missing in what was kept before there were any. */
  readonly image?: string | null;
  readonly backdrop: string;
  /** The first words of its text, for what has no picture; missing in what was kept before they were. */
  readonly words?: string;
  /** The kinds of its strands with text, each once; missing in what was kept before they were. */
  readonly kinds?: readonly StrandKind[];
}

/** A programme in the list. */
export interface ListedProgramme extends Summary {
  readonly id: Id;
  readonly title: string;
  /** In milliseconds since 1970. */
  readonly changed: number;
  /** What of it cannot be read, as a sentence. */
  readonly damage?: string;
}

/** A programme that is opened. */
export interface OpenedProgramme {
  readonly version: number;
  readonly programme: Programme;
  readonly history: History;
  /** What of it could not be read and was left out or replaced, in sentences. */
  readonly damage?: readonly string[];
}

/** A step that was kept, as every window that has the programme open hears of it. */
export interface KeptStep {
  readonly version: number;
  readonly clientId: string;
  readonly step: Step;
}

/** A step that is to be kept on top of a version. */
export interface Commit {
  readonly base: number;
  readonly clientId: string;
  readonly changeId: string;
  readonly name: string;
  readonly changes: readonly Change[];
  readonly undoes?: string;
  readonly redoes?: string;
  readonly goesWith?: string;
}
