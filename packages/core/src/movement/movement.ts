/**
 * A movement: how the parts of a text come in, stay and go. Its times are in frames, beats or shares of the cue, so that
 * it fits a text of any length; it says nothing of one text alone.
 */
import type { Curve, Easing } from './easing.ts';

/** The parts in which a text moves. Where letters join, as in Arabic, what is joined moves together. */
export const UNITS = ['letter', 'syllable', 'word', 'line', 'whole'] as const;
export type UnitKind = (typeof UNITS)[number];

/** A length of time. A share is one of the cue; beats are those at its start. */
export interface Duration {
  readonly count: number;
  readonly in: 'frames' | 'beats' | 'share';
}

/** What gives units the times at which they come in. */
export const COMING = [
  'start',
  'said',
  'beats',
  'bars',
  'marks',
  'hits',
  'evenly',
  'weight',
  'after',
  'typed',
] as const;
export type ComingWhen = (typeof COMING)[number];

/** What gives units the times at which they go. */
export const GOING = ['end', 'wave', 'next', 'said', 'cut'] as const;
export type GoingWhen = (typeof GOING)[number];

export const ORDERS = ['forwards', 'backwards', 'middle', 'edges', 'random'] as const;
export type Order = (typeof ORDERS)[number];

/** A point of a box: shares across and down. */
export interface Anchor {
  readonly of: 'unit' | 'word' | 'line' | 'whole';
  readonly across: number;
  readonly down: number;
  /** Whether it is on the baseline, whatever `down` says. */
  readonly onBaseline?: boolean;
}

/** What moves and has a value, and so can have others at named times. */
export const VALUED = [
  'opacity',
  'scale',
  'width',
  'height',
  'place',
  'turn',
  'blur',
  'spacing',
] as const;
/** What moves. Ratios are 1, and all else is 0, where the text is as its style has it. */
export const MOVES = [...VALUED, 'colour', 'wipe'] as const;
export type MoveKind = (typeof MOVES)[number];

/** One thing that moves, from a value away from the style's own. */
export interface Move {
  readonly what: MoveKind;
  /**
   * Opacity from 0 to 1; scale, width and height as ratios; place in `in`; turn in degrees, clockwise; blur in pixels;
   * spacing in ems. A wipe and a colour have none.
   */
  readonly from?: number;
  /** Of a place and a wipe: the direction from which it comes, in degrees: 0 from the right, 90 from below. */
  readonly angle?: number;
  /** Of a place: pixels, ems, or from just outside the frame, where `from` says nothing. */
  readonly in?: 'px' | 'em' | 'outside';
  /** Of a colour: `#rrggbb`. */
  readonly colour?: string;
  /** Of a wipe: how wide its edge fades, in ems. */
  readonly soft?: number;
  readonly easing: Easing;
  /** A curve of the editor's own, in place of the easing that has a name. */
  readonly curve?: Curve;
  /** About what it grows and turns; the middle of the unit where nothing is said. */
  readonly about?: Anchor;
}

interface Phase {
  /** What moves at a time. */
  readonly by: UnitKind;
  /** How long each unit takes; null is its turn, until the next one begins. */
  readonly takes: Duration | null;
  /** What share of the time that it takes it overlaps the next one by, where one waits for the other. */
  readonly overlap: number;
  readonly order: Order;
  /** Of a random order. */
  readonly seed: number;
  readonly moves: readonly Move[];
}

/** What stands where the next letter will come. */
export const CARETS = ['bar', 'block', 'underline'] as const;

export interface Caret {
  readonly shape: (typeof CARETS)[number];
  /** Frames that it is seen and not seen, over and over, while no letter comes. */
  readonly on: number;
  readonly off: number;
  /** Frames that it stays after the last letter; until the text goes where nothing is said. */
  readonly stays?: number | null;
}

export interface ComesIn extends Phase {
  readonly when: ComingWhen;
  /** Whether a unit has landed at its time, or begins with it. */
  readonly arrives: 'lands' | 'begins';
  /** Frames before its time at which it does so; after it where less than 0. */
  readonly early: number;
  /** Of `evenly` and `weight`: in what time all of them come; null is the whole cue. */
  readonly over: Duration | null;
  /** Of `after`: frames from when one has landed until the next begins. Of `typed`: frames before the first letter. */
  readonly after: number;
  /** Of `typed`: letters a second, and how uneven the hand is, from 0 to 1. */
  readonly rate?: number;
  readonly uneven?: number;
  /** Of `typed`: of a hundred letters so many are struck wrong at first, seen, taken away and struck again. */
  readonly slips?: number;
  /** Of a text that comes in by letters. */
  readonly caret?: Caret | null;
}

