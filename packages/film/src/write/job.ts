/** A job that writes what leaves, as whoever keeps it tells of it. */
import type { Id } from '@cadence/core/programme/programme.ts';
import type { SoundFound } from './film.ts';
import type { Writing } from './order.ts';

/** How far it is. */
export interface WritingProgress {
  readonly doing: 'sound' | 'frames' | 'joining';
  /** Of the whole, from 0 to 1. */
  readonly share: number;
  /** Frames written since it was begun or went on, and how long those took, in seconds. */
  readonly frames: number;
  readonly seconds: number;
}

/** What was written. */
export interface Written {
  readonly bytes: number;
  readonly sound: SoundFound | undefined;
  /** What is wrong with it, as sentences. */
  readonly faults: readonly string[];
  /** Whether the picture was encoded by the machine's own encoder. */
  readonly byHardware: boolean;
}

/** How far a file is that is sent to an outside host. */
export interface Sending {
  readonly state: 'sending' | 'sent' | 'failed';
  /** From 0 to 1. */
  readonly share: number;
  /** Where the host takes the rest of it, once it has said so. */
  readonly upload?: string | undefined;
  /** Why it failed, as a sentence. */
  readonly problem?: string | undefined;
}

export interface Job {
  readonly id: Id;
  readonly programme: Id;
  /** Of the file, with its ending. */
  readonly name: string;
  readonly writing: Writing;
  readonly state: 'waiting' | 'writing' | 'paused' | 'done' | 'failed';
  /** When it was asked for, in milliseconds since 1970. */
  readonly asked: number;
  readonly written?: Written | undefined;
  /** Why it failed, or what it waits for, as a sentence. */
  readonly problem?: string | undefined;
  readonly sending?: Sending | undefined;
}

/** A job that the server keeps. */
export interface ServerJob extends Job {
  readonly progress?: WritingProgress | undefined;
}

/** The share of the work that is the sound of a film. */
export const SOUND_SHARE = 0.1;
