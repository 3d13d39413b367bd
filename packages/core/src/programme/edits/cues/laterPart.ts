import type { Cue } from '../../programme.ts';

/** A new cue of the later part of one that is cut: it takes the look and speaker along, not what was noted of the whole. */
export const laterPart = (
  cue: Cue,
  part: Pick<Cue, 'id' | 'start' | 'end' | 'text' | 'words'> & Partial<Cue>,
): Cue => ({ ...cue, comment: null, cutShort: null, ...part });
