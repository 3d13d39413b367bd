/** What can be set of how a roll and a crawl look, in groups, in the order in which an editor wants it. */
import {
  ALIGNMENTS,
  type CrawlLook,
  type Journey,
  type RollLook,
} from '@cadence/core/programme/passage.ts';

type Name = keyof (RollLook & CrawlLook & Journey);

export type Field = { readonly name: Name; readonly label: string } & (
  | { readonly kind: 'family' | 'colour' | 'whether' | 'text' }
  | {
      readonly kind: 'choice';
      readonly choices: readonly { readonly value: string | boolean; readonly says: string }[];
    }
  | {
      readonly kind: 'number';
      /** `s` stands for frames, and `%` for shares. */
      readonly unit: string;
      readonly min?: number;
      readonly max: number;
      readonly step?: number;
    }
);

export interface Fields {
  readonly title: string;
  readonly fields: readonly Field[];
}

const colour = (name: Name, label: string): Field => ({ kind: 'colour', name, label });
const whether = (name: Name, label: string): Field => ({ kind: 'whether', name, label });
const number = (
  name: Name,
  label: string,
  unit: string,
  max: number,
  step = 1,
  min = 0,
): Field => ({
  kind: 'number',
  name,
  label,
  unit,
  min,
  max,
  step,
});
const seconds = (name: Name, label: string, step = 0.5): Field =>
  number(name, label, 's', 600, step);
const pixels = (name: Name, label: string, max: number): Field =>
  number(name, label, 'px', max, 10);
const choice = (
  name: Name,
  label: string,
  choices: readonly { readonly value: string | boolean; readonly says: string }[],
): Field => ({ kind: 'choice', name, label, choices });

const ALIGNED = ALIGNMENTS.map((value) => ({ value, says: value }));
const SIDES = ['left', 'right'].map((value) => ({ value, says: value }));
const MOST_PIXELS = 100_000;

const SKIPS: readonly Field[] = [
  pixels('skipStart', 'Begins further in', MOST_PIXELS),
  pixels('skipEnd', 'Ends before it is out', MOST_PIXELS),
];

export const ROLL_FIELDS: readonly Fields[] = [
  {
    title: 'Letters',
    fields: [
      { kind: 'family', name: 'family', label: 'Letters' },
      colour('colour', 'Names'),
      colour('roleColour', 'Roles'),
      colour('headingColour', 'Headings'),
      number('headingRatio', 'Headings', '× the size', 4, 0.05, 0.3),
      number('titleRatio', 'Title', '× the size', 6, 0.1, 0.3),
      number('roleRatio', 'Roles', '× the size', 2, 0.05, 0.3),
      number('largerRatio', 'Larger lines', '× the size', 4, 0.05, 1),
      number('smallerRatio', 'Smaller lines', '× the size', 1, 0.05, 0.3),
      whether('capitalHeadings', 'Headings in capitals'),
      whether('capitalRoles', 'Roles in capitals'),
      whether('boldHeadings', 'Headings bold'),
      whether('boldRoles', 'Roles bold'),
      whether('boldNames', 'Names bold'),
    ],
  },
  {
    title: 'Where they stand',
    fields: [
      choice('roleAlign', 'Roles stand', ALIGNED),
      choice('nameAlign', 'Names stand', ALIGNED),
      number('gutter', 'Gutter', '× the size', 20, 0.1),
      number('gutterAt', 'Gutter at', '% across', 100),
      number('sideWidth', 'Roles and names take', '% each', 60, 1, 5),
      number('lineSpacing', 'Lines', '× the size', 4, 0.05, 0.8),
      number('blank', 'Blank lines', '× a line', 10, 0.1),
      number('picture', 'Pictures', 'lines tall', 30, 0.5, 1),
      number('softEdge', 'Soft edges', '% of the frame', 45),
    ],
  },
  {
    title: 'How it begins and ends',
    fields: [
      seconds('holdStart', 'First lines stand still'),
      seconds('holdEnd', 'Last lines stand still'),
      seconds('easeIn', 'Gathers speed in'),
      seconds('easeOut', 'Slows down in'),
      ...SKIPS,
      choice('downwards', 'It goes', [
        { value: false, says: 'upwards' },
        { value: true, says: 'downwards' },
      ]),
    ],
  },
  {
    title: 'How it leans and sways',
    fields: [
      number('tilt', 'Leans, by its end', '° to the right', 30, 0.5, -30),
      number('sway', 'Sways to either side', '% of the frame', 20, 0.5),
      seconds('swayFrames', 'To and fro in'),
    ],
  },
  {
    title: 'What lies behind',
    fields: [colour('behind', 'Colour'), number('behindOpacity', 'Covers', '%', 100, 5)],
  },
];

export const CRAWL_FIELDS: readonly Fields[] = [
  {
    title: 'Letters',
    fields: [
      { kind: 'family', name: 'family', label: 'Letters' },
      colour('colour', 'Colour'),
      { kind: 'text', name: 'between', label: 'Between two items' },
      number('times', 'Comes by', 'times', 1000, 1, 1),
      choice('towards', 'It goes to the', SIDES),
    ],
  },
  {
    title: 'Its band',
    fields: [
      number('band', 'Height', '× the size', 10, 0.1),
      pixels('up', 'From the bottom', 4000),
      colour('bandColour', 'Colour'),
      number('bandOpacity', 'Covers', '%', 100, 5),
      number('bandBlur', 'Blurs the picture', 'px', 200, 2),
      seconds('bandFade', 'Comes and goes in', 0.2),
    ],
  },
  {
    title: 'Its window',
    fields: [
      pixels('insetLeft', 'From the left', 8000),
      pixels('insetRight', 'From the right', 8000),
      pixels('softEdge', 'Soft ends', 4000),
    ],
  },
  { title: 'How it begins and ends', fields: SKIPS },
  {
    title: 'Its label',
    fields: [
      { kind: 'text', name: 'label', label: 'Says' },
      colour('labelColour', 'Letters'),
      colour('labelBehind', 'Plate'),
      choice('labelSide', 'Stands at the', SIDES),
    ],
  },
];
