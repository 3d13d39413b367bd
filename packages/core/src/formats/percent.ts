/** Shares of a frame as they stand in caption files: percentages. */

/** A share as a percentage, to a ten-thousandth of the frame. */
export const writePercent = (share: number): string => `${Number((share * 100).toFixed(4))}%`;

/** The share that a percentage says; undefined where it is none. */
export function readPercent(text: string | undefined): number | undefined {
  const found = /^(-?\d+(?:\.\d+)?)%$/.exec(text ?? '');
  return found ? Number(found[1]) / 100 : undefined;
}
