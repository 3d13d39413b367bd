/** Of the drawing of a draft, in its own units. */

/** Its width, where threads begin, the height of one, and of the ruler below. */
export const [WIDE, FROM, ROW, RULER] = [600, 84, 22, 22];
/** How wide the length of the cue is. */
export const ACROSS = WIDE - FROM - 4;
