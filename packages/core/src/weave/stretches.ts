/** Where a long recording can be cut, so that each stretch is aligned by itself. */
import type { Stretch } from './fine.ts';
import { STRIDE } from './settings.ts';

const PER_SECOND = 100 / STRIDE;
/** A stretch is so long at least, in coarse frames, and ends at the next pause; at the latest at the next word. */
const LEAST = 12 * PER_SECOND;
const MOST = 40 * PER_SECOND;
/** Coarse frames without a word that make a pause. */
const PAUSE = 5;

/**
 * @param tokenOf  which token each coarse frame belongs to, or below 0
 * @param whole    the frames and tokens that are to be cut
 */
export function stretchesOf(tokenOf: Int32Array, whole: Stretch): Stretch[] {
  const stretches: Stretch[] = [];
  let [from, first] = [0, 0];
  let [reached, silent] = [0, 0];
  const cut = (frame: number, next: number) => {
    stretches.push({
      from: whole.from + from * STRIDE,
      to: Math.min(whole.to, whole.from + frame * STRIDE),
      first: whole.first + first,
      last: whole.first + next,
      tight: { start: from === 0 && Boolean(whole.tight?.start), end: false },
    });
    [from, first] = [frame, next];
  };
  tokenOf.forEach((token, frame) => {
    if (token < 0) {
      silent++;
      return;
    }
    const pause = silent;
    silent = 0;
    if (token >= reached) {
      const long = frame - from;
      if (token > first && long >= LEAST && pause >= PAUSE)
        cut(frame - Math.ceil(pause / 2), reached);
      else if (token > first && long >= MOST) cut(frame, reached);
      reached = token + 1;
    }
  });
  stretches.push({
    from: whole.from + from * STRIDE,
    to: whole.to,
    first: whole.first + first,
    last: whole.last,
    tight: { start: from === 0 && Boolean(whole.tight?.start), end: Boolean(whole.tight?.end) },
  });
  return stretches;
}
