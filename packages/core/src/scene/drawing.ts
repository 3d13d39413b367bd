/** What is drawn: a list of things, in order, the first one at the back. */
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
  readonly style: Pick<TextStyle, 'family' | 'size' | 'colour' | 'outlineColour' | 'outlineWidth'>;
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

/** Of a point in pixels of the frame: x becomes a·x + c·y + e, y becomes b·x + d·y + f. */
export interface Transform {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
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
    })
  | (Item & { readonly kind: 'picture'; readonly material: Id; readonly at: Ticks })
  | (Item & { readonly kind: 'image'; readonly material: Id })
  | (Item & {
      readonly kind: 'text';
      readonly text: string;
      readonly cue: Id;
      readonly layout: PaintedText;
      readonly window?: Window;
    });

/** Lengths are in pixels of the programme's frame. */
export interface DrawingList {
  readonly width: number;
  readonly height: number;
  readonly items: readonly DrawingItem[];
}
