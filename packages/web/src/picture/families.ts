/** The families that the text of a programme is set in, and its own fonts. */
import type { Programme } from '@cadence/core/programme/programme.ts';

export function familiesIn(programme: Programme): string[] {
  const { materials, strands, cues, patterns, passages } = programme;
  return [
    ...new Set([
      ...Object.values(materials).flatMap(({ family }) => family ?? []),
      ...Object.values(strands).map(({ style }) => style.family),
      ...Object.values(cues).flatMap(({ style }) => style.family ?? []),
      ...Object.values(patterns).flatMap(({ look }) => look.family ?? []),
      ...Object.values(passages).flatMap(({ look }) => look.family ?? []),
    ]),
  ].sort((a, b) => a.localeCompare(b));
}
