/** A drawing list whose texts that move are told part by part. */
import { movementOf, styleOf } from '../programme/patterns.ts';
import type { Programme } from '../programme/programme.ts';
import type { DrawingItem, DrawingList, PaintedUnit } from './drawing.ts';
import { smallestUnits } from './movingText.ts';
import { layoutOf } from './stacking.ts';
import type { TextShaper } from './shaper.ts';
import { paintedLines } from './units.ts';

/** The items of a list, in which each part of a text that moves is an item of its own, also while it is at rest. */
export function inUnits(
  programme: Programme,
  { items }: DrawingList,
  shaper: TextShaper,
): readonly DrawingItem[] {
  return items.flatMap((item): readonly DrawingItem[] => {
    if (item.kind !== 'text') return [item];
    const { units, ...whole } = item;
    const parts = units ?? partsAtRest(programme, item, shaper);
    return parts.map(({ opacity, ...part }) => ({
      ...whole,
      ...part,
      opacity: opacity * item.opacity,
      layout: { ...item.layout, lines: part.lines },
    }));
  });
}

function partsAtRest(
  programme: Programme,
  item: DrawingItem & { readonly kind: 'text' },
  shaper: TextShaper,
): readonly PaintedUnit[] {
  const whole = { text: item.text, box: item.box, lines: item.layout.lines, opacity: 1 };
  const cue = programme.cues[item.cue];
  if (!cue || cue.passage) return [whole];
  const style = styleOf(programme, cue);
  const movement = movementOf(programme, cue, style.fade ?? 0);
  if (!movement) return [whole];
  const layout = layoutOf(programme, cue, shaper);
  return smallestUnits(programme, cue, movement, layout, shaper).map((unit) => ({
    text: unit.text.trimEnd(),
    box: unit.box,
    lines: paintedLines(unit.letters, layout),
    opacity: 1,
  }));
}
