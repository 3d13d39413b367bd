/** The recording of typing of the demo: when its keys are struck. */

/** In seconds: the first stroke, and from one to the next. */
export const [FIRST, APART] = [0.4, 0.42];
export const STROKES = 26;
/** The numbers of the strokes that are the space bar and return. */
export const [SPACE, ENTER] = [24, 25];

/** When a stroke is, in seconds. */
export const strokeAt = (stroke: number): number => FIRST + stroke * APART;
