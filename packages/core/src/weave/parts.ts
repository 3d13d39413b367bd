/** What pins cut the work of weaving into. */
import type { Range } from '../time/range.ts';
import { framesIn, type Stretch, type Voice } from './fine.ts';
import { frameAt } from './wordEdges.ts';
import { PinsCross, type Pin } from './woven.ts';

/** A part between two pins, or between a pin and an end. */
export interface Part extends Stretch {
  readonly tight: { readonly start: boolean; readonly end: boolean };
}

/**
 * What lies between pins, each part with its words.
 *
 * @param said  the indices of the words that are said, which are counted from 0 as tokens
 */
export function partsOf(
  voice: Voice,
  said: readonly number[],
  pins: readonly Pin[],
  within: Range | undefined,
): Part[] {
  const count = framesIn(voice.frames);
  const clamp = (frame: number) => Math.max(0, Math.min(count, frame));
  const start = within ? clamp(frameAt(voice, within.start)) : 0;
  const end = within ? clamp(frameAt(voice, within.end)) : count;
  /** Where a part ends and the next begins: the token it begins with, and on which side it is tight. */
  const joints: { frame: number; token: number; side: 'start' | 'end'; index: number }[] = [];
  for (const pin of [...pins].sort((a, b) => a.index - b.index)) {
    const token = said.indexOf(pin.index);
    if (token < 0) continue;
    const { index } = pin;
    if (pin.start !== undefined)
      joints.push({ frame: clamp(frameAt(voice, pin.start)), token, side: 'start', index });
    if (pin.end !== undefined)
      joints.push({ frame: clamp(frameAt(voice, pin.end)), token: token + 1, side: 'end', index });
  }
  const parts: Part[] = [];
  let [from, first, tight] = [start, 0, false];
  for (const { frame, token, side, index } of joints) {
    if (frame < from) throw new PinsCross(index);
    parts.push({
      from,
      to: frame,
      first,
      last: token,
      tight: { start: tight, end: side === 'end' },
    });
    [from, first, tight] = [frame, token, side === 'start'];
  }
  parts.push({ from, to: end, first, last: said.length, tight: { start: tight, end: false } });
  return parts;
}
