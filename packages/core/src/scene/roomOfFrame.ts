/** How much text the lines of a frame hold, measured as it is drawn. */
import type { Room } from '../programme/edits/text/fitLines.ts';
import type { Id, Programme, TextStyle } from '../programme/programme.ts';
import { plainLine } from '../text/lines.ts';
import { shapeAsSet } from './layout.ts';
import { styleOf } from '../programme/patterns.ts';
import type { TextShaper } from './shaper.ts';

/** The style that text is to be fitted in. */
type Setting = Partial<Pick<TextStyle, 'family' | 'size'>>;

/**
 * What is left of the frame's width between the margins, or from where text was put by hand, in pixels, as it is set in
 * its own style.
 *
 * @param setting  the family or size to take instead of its own
 */
export const roomOfFrame =
  (programme: Programme, shaper: TextShaper, setting: Setting = {}): Room =>
  (cue) => {
    const style = { ...styleOf(programme, cue), ...setting };
    const { margin, outlineWidth, placed, across } = style;
    const { width } = programme.facts.frame;
    const side =
      placed &&
      { left: 1 - placed.x, centre: 2 * Math.min(placed.x, 1 - placed.x), right: placed.x }[across];
    const wide = side === undefined || side === null ? width - 2 * margin : side * width;
    const spans = cue.text.flat();
    // As wide as the widest style in it.
    const spanStyle = {
      ...(spans.some(({ bold }) => bold) && { bold: true }),
      ...(spans.some(({ italic }) => italic) && { italic: true }),
    };
    return {
      lines: programme.facts.profile.lines,
      longestLine: Math.max(1, wide - 2 * outlineWidth),
      measure: (text) => shapeAsSet([{ ...spanStyle, text }], style, shaper).width,
    };
  };

/**
 * The size at which every line of cues fits the frame as it stands, in whole pixels; undefined where all fit.
 */
export function sizeToFit(
  programme: Programme,
  ids: readonly Id[],
  shaper: TextShaper,
  setting: Setting = {},
): number | undefined {
  const sizes = ids.flatMap((id) => {
    const cue = programme.cues[id];
    if (!cue) return [];
    const { size } = { ...styleOf(programme, cue), ...setting };
    const { longestLine, measure } = roomOfFrame(programme, shaper, setting)(cue);
    const widest = Math.max(0, ...cue.text.map((line) => measure?.(plainLine(line)) ?? 0));
    return widest > longestLine ? [Math.floor((size * longestLine) / widest)] : [];
  });
  return sizes.length > 0 ? Math.max(1, Math.min(...sizes)) : undefined;
}
