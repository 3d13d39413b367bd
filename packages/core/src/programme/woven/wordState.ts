/** How the time of a word is known. */
import { SURE } from '../../weave/confidence.ts';
import type { WordTime } from '../programme.ts';

/** How it is known, or why there is none: it was not heard, or never woven. */
export type WordState = 'sure' | 'doubtful' | 'pinned' | 'spread' | 'not heard' | 'not woven';

/** Whether an editor fixed this time: no computation moves it, but for weaving, which looks for tapped words near their taps. */
export const fixed = ({ source }: WordTime): boolean => source === 'pinned' || source === 'tapped';

/** @param woven  whether any word of its cue has a time */
export function stateOf(time: WordTime | undefined, woven = true): WordState {
  if (!time) return woven ? 'not heard' : 'not woven';
  if (fixed(time)) return 'pinned';
  // It stands where its neighbours allow.
  if (time.source === 'spread' && time.confidence === 0) return 'not heard';
  if (time.source !== 'woven') return 'spread';
  return (time.confidence ?? 1) < SURE ? 'doubtful' : 'sure';
}
