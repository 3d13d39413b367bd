/** The families that text can be set in: those of the shelf, and the programme's own fonts. */
import type { Programme } from '@cadence/core/programme/programme.ts';
import { STYLE_FAMILIES } from '@cadence/paint/shelf.ts';

/** @param now  the family that is set, which is there even if nobody has it */
export function familiesFor({ materials }: Pick<Programme, 'materials'>, now: string): string[] {
  const own = Object.values(materials).flatMap(({ family }) => family ?? []);
  return [...new Set([...STYLE_FAMILIES, ...own, now])];
}
