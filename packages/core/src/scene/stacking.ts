/** Cues of one strand that overlap in time, stacked so that none covers another. */
import { cuesInOrder, placeOf } from '../programme/order.ts';
import { levelsOf } from '../programme/levels.ts';
import type { Cue, Programme } from '../programme/programme.ts';
import { isBlank, type Line } from '../text/lines.ts';
import { firstEndingAfter, overlap } from '../time/range.ts';
import { layOut, shifted, type TextLayout } from './layout.ts';
import { layOutInGroup } from './grouped.ts';
import { styleOf } from '../programme/patterns.ts';
import type { TextShaper } from './shaper.ts';

/**
 * The layout of a cue's text where it is seen: among the cues of its group, or clear of those that were there before it,
 * on a strand whose cues may overlap.
 *
 * @param row   the cues of the strand, by start
 * @param at    the cue's place in it
 * @param text  as it is seen, where it is another than the cue's own
 */
export function layOutCue(
  programme: Programme,
  row: readonly Cue[],
  at: number,
  shaper: TextShaper,
  text?: readonly Line[],
): TextLayout {
  const cue = row[at] as Cue;
  const { frame } = programme.facts;
  if (cue.group) return layOutInGroup(programme, row, cue, shaper, text);
  const own = layOut(text ?? cue.text, styleOf(programme, cue), frame, shaper);
  if (!programme.strands[cue.strand]?.overlapAllowed) return own;
  return shifted(own, { x: 0, y: stackedBy(programme, row, at, shaper) }, frame);
}

/** The layout of a cue where it is seen, as {@link layOutCue} has it. */
export function layoutOf(programme: Programme, cue: Cue, shaper: TextShaper): TextLayout {
  const row = cuesInOrder(programme, cue.strand);
  return layOutCue(programme, row, placeOf(row, cue), shaper);
}

/**
 * How far the text of a cue is moved down so that it stands clear of those that were there before it, in pixels: less
 * than nothing for text at the bottom of the frame, which is stacked upwards. It is the same as long as the cue lasts.
 *
 * @param row  the cues of the strand, by start
 * @param at   the cue's place in it
 */
export function stackedBy(
  programme: Programme,
  row: readonly Cue[],
  at: number,
  shaper: TextShaper,
): number {
  const { of } = levelsOf(row);
  const [cue, level] = [row[at] as Cue, of[at] as number];
  if (level === 0) return 0;
  const { down, placed } = styleOf(programme, cue);
  // What was put by hand stays there.
  if (placed) return 0;
  /** The height that is taken on each lower level while the cue lasts. */
  const heights = new Array<number>(level).fill(0);
  for (let other = firstEndingAfter(row, cue.start); other < row.length; other++) {
    const beside = row[other] as Cue;
    if (beside.start >= cue.end) break;
    const lower = of[other] as number;
    if (lower >= level || !overlap(beside, cue) || isBlank(beside.text)) continue;
    const style = styleOf(programme, beside);
    if (style.down !== down || style.placed || beside.group) continue;
    const { box } = layOut(beside.text, style, programme.facts.frame, shaper);
    heights[lower] = Math.max(heights[lower] as number, Math.ceil(box.h));
  }
  const taken = heights.reduce((sum, height) => sum + height, 0);
  return down === 'bottom' ? -taken : taken;
}
