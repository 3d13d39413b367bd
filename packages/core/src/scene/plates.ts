/** The plates behind a text: behind each word, each line or the whole, growing as the text comes in. */
import type { Ground, UnitState } from '../movement/unitState.ts';
import type { Cue, Plate } from '../programme/programme.ts';
import { isRightToLeft } from '../text/lines.ts';
import type { Box, DrawingItem } from './drawing.ts';
import type { TextLayout } from './layout.ts';
import type { TextShaper } from './shaper.ts';
import { unitsOf, type Letter, type TextUnit } from './units.ts';

export type PlateItem = DrawingItem & { readonly kind: 'plate' };

const padded = ({ x, y, w, h }: Box, plate: Plate, em: number): Box => {
  const [across, down] = [plate.across * em, plate.down * em];
  return { x: x - across, y: y - down, w: w + 2 * across, h: h + 2 * down };
};

const asPlate = (box: Box, plate: Plate, em: number, opacity = 1): PlateItem => ({
  kind: 'plate',
  colour: plate.colour,
  box: padded(box, plate, em),
  opacity: plate.opacity * opacity,
  ...(plate.corner > 0 && { corner: plate.corner * em }),
});

/** The plates of a text that stands as it was laid out. */
export function platesOf(cue: Cue, layout: TextLayout, shaper: TextShaper): readonly PlateItem[] {
  const { plate, size } = layout.style;
  if (!plate) return [];
  return unitsOf(cue, layout, shaper)
    .of(plate.behind)
    .map(({ box }) => asPlate(box, plate, size));
}

/** A part of a text as it stands: how much of it has come, and how much is left, from 0 to 1. */
export interface Come {
  readonly unit: TextUnit;
  readonly state: UnitState;
  readonly come: number;
  readonly left: number;
}

/** The plates of a text some of whose parts are there: each moves with its part, or reaches as far as its parts have come. */
export function platesOfMoving(
  cue: Cue,
  layout: TextLayout,
  parts: readonly Come[],
  shaper: TextShaper,
): readonly PlateItem[] {
  const { plate, size } = layout.style;
  if (!plate) return [];
  const units = unitsOf(cue, layout, shaper);
  const of = new Map<Letter, Come>();
  for (const part of parts) for (const letter of part.unit.letters) of.set(letter, part);
  return units.of(plate.behind).flatMap((group): PlateItem[] => {
    const there = [...new Set(group.letters.flatMap((letter) => of.get(letter) ?? []))];
    const [first] = there;
    if (!first) return [];
    if (group.letters.every((letter) => first.unit.letters.includes(letter))) {
      const { transform, opacity } = first.state;
      return [{ ...asPlate(group.box, plate, size, opacity), transform }];
    }
    const fromRight = isRightToLeft(group.text);
    const boxes = there.map(({ unit, come }) => shown(unit.box, come, fromRight));
    const left = Math.max(...there.map((part) => part.left));
    return [asPlate(around(boxes, group.box), plate, size, left)];
  });
}

/** As much of a box as has come, from the side on which it begins to be read. */
const shown = (box: Ground, come: number, fromRight: boolean): Box => ({
  ...box,
  x: fromRight ? box.x + box.w * (1 - come) : box.x,
  w: box.w * come,
});

function around(boxes: readonly Box[], { y, h }: Box): Box {
  const x = Math.min(...boxes.map((box) => box.x));
  const right = Math.max(...boxes.map((box) => box.x + box.w));
  return { x, y, w: right - x, h };
}
