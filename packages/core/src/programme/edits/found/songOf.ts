/** What is kept of a song with its material: its sections, and how loud it is over time. */
import type { Heard } from '../../../listen/listening.ts';
import { barLinesOf, type FoundPulse } from '../../../listen/pulse/pulse.ts';
import { energyOf, packEnergy } from '../../../listen/signal/energy.ts';
import { findSections } from '../../../listen/structure/sections.ts';
import { fromSeconds } from '../../../time/ticks.ts';
import type { Material } from '../../programme.ts';

export type Song = Required<Pick<Material, 'sections' | 'energy'>>;

/** @param found  the pulse of what was heard */
export const songOf = (heard: HeardOfSong, found: FoundPulse): Song => ({
  sections: sectionsOn(heard, barLinesOf(found)),
  energy: packEnergy(energyOf(heard.level)),
});

type HeardOfSong = Pick<Heard, 'pulse' | 'level'>;

/** @param lines  the bar lines, in seconds */
export function sectionsOn(
  { pulse, level }: HeardOfSong,
  lines: readonly number[],
): Song['sections'] {
  const sections = findSections(pulse, level, lines).map(({ start, end, kind, letter }) => ({
    ...{ kind, letter },
    start: fromSeconds(start),
    end: fromSeconds(end),
  }));
  return sections.length > 0 ? sections : null;
}
