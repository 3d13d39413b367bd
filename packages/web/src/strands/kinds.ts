/** How the interface speaks of the kinds of strands. */
import type { StrandKind } from '@cadence/core/programme/programme.ts';

/** What one cue on a strand of a kind is called. */
export const CUE_NAMES: Readonly<Record<StrandKind, string>> = {
  subtitle: 'Subtitle',
  lyric: 'Lyric',
  narration: 'Line of narration',
  card: 'Card',
  roll: 'Roll',
  crawl: 'Crawl',
};
