/** A letter that is struck wrong: what is seen in its place until it is taken away. */
import type { Ground } from '../movement/unitState.ts';
import type { Cue } from '../programme/programme.ts';
import { isRightToLeft } from '../text/lines.ts';
import type { DrawingItem } from './drawing.ts';
import { shapeAsSet, type TextLayout } from './layout.ts';
import type { Draft } from './movingText.ts';
import type { TextShaper } from './shaper.ts';

/** A slip as it is seen. */
export interface Slipped {
  readonly text: string;
  readonly box: Ground;
  /** The frame in which it was struck. */
  readonly struck: number;
  readonly item: DrawingItem & { readonly kind: 'text' };
}

/** The slip that is seen at a frame of a cue, if there is one. */
export function slipAt(
  cue: Cue,
  { comes, threads }: Draft,
  layout: TextLayout,
  frame: number,
  shaper: TextShaper,
): Slipped | undefined {
  const slip = threads.slips.find(({ struck, away }) => struck <= frame && frame < away);
  const unit = slip && comes.units[slip.part];
  const placed = unit && layout.lines[unit.letters[0]?.line ?? 0];
  if (!slip || !unit || !placed) return undefined;
  const { text, struck } = slip;
  const { width, runs } = shapeAsSet([{ text }], layout.style, shaper);
  const x = isRightToLeft(text) ? unit.box.x + unit.box.w - width : unit.box.x;
  const box = { ...unit.box, x, w: width };
  const lines = [{ x, baseline: placed.baseline, width, runs }];
  const whole = { kind: 'text', text, cue: cue.id, box: layout.box, layout, opacity: 1 } as const;
  return { text, box, struck, item: { ...whole, units: [{ text, box, lines, opacity: 1 }] } };
}