export interface Goes extends Phase {
  readonly when: GoingWhen;
}

/** What a text does while it stays. */
export const STAYS = [
  'grows',
  'drifts',
  'breathes',
  'sways',
  'pulses',
  'swells',
  'stretches',
  'trembles',
  'flashes',
  'underlines',
  'values',
] as const;
export type StayKind = (typeof STAYS)[number];

/** What is heard or marked in a cue. Hits are all of them; the strokes of each drum stand for themselves. */
export const HEARD_TIMES = [
  'beats',
  'bars',
  'hits',
  'kicks',
  'snares',
  'closedHats',
  'openHats',
  'marks',
] as const;
export type HeardTime = (typeof HEARD_TIMES)[number];

/** Times of a cue that have names: its start and its end, each word as it is said, and what is heard or marked in it. */
export const NAMED_TIMES = ['start', 'words', ...HEARD_TIMES, 'end'] as const;
export type NamedTime = (typeof NAMED_TIMES)[number];

/** The values of a move at a named time: of several instants the first has the first value, and so on, over and over. */
export interface Valued {
  readonly when: NamedTime;
  /** In the measure of {@link Move.from}; a place is in ems. */
  readonly values: readonly number[];
}

export interface Stay {
  readonly what: StayKind;
  readonly by: UnitKind;
  /**
   * Grows: the ratio at its end. Drifts: ems over its stay. Breathes, pulses and swells: the share that it grows by.
   * Stretches: the share that it grows by at most, however long it is held. Sways: degrees to each side. Trembles: ems.
   * Flashes: how opaque the colour is at first. Underlines: ems that the line is thick.
   */
  readonly amount?: number;
  /** Of values: what has them, at which times, and how it goes from one to the next. Of what stretches: what grows. */
  readonly moves?: (typeof VALUED)[number];
  readonly at?: readonly Valued[];
  readonly easing?: Easing;
  /** Of what drifts, and of the values of a place: the direction it goes to, in degrees: 0 to the right, 90 down. */
  readonly angle?: number;
  /**
   * Of what breathes, sways and trembles: how long once takes. Of a flash: in what time it dies away. Of what stretches: in
   * what time it springs back.
   */
  readonly period?: Duration;
  /** Of what pulses and flashes: on what. */
  readonly on?: HeardTime;
  readonly seed?: number;
  /** Of flashes and underlines: `#rrggbb`. */
  readonly colour?: string;
  /** Of flashes: over all of the frame, or behind the text. */
  readonly over?: 'frame' | 'behind';
  /** Of flashes: one in so many instants has one. */
  readonly every?: number;
}

export interface Movement {
  readonly comesIn: ComesIn | null;
  readonly stays: readonly Stay[];
  readonly goes: Goes | null;
}

/** A text that is there from its start to its end, and does nothing. */
export const STILL: Movement = { comesIn: null, stays: [], goes: null };

export const CENTRE: Anchor = { of: 'unit', across: 0.5, down: 0.5 };

export const framesLong = (count: number): Duration => ({ count, in: 'frames' });

/** Coming in as it is until something else is said: whole, at the start of its cue. */
export const COMES_IN: ComesIn = {
  by: 'whole',
  when: 'start',
  arrives: 'lands',
  early: 0,
  over: null,
  after: 0,
  takes: framesLong(6),
  overlap: 0,
  order: 'forwards',
  seed: 1,
  moves: [{ what: 'opacity', from: 0, easing: 'linear' }],
};

/** Going as it is until something else is said: whole, at the end of its cue. */
export const GOES: Goes = {
  by: 'whole',
  when: 'end',
  takes: framesLong(6),
  overlap: 0,
  order: 'forwards',
  seed: 1,
  moves: [{ what: 'opacity', from: 0, easing: 'linear' }],
};

/** Fades in and out over a number of frames. */
export function fading(frames: number): Movement {
  const takes = framesLong(frames);
  return { comesIn: { ...COMES_IN, takes }, stays: [], goes: { ...GOES, takes } };
}

/** Whether nothing of a text ever moves. */
export const isStill = ({ comesIn, stays, goes }: Movement): boolean =>
  !comesIn && stays.length === 0 && !goes;
