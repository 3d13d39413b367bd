/**
 * The level of the background under speech, tracked over time.
 *
 * Quantile-based noise estimation after Stahl, Fischer and Bippus ("Quantile based noise estimation
 * for spectral subtraction and Wiener filtering", ICASSP 2000): even in dense speech each band is
 * quiet for part of the time, so a low quantile of its level over a few seconds is the noise, with no
 * need to know where speech is.
 */

/** The length of one window, in frames of 10 ms, and the quantile taken. */
const WINDOW = 1000;
const QUANTILE = 0.08;

/**
 * The floor of one series of levels.
 *
 * One window lies before each frame and one after it, and the higher of their quantiles is taken, so
 * that at a cut from a quiet room to a loud one the loud one's floor holds from its first frame on.
 *
 * @param levels  levels in whole steps from 0 to 255, one a frame
 * @param stride  distance between two frames in `levels`, for interleaved bands
 * @param offset  place of the first frame
 * @returns       the floor in steps at every frame
 */
export function noiseFloor(levels: Uint8Array, frames: number, stride = 1, offset = 0): Uint8Array {
  // `ending[n]` is the quantile over the window that ends with frame n.
  const ending = runningQuantile(levels, frames, stride, offset);
  const floor = new Uint8Array(frames);
  for (let frame = 0; frame < frames; frame++) {
    // Near either end, a window that would be cut short is moved inside the recording.
    const before = Math.min(frames - 1, Math.max(frame, WINDOW - 1));
    const after = Math.min(frames - 1, frame + WINDOW - 1);
    floor[frame] = Math.max(ending[before] as number, ending[after] as number);
  }
  return floor;
}

function runningQuantile(
  levels: Uint8Array,
  frames: number,
  stride: number,
  offset: number,
): Uint8Array {
  const counts = new Uint32Array(256);
  const quantile = new Uint8Array(frames);
  const at = (frame: number) => levels[frame * stride + offset] as number;
  let [inside, below, level] = [0, 0, 0];
  // `below` counts the frames in the window whose level is under `level`.
  const put = (value: number, by: 1 | -1) => {
    counts[value] = (counts[value] as number) + by;
    inside += by;
    if (value < level) below += by;
  };
  for (let frame = 0; frame < frames; frame++) {
    put(at(frame), 1);
    if (frame >= WINDOW) put(at(frame - WINDOW), -1);
    const wanted = inside * QUANTILE;
    while (level > 0 && below > wanted) below -= counts[--level] as number;
    while (level < 255 && below + (counts[level] as number) <= wanted)
      below += counts[level++] as number;
    quantile[frame] = level;
  }
  return quantile;
}
