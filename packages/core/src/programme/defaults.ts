/** A programme as it is before anything is brought in. */
import { DEFAULT_PROFILE } from '../pace/profile.ts';
import type { FrameRate } from '../time/frameRate.ts';
import { fromSeconds, ZERO } from '../time/ticks.ts';
import type { Id, Programme, Strand, TextStyle } from './programme.ts';

export const DEFAULT_FRAME_RATE: FrameRate = { num: 25, den: 1, dropFrame: false };
export const DEFAULT_FRAME = { width: 1920, height: 1080 };

/** The style of subtitles on a frame of `height` pixels: a twentieth of it high, outlined. */
export const subtitleStyle = (height: number): TextStyle => ({
  family: 'Noto Sans',
  size: Math.round(height * 0.05),
  colour: '#ffffff',
  outlineColour: '#14171c',
  outlineWidth: Math.max(1, Math.round(height * 0.006)),
  across: 'centre',
  down: 'bottom',
  margin: Math.round(height * 0.07),
  lineSpacing: 1.25,
});

export const subtitleStrand = (id: Id, height: number): Strand => ({
  id,
  kind: 'subtitle',
  title: 'Subtitles',
  style: subtitleStyle(height),
  overlapAllowed: false,
});

const EMPTY_TABLES = {
  materials: {},
  strands: {},
  cues: {},
  pieces: {},
  beats: {},
  hits: {},
  marks: {},
  sounds: {},
} as const satisfies Omit<Programme, 'facts'>;

/** A programme from a file, with the tables that were not known yet when it was written. */
export const completed = (programme: Programme): Programme => ({ ...EMPTY_TABLES, ...programme });

/** A new programme with one empty subtitle strand: 1920 × 1080, 25 frames a second, one minute. */
export function newProgramme(id: Id, title: string, strand: Id): Programme {
  return {
    facts: {
      id,
      title,
      frame: DEFAULT_FRAME,
      frameRate: DEFAULT_FRAME_RATE,
      startTimecode: ZERO,
      length: fromSeconds(60),
      setBy: 'default',
      sound: null,
      picture: null,
      backdrop: { colour: '#20303a' },
      profile: DEFAULT_PROFILE,
    },
    ...EMPTY_TABLES,
    strands: { [strand]: subtitleStrand(strand, DEFAULT_FRAME.height) },
  };
}
