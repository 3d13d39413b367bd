/** A programme as it is before anything is brought in. */
import { DEFAULT_PROFILE } from '../pace/profile.ts';
import type { FrameRate } from '../time/frameRate.ts';
import { fromSeconds, ZERO } from '../time/ticks.ts';
import type { Id, Programme, Strand, StrandKind, TextStyle } from './programme.ts';

/** The colour of the word that is being said, until the editor chooses another. */
export const SAID_COLOUR = '#f4d35e';

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

/** How the text of each other kind differs from subtitles: its size as a share of the frame's height, and its place. */
const LOOKS: Readonly<
  Record<Exclude<StrandKind, 'subtitle'>, { readonly share: number } & Partial<TextStyle>>
> = {
  lyric: { share: 0.07, down: 'middle' },
  narration: { share: 0.06, down: 'middle', across: 'left' },
  card: { share: 0.09, down: 'middle', outlineWidth: 0 },
  roll: { share: 0.039, down: 'middle', outlineWidth: 0 },
  crawl: { share: 0.045, outlineWidth: 0 },
};

/** What a strand of each kind is called at first. */
export const STRAND_TITLES: Readonly<Record<StrandKind, string>> = {
  subtitle: 'Subtitles',
  lyric: 'Lyrics',
  narration: 'Narration',
  card: 'Cards',
  roll: 'Rolls',
  crawl: 'Crawls',
};

/** The style of text of a kind on a frame of `height` pixels. */
export function styleFor(kind: StrandKind, height: number): TextStyle {
  const usual = subtitleStyle(height);
  if (kind === 'subtitle') return usual;
  const { share, ...look } = LOOKS[kind];
  return { ...usual, size: Math.round(height * share), ...look };
}

/** An empty strand of a kind, for a frame of `height` pixels. */
export const newStrand = (kind: StrandKind, id: Id, height: number): Strand => ({
  id,
  kind,
  title: STRAND_TITLES[kind],
  style: styleFor(kind, height),
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
  passages: {},
  patterns: {},
} as const satisfies Omit<Programme, 'facts'>;

/** A programme from a file, with the tables that were not known yet when it was written. */
export const completed = (programme: Programme): Programme => ({ ...EMPTY_TABLES, ...programme });

/** A new programme with one empty strand: 1920 × 1080, 25 frames a second, one minute. */
export function newProgramme(
  id: Id,
  title: string,
  strand: Id,
  kind: StrandKind = 'subtitle',
): Programme {
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
    strands: { [strand]: newStrand(kind, strand, DEFAULT_FRAME.height) },
  };
}
