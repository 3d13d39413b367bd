/**
 * The patterns that ship: looks with their movements, for the jobs that come again and again.
 *
 * Sizes are shares of the frame's height, and times are those at 25 frames a second; both are fitted to the programme.
 */
import {
  COMES_IN,
  GOES,
  STILL,
  type ComesIn,
  type Goes,
  type Move,
  type Movement,
  type Stay,
} from '../movement/movement.ts';
import { nominalRate } from '../time/frameRate.ts';
import type { Facts, Pattern, TextStyle } from './programme.ts';

/** Of which programme: its frame and its rate. */
type For = Pick<Facts, 'frame' | 'frameRate'>;

interface Making {
  /** A share of the frame's height in pixels. */
  readonly px: (share: number) => number;
  /** Frames at 25 a second, as they are here. */
  readonly fr: (count: number) => number;
}

const takes = (count: number) => ({ count, in: 'frames' }) as const;
const appears: Move = { what: 'opacity', from: 0, easing: 'soft out' };
const bottomOf = { of: 'unit', across: 0.5, down: 1, onBaseline: true } as const;

/** The dyes of the house, light enough to be read over a picture. */
const [LINEN, INK, WELD, MADDER, WOAD, INDIGO] = [
  '#f6f1e7',
  '#14171c',
  '#e8c15a',
  '#a63d2f',
  '#2b7471',
  '#31437a',
];

type Made = Omit<Pattern, 'id'>;

/** The share of the frame's width that text takes at most, inside what every screen shows (EBU R 95). */
const WIDEST = 0.9;

