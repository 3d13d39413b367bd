/** What stands on the rows besides cues, by what is in hand: found, listed and walked through alike. */
import { heardBeats, heardHits, heardPieces } from '../programme/heard.ts';
import { marksInOrder } from '../programme/order.ts';
import type { Id, Programme } from '../programme/programme.ts';
import type { Ticks } from '../time/ticks.ts';

/** The kinds of things that can be in hand in Timing: what a click picks, and what keys act on. */
export const HANDS = ['cues', 'pieces', 'beats', 'hits', 'marks'] as const;
export type Hand = (typeof HANDS)[number];

/** A thing in the programme's time; an instant has no length. */
export interface Thing {
  readonly id: Id;
  readonly start: Ticks;
  readonly end: Ticks;
}

type Picked = Exclude<Hand, 'cues'>;

const instant = ({ id, at }: { id: Id; at: Ticks }): Thing => ({ id, start: at, end: at });

const of: Readonly<Record<Picked, (programme: Programme) => readonly Thing[]>> = {
  pieces: heardPieces,
  hits: heardHits,
  beats: (programme) => heardBeats(programme).map(instant),
  marks: (programme) => marksInOrder(programme).map(instant),
};

/** All things of the kind that is in hand, in order. */
export const thingsOf = (programme: Programme, hand: Picked): readonly Thing[] =>
  of[hand](programme);

/** What things are called in a sentence. */
export const NAMES: Readonly<Record<Hand, { one: string; many: string }>> = {
  cues: { one: 'cue', many: 'Cues' },
  pieces: { one: 'piece', many: 'Pieces' },
  beats: { one: 'beat', many: 'Beats' },
  hits: { one: 'hit', many: 'Hits' },
  marks: { one: 'mark', many: 'Marks' },
};
