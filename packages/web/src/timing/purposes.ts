/** How marks for each purpose look: a letter, a shape and a dye, so that nothing depends on colour alone. */
import type { Purpose } from '@cadence/core/programme/programme.ts';
import type { Dyes } from '../kit/dyes.ts';

type Dye = keyof Omit<Dyes, 'dark'>;

export interface PurposeLook {
  readonly name: string;
  readonly letter: string;
  readonly dye: Dye;
  /** The dye of the letter on it. */
  readonly on: Dye;
  /** The outline of its tag about 0, 0, within 7 to every side, as SVG path data. */
  readonly shape: string;
}

export const PURPOSE_LOOKS: Readonly<Record<Purpose, PurposeLook>> = {
  place: { name: 'Place', letter: 'P', dye: 'ink', on: 'linen', shape: 'M-6-6H6V3L0 7L-6 3Z' },
  word: { name: 'Word', letter: 'W', dye: 'indigo', on: 'on-dye', shape: 'M-7-6H7V6H-7Z' },
  beat: {
    name: 'Beat',
    letter: 'B',
    dye: 'weld',
    on: 'on-weld',
    shape: 'M0-7A7 7 0 0 1 0 7A7 7 0 0 1 0-7Z',
  },
  bar: { name: 'Bar', letter: 'L', dye: 'weld', on: 'on-weld', shape: 'M-5-7H5V7H-5Z' },
  speech: {
    name: 'Speech',
    letter: 'S',
    dye: 'woad',
    on: 'on-dye',
    shape: 'M-7 0L-3-6H3L7 0L3 6H-3Z',
  },
  hit: { name: 'Hit', letter: 'H', dye: 'madder', on: 'on-dye', shape: 'M0-8L8 0L0 8L-8 0Z' },
  doubt: { name: 'Doubt', letter: '?', dye: 'alarm', on: 'on-dye', shape: 'M0-8L8 6H-8Z' },
};
