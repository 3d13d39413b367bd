/** What the list of programmes tells of each one. */
import type { Ticks } from '@cadence/core/time/ticks.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import type { Summary } from '@cadence/core/programme/wire.ts';
import { isBlank } from '@cadence/core/text/lines.ts';

export function summarise({ facts, materials, pieces, cues }: Programme): Summary {
  const all = Object.values(cues).filter(({ passage }) => !passage);
  return {
    length: facts.length,
    frame: facts.frame,
    frameRate: facts.frameRate,
    materials: Object.keys(materials).length,
    pieces: Object.keys(pieces).length,
    cues: all.length,
    written: all.filter((cue) => !isBlank(cue.text)).length,
    still: facts.picture === null ? null : (materials[facts.picture]?.hash ?? null),
    image: materials[facts.backdrop.image ?? '']?.hash ?? null,
    backdrop: facts.backdrop.colour,
  };
}

/** What is shown of a programme whose summary cannot be read. */
export const UNKNOWN_SUMMARY: Summary = {
  length: 0 as Ticks,
  frame: { width: 1920, height: 1080 },
  frameRate: { num: 25, den: 1, dropFrame: false },
  materials: 0,
  pieces: 0,
  cues: 0,
  written: 0,
  still: null,
  image: null,
  backdrop: '#20303a',
};
