/** The metres that a pulse may have. */

export const METRES = ['2/4', '3/4', '4/4', '6/8'] as const;
export type Metre = (typeof METRES)[number];

/** How many beats a bar of each metre has: in 6/8 a beat is a dotted quarter. */
export const BEATS_A_BAR: Readonly<Record<Metre, number>> = {
  '2/4': 2,
  '3/4': 3,
  '4/4': 4,
  '6/8': 2,
};
