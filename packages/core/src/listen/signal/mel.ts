/** The mel scale, on which equal steps sound equally far apart (O'Shaughnessy, "Speech communication", 1987). */

export const mel = (hertz: number): number => 2595 * Math.log10(1 + hertz / 700);
export const hertzOf = (mels: number): number => 700 * (10 ** (mels / 2595) - 1);
