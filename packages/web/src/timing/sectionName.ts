/** What a section of a song is called. */
import type { Section } from '@cadence/core/programme/programme.ts';

export const sectionName = ({ kind, letter }: Section): string =>
  `${kind[0]?.toUpperCase() ?? ''}${kind.slice(1)} ${letter}`;
