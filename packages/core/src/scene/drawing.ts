/** What is drawn: a list of things, in order, the first one at the back. */
import type { Transform } from '../movement/matrix.ts';
import type { Wipe } from '../movement/unitState.ts';
import type { Id, TextStyle } from '../programme/programme.ts';
import type { Ticks } from '../time/ticks.ts';
import type { GlyphRun } from './shaper.ts';

/** In pixels of the frame, from its top left. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** One line of text and where its baseline starts, in pixels of the frame. */
export interface PlacedLine {
  readonly x: number;
  readonly baseline: number;
  readonly width: number;
  readonly runs: readonly GlyphRun[];
}

/** Lines of text as they are painted. */
export interface PaintedText {
  readonly style: Pick<
    TextStyle,
    'family' | 'size' | 'colour' | 'outlineColour' | 'outlineWidth' | 'shadow' | 'gradient'
  >;
  readonly lines: readonly PlacedLine[];
  /** How far the text, its outline included, runs out of where it may be at the worst side; 0 if inside. */
  readonly outOfFrame: number;
  /** Characters that no family has. */
  readonly missing: readonly string[];
}

/** Nothing is seen outside a window; within `reach` pixels of its ends, across or down, it fades. */
export interface Window {
  readonly box: Box;
  readonly along: 'across' | 'down';
  readonly reach: number;
}

/** A part of a text that moves by itself. */
export interface PaintedUnit {
  readonly text: string;
  /** Before it is transformed. */
  readonly box: Box;
  readonly lines: readonly PlacedLine[];
  readonly transform?: Transform;
  /** From 0, unseen, to 1; outline and letters are seen through together. */
  readonly opacity: number;
  /** In pixels of the frame. */
  readonly blur?: number;
  /** Another colour in its letters, and how much of it, from 0 to 1. */
  readonly tint?: { readonly colour: string; readonly share: number };
  /** What is seen of it, before it is transformed. */
  readonly wipe?: Wipe;
}

interface Item {
  /** Before it is transformed. */
  readonly box: Box;
  /** What it has moved and turned by; a window stays where it is. */
  readonly transform?: Transform;
  /** From 0, unseen, to 1. */
  readonly opacity: number;
}

export type DrawingItem =
  | (Item & {
      readonly kind: 'backdrop' | 'band' | 'plate';
      readonly colour: string;
      /** How much what is under it is blurred, in pixels. */
      readonly blur?: number;
      /** How far its corners are rounded, in pixels. */
      readonly corner?: number;
    })
  | (Item & { readonly kind: 'picture'; readonly material: Id; readonly at: Ticks })
  | (Item & { readonly kind: 'image'; readonly material: Id })
  | (Item & {
      readonly kind: 'text';
      readonly text: string;
      readonly cue: Id;
      readonly layout: PaintedText;
      readonly window?: Window;
      /** Its parts, where they do not all stand as the layout has them; they are painted in its place. */
      readonly units?: readonly PaintedUnit[];
    });

/** Lengths are in pixels of the programme's frame. */
export interface DrawingList {
  readonly width: number;
  readonly height: number;
  readonly items: readonly DrawingItem[];
}
