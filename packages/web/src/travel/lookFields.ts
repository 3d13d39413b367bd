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
  pixels('skipStart', 'Skip at the start', MOST_PIXELS),
  pixels('skipEnd', 'Skip at the end', MOST_PIXELS),
];

export const ROLL_FIELDS: readonly Fields[] = [
  {
    title: 'Text',
    fields: [
      { kind: 'family', name: 'family', label: 'Font' },
      colour('colour', 'Name colour'),
      colour('roleColour', 'Role colour'),
      colour('headingColour', 'Heading colour'),
      number('headingRatio', 'Heading size', '× the size', 4, 0.05, 0.3),
      number('titleRatio', 'Title size', '× the size', 6, 0.1, 0.3),
      number('roleRatio', 'Role size', '× the size', 2, 0.05, 0.3),
      number('largerRatio', 'Size of larger lines', '× the size', 4, 0.05, 1),
      number('smallerRatio', 'Size of smaller lines', '× the size', 1, 0.05, 0.3),
      whether('capitalHeadings', 'Headings in capitals'),
      whether('capitalRoles', 'Roles in capitals'),
      whether('capitalNames', 'Names in capitals'),
      whether('boldHeadings', 'Headings bold'),
      whether('boldRoles', 'Roles bold'),
      whether('boldNames', 'Names bold'),
    ],
  },
  {
    title: 'Layout',
    fields: [
      choice('roleAlign', 'Role alignment', ALIGNED),
      choice('nameAlign', 'Name alignment', ALIGNED),
      number('gutter', 'Gutter width', '× the size', 20, 0.1),
      number('gutterAt', 'Gutter position', '% across', 100),
      number('sideWidth', 'Column width', '% each', 60, 1, 5),
      number('lineSpacing', 'Line spacing', '× the size', 4, 0.05, 0.8),
      number('blank', 'Height of a blank line', '× a line', 10, 0.1),
      number('picture', 'Picture height', 'lines', 30, 0.5, 1),
      number('softEdge', 'Edge fade', '% of the frame', 45),
    ],
  },
  {
    title: 'Start and end',
    fields: [
      seconds('holdStart', 'Hold at the start'),
      seconds('holdEnd', 'Hold at the end'),
      seconds('easeIn', 'Ease in'),
      seconds('easeOut', 'Ease out'),
      ...SKIPS,
      choice('downwards', 'Direction', [
        { value: false, says: 'Up' },
        { value: true, says: 'Down' },
      ]),
    ],
  },
  {
    title: 'Tilt and sway',
    fields: [
      number('tilt', 'Tilt at the end', '°', 30, 0.5, -30),
      number('sway', 'Sway', '% of the frame', 20, 0.5),
      seconds('swayFrames', 'Sway period'),
    ],
  },
  {
    title: 'Background',
    fields: [colour('behind', 'Colour'), number('behindOpacity', 'Opacity', '%', 100, 5)],
  },
];

export const CRAWL_FIELDS: readonly Fields[] = [
  {
    title: 'Text',
    fields: [
      { kind: 'family', name: 'family', label: 'Font' },
      colour('colour', 'Colour'),
      { kind: 'text', name: 'between', label: 'Separator between items' },
      number('times', 'Repeats', '', 1000, 1, 1),
      choice('towards', 'Direction', SIDES),
    ],
  },
  {
    title: 'Band',
    fields: [
      number('band', 'Height', '× the size', 10, 0.1),
      pixels('up', 'Bottom margin', 4000),
      colour('bandColour', 'Colour'),
      number('bandOpacity', 'Opacity', '%', 100, 5),
      number('bandBlur', 'Blur of the picture', 'px', 200, 2),
      seconds('bandFade', 'Fade', 0.2),
    ],
  },
  {
    title: 'Margins',
    fields: [
      pixels('insetLeft', 'Left margin', 8000),
      pixels('insetRight', 'Right margin', 8000),
      pixels('softEdge', 'Edge fade', 4000),
    ],
  },
  { title: 'Start and end', fields: SKIPS },
  {
    title: 'Label',
    fields: [
      { kind: 'text', name: 'label', label: 'Text' },
      colour('labelColour', 'Text colour'),
      colour('labelBehind', 'Plate colour'),
      choice('labelSide', 'Side', SIDES),
    ],
  },
];