const SHELF: Readonly<Record<string, (make: Making) => Made>> = {
  splice: ({ px, fr }) => ({
    name: 'Splice',
    note: 'Narration: each word pops in as it is said',
    look: {
      size: px(0.075),
      bold: true,
      across: 'centre',
      down: 'middle',
      outlineWidth: px(0.004),
    },
    movement: moving(
      {
        ...{ by: 'word', when: 'said', takes: takes(fr(4)) },
        moves: [appears, { what: 'scale', from: 0.6, easing: 'overshoots' }],
      },
      { takes: takes(fr(5)) },
    ),
  }),
  gangway: ({ px, fr }) => ({
    name: 'Gangway',
    note: 'One word at a time, each making way for the next',
    look: { size: px(0.13), bold: true, across: 'centre', down: 'middle', outlineWidth: 0 },
    movement: moving(
      {
        ...{ by: 'word', when: 'said', takes: takes(fr(3)) },
        moves: [{ what: 'scale', from: 0.8, easing: 'soft out' }, appears],
      },
      { by: 'word', when: 'next', takes: takes(0) },
    ),
  }),
  ripple: ({ px, fr }) => ({
    name: 'Ripple',
    note: 'Soft lyric: letters rise as they are sung',
    look: { size: px(0.07), across: 'centre', down: 'middle', outlineWidth: 0, shadow: soft(px) },
    movement: moving(
      {
        ...{ by: 'letter', when: 'said', takes: takes(fr(8)) },
        moves: [
          appears,
          { what: 'place', from: 0.25, in: 'em', angle: 90, easing: 'soft out' },
          { what: 'blur', from: px(0.006), easing: 'linear' },
        ],
      },
      { takes: takes(fr(14)) },
    ),
  }),
  hawser: ({ px, fr }) => ({
    name: 'Hawser',
    note: 'Slow lyric: a word is drawn out while it is held',
    look: {
      ...{ size: px(0.08), bold: true, across: 'centre', down: 'middle' },
      ...{ outlineWidth: 0, shadow: soft(px) },
    },
    movement: moving(
      {
        ...{ by: 'word', when: 'said', takes: takes(fr(6)) },
        moves: [appears, { what: 'width', from: 0.8, easing: 'soft out' }],
      },
      { takes: takes(fr(12)) },
      [{ what: 'stretches', by: 'word', amount: 0.5, moves: 'width', period: takes(fr(5)) }],
    ),
  }),
  bollard: ({ px, fr }) => ({
    name: 'Bollard',
    note: 'Hard lyric: words slam in and pulse on the beat',
    look: {
      ...{ family: 'Barlow Condensed', size: px(0.15), bold: true, letterCase: 'capitals' },
      ...{ across: 'centre', down: 'middle', outlineWidth: 0, lineSpacing: 1 },
    },
    movement: moving(
      {
        ...{ by: 'word', when: 'said', takes: takes(fr(5)) },
        moves: [
          appears,
          { what: 'scale', from: 1.3, easing: 'springs back' },
          { what: 'turn', from: -4, easing: 'springs back' },
        ],
      },
      { takes: takes(fr(4)) },
      [{ what: 'pulses', by: 'whole', amount: 0.02, on: 'beats' }],
    ),
  }),
  drumhead: ({ px, fr }) => ({
    name: 'Drumhead',
    note: 'A word on every hit of the drum',
    look: {
      ...{ family: 'Barlow Condensed', size: px(0.16), bold: true, letterCase: 'capitals' },
      ...{ across: 'centre', down: 'middle', outlineWidth: 0, lineSpacing: 1, colour: WELD },
    },
    movement: moving(
      {
        ...{ by: 'word', when: 'hits', takes: takes(fr(2)) },
        moves: [appears, { what: 'scale', from: 1.6, easing: 'soft out' }],
      },
      { takes: takes(fr(3)) },
      [{ what: 'trembles', by: 'word', amount: 0.01, seed: 4 }],
    ),
  }),
  keybykey: ({ px, fr }) => ({
    name: 'Key by key',
    note: 'Typed by hand, nine letters a second',
    look: {
      ...{ family: 'Roboto Slab', size: px(0.06), outlineWidth: 0 },
      ...{ across: 'left', down: 'middle', margin: px(0.12), letterSpacing: 0.03 },
    },
    movement: moving(
      {
        ...{ by: 'letter', when: 'typed', takes: takes(0), rate: 9, uneven: 0.5, after: fr(12) },
        ...{ seed: 3, arrives: 'begins', moves: [] },
        caret: { shape: 'block', on: fr(13), off: fr(12) },
      },
      { when: 'cut', takes: takes(0) },
    ),
  }),
  swell: ({ px, fr }) => ({
    name: 'Slow swell',
    note: 'Title: fades in and grows as long as it stays',
    look: {
      size: px(0.11),
      across: 'centre',
      down: 'middle',
      outlineWidth: 0,
      letterSpacing: 0.02,
    },
    movement: moving({ takes: takes(fr(20)) }, { takes: takes(fr(20)) }, [
      { what: 'grows', by: 'whole', amount: 1.1 },
    ]),
  }),
  capstan: ({ px, fr }) => ({
    name: 'Capstan',
    note: 'Chapter: letters draw together',
    look: {
      ...{ family: 'Barlow Condensed', size: px(0.1), letterCase: 'capitals', letterSpacing: 0.08 },
      ...{ across: 'centre', down: 'middle', outlineWidth: 0 },
    },
    movement: moving(
      {
        takes: takes(fr(30)),
        moves: [appears, { what: 'spacing', from: 0.5, easing: 'soft out' }],
      },
      { takes: takes(fr(16)) },
    ),
  }),
  mooring: ({ px }) => ({
    name: 'Mooring',
    note: 'Plain subtitle on a plate',
    look: {
      ...{ size: px(0.046), across: 'centre', down: 'bottom', outlineWidth: 0 },
      plate: { behind: 'line', colour: INK, opacity: 0.78, across: 0.4, down: 0.06, corner: 0.1 },
    },
    movement: STILL,
  }),
  tideline: ({ px, fr }) => ({
    name: 'Tideline',
    note: 'Plain subtitle with a soft shadow',
    look: { size: px(0.05), across: 'centre', down: 'bottom', outlineWidth: 0, shadow: soft(px) },
    movement: moving({ takes: takes(fr(3)) }, { takes: takes(fr(3)) }),
  }),
  lantern: ({ px, fr }) => ({
    name: 'Lantern',
    note: 'Sing along: the word being said is lit',
    look: {
      ...{ size: px(0.06), bold: true, across: 'centre', down: 'bottom', saidColour: WELD },
      outlineWidth: px(0.005),
    },
    movement: moving({ takes: takes(fr(4)) }, { takes: takes(fr(4)) }),
  }),
  berth: ({ px, fr }) => ({
    name: 'Berth',
    note: 'Lower third: a name on a plate that slides open',
    look: {
      ...{ size: px(0.045), bold: true, across: 'left', down: 'bottom', outlineWidth: 0 },
      ...{ margin: px(0.11), lineSpacing: 1.5, colour: LINEN },
      plate: { behind: 'line', colour: INDIGO, opacity: 1, across: 0.5, down: 0.08, corner: 0 },
    },
    movement: moving(
      {
        ...{ by: 'line', when: 'after', takes: takes(fr(10)), overlap: 0.6 },
        moves: [
          { what: 'place', in: 'outside', angle: 180, easing: 'soft out' },
          { what: 'opacity', from: 0, easing: 'soft out' },
        ],
      },
      {
        ...{ by: 'line', when: 'wave', order: 'backwards', takes: takes(fr(8)), overlap: 0.6 },
        moves: [
          { what: 'place', in: 'outside', angle: 180, easing: 'soft out' },
          { what: 'opacity', from: 0, easing: 'soft out' },
        ],
      },
    ),
  }),
  ribbon: ({ px, fr }) => ({
    name: 'Ribbon',
    note: 'A word on a plate, wiped on and off',
    look: {
      ...{ size: px(0.07), bold: true, across: 'centre', down: 'middle', outlineWidth: 0 },
      ...{ colour: INK, lineSpacing: 1.4 },
      plate: { behind: 'line', colour: WELD, opacity: 1, across: 0.35, down: 0.05, corner: 0 },
    },
    movement: moving(
      {
        ...{ by: 'letter', when: 'evenly', over: takes(fr(14)), takes: takes(fr(3)) },
        moves: [appears],
      },
      { takes: takes(fr(6)) },
    ),
  }),
  logbook: ({ px, fr }) => ({
    name: 'Logbook',
    note: 'Quote: line after line',
    look: {
      ...{ family: 'Roboto Slab', size: px(0.055), outlineWidth: 0, lineSpacing: 1.5 },
      ...{ across: 'left', down: 'middle', margin: px(0.16), shadow: soft(px) },
    },
    movement: moving(
      {
        ...{ by: 'line', when: 'after', takes: takes(fr(18)), overlap: 0.4 },
        moves: [appears, { what: 'place', from: 0.3, in: 'em', angle: 180, easing: 'soft out' }],
      },
      { takes: takes(fr(14)) },
    ),
  }),
  weft: ({ px, fr }) => ({
    name: 'Weft',
    note: 'Lines wiped on from the left',
    look: { size: px(0.08), bold: true, across: 'centre', down: 'middle', outlineWidth: 0 },
    movement: moving(
      {
        ...{ by: 'line', when: 'after', takes: takes(fr(14)), overlap: 0.5 },
        moves: [{ what: 'wipe', angle: 180, soft: 0.4, easing: 'soft' }],
      },
      {
        ...{ by: 'line', when: 'end', takes: takes(fr(10)) },
        moves: [{ what: 'wipe', angle: 0, soft: 0.4, easing: 'soft' }],
      },
    ),
  }),
  shuttle: ({ px, fr }) => ({
    name: 'Shuttle',
    note: 'Words shoot in from the side, one after another',
    look: {
      ...{ family: 'Barlow Condensed', size: px(0.12), bold: true, letterCase: 'capitals' },
      ...{ across: 'left', down: 'middle', outlineWidth: 0, lineSpacing: 1.05, margin: px(0.14) },
    },
    movement: moving(
      {
        ...{ by: 'word', when: 'after', takes: takes(fr(9)), overlap: 0.65 },
        moves: [{ what: 'place', in: 'outside', angle: 180, easing: 'soft out' }],
      },
      {
        ...{ by: 'word', when: 'wave', takes: takes(fr(7)), overlap: 0.7 },
        moves: [{ what: 'place', in: 'outside', angle: 0, easing: 'soft out' }],
      },
    ),
  }),
  halyard: ({ px, fr }) => ({
    name: 'Halyard',
    note: 'Letters hoisted from below, springing',
    look: { size: px(0.1), bold: true, across: 'centre', down: 'middle', outlineWidth: 0 },
    movement: moving(
      {
        ...{ by: 'letter', when: 'evenly', over: takes(fr(26)), takes: takes(fr(14)) },
        moves: [
          { what: 'place', from: 0.9, in: 'em', angle: 90, easing: 'springs back' },
          { ...appears, easing: 'soft out' },
        ],
      },
      { by: 'letter', when: 'wave', takes: takes(fr(5)), overlap: 0.8 },
    ),
  }),
  fog: ({ px, fr }) => ({
    name: 'Fog',
    note: 'Comes out of the blur and goes back into it',
    look: { size: px(0.09), across: 'centre', down: 'middle', outlineWidth: 0 },
    movement: moving(
      {
        takes: takes(fr(20)),
        moves: [appears, { what: 'blur', from: px(0.03), easing: 'soft out' }],
      },
      {
        takes: takes(fr(20)),
        moves: [appears, { what: 'blur', from: px(0.03), easing: 'soft out' }],
      },
      [{ what: 'drifts', by: 'whole', amount: 0.3, angle: 0 }],
    ),
  }),
  buoy: ({ px, fr }) => ({
    name: 'Buoy',
    note: 'A line that bobs while it stays',
    look: {
      size: px(0.08),
      bold: true,
      across: 'centre',
      down: 'middle',
      outlineWidth: 0,
      shadow: soft(px),
    },
    movement: moving(
      {
        ...{ by: 'word', when: 'said', takes: takes(fr(8)) },
        moves: [appears, { what: 'scale', from: 0, easing: 'overshoots', about: bottomOf }],
      },
      { takes: takes(fr(10)) },
      [
        { what: 'sways', by: 'whole', amount: 1.2, period: takes(fr(70)) },
        { what: 'breathes', by: 'whole', amount: 0.02, period: takes(fr(50)) },
      ],
    ),
  }),
  windlass: ({ px, fr }) => ({
    name: 'Windlass',
    note: 'Counter: figures turn over as they change',
    look: {
      family: 'Roboto Slab',
      size: px(0.18),
      bold: true,
      across: 'centre',
      down: 'middle',
      outlineWidth: 0,
    },
    movement: moving(
      {
        ...{ by: 'letter', when: 'start', takes: takes(fr(5)) },
        moves: [{ what: 'height', from: 0, easing: 'soft out' }],
      },
      {
        ...{ by: 'letter', takes: takes(fr(3)) },
        moves: [{ what: 'height', from: 0, easing: 'soft out' }],
      },
    ),
  }),
  signal: ({ px, fr }) => ({
    name: 'Signal',
    note: 'Label of a ticker: small, quick, on a plate',
    look: {
      ...{ family: 'Barlow Condensed', size: px(0.04), bold: true, letterCase: 'capitals' },
      ...{ across: 'left', down: 'bottom', margin: px(0.08), letterSpacing: 0.06 },
      ...{ outlineWidth: 0, colour: LINEN },
      plate: { behind: 'whole', colour: MADDER, opacity: 1, across: 0.5, down: 0.1, corner: 0.08 },
    },
    movement: moving(
      { takes: takes(fr(5)), moves: [appears, { what: 'height', from: 0, easing: 'soft out' }] },
      { takes: takes(fr(4)), moves: [appears, { what: 'height', from: 0, easing: 'soft out' }] },
    ),
  }),
  eddy: ({ px, fr }) => ({
    name: 'Eddy',
    note: 'Letters whirl in, in an order of chance',
    look: {
      size: px(0.1),
      bold: true,
      across: 'centre',
      down: 'middle',
      outlineWidth: 0,
      colour: LINEN,
      shadow: { ...soft(px), colour: WOAD },
    },
    movement: moving(
      {
        ...{ by: 'letter', when: 'evenly', order: 'random', seed: 11 },
        ...{ over: takes(fr(30)), takes: takes(fr(14)) },
        moves: [
          appears,
          { what: 'turn', from: 120, easing: 'soft out' },
          { what: 'scale', from: 0.2, easing: 'overshoots' },
        ],
      },
      { by: 'letter', when: 'wave', order: 'random', seed: 12, takes: takes(fr(8)), overlap: 0.85 },
    ),
  }),
};

const moving = (
  comesIn: Partial<ComesIn>,
  goes: Partial<Goes>,
  stays: readonly Stay[] = [],
): Movement => ({ comesIn: { ...COMES_IN, ...comesIn }, stays, goes: { ...GOES, ...goes } });

const soft = (px: Making['px']): NonNullable<TextStyle['shadow']> => ({
  ...{ colour: '#000000', opacity: 0.7 },
  ...{ across: 0, down: px(0.004), blur: px(0.006) },
});

/** The patterns of the shelf as they are in a programme; each has the same id everywhere. */
export function patternShelf({ frame, frameRate }: For): readonly Pattern[] {
  const rate = nominalRate(frameRate) / 25;
  const making: Making = {
    px: (share) => Math.round(frame.height * share * 10) / 10,
    fr: (count) => Math.max(count > 0 ? 1 : 0, Math.round(count * rate)),
  };
  return Object.entries(SHELF).map(([id, make]) => {
    const { look, ...made } = make(making);
    return { id: `shelf-${id}`, ...made, look: { fitWidth: WIDEST, ...look } };
  });
}
