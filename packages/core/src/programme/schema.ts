/**
 * The one schema of a programme: what entities, changes and files must look like. Server, command line, bringing in and
 * the published JSON Schema come from it.
 */
import * as yup from 'yup';
import type { Change } from './record/change.ts';
import { completed } from './defaults.ts';
import { FILE_FORMAT, PATTERN_FORMAT } from './fileFormat.ts';
import { HIT_BANDS } from '../listen/hits/hits.ts';
import { BAR_LENGTHS } from '../listen/pulse/bars.ts';
import { DRUMS } from '../listen/pulse/drums.ts';
import { SECTION_KINDS } from '../listen/structure/sectionKinds.ts';
import { METRES } from '../listen/pulse/metre.ts';
import { LEAST_LEVEL, MOST_LEVEL } from './edits/programme/sounds.ts';
import { LONGEST_SHEET, LONGEST_SPAN, MOST_CHANGES, MOST_LINES } from './record/limits.ts';
import { EASINGS } from '../movement/easing.ts';
import {
  CARETS,
  COMING,
  GOING,
  MOVES,
  HEARD_TIMES,
  NAMED_TIMES,
  ORDERS,
  STAYS,
  UNITS,
  VALUED,
} from '../movement/movement.ts';
import { ALIGNMENTS, CRAWL_DIRECTIONS, FOLLOWING } from './passage.ts';
import {
  LANGUAGES,
  LETTER_CASES,
  PLATED,
  PURPOSES,
  STANDING,
  STRAND_KINDS,
  TRAVELLING_KINDS,
  tableOf,
  type EntityKind,
  type Programme,
} from './programme.ts';

const MOST_TICKS = 705_600_000 * 86_400 * 2;
const id = yup
  .string()
  .max(64)
  .matches(/^[\w-]+$/);
const time = yup.number().integer().min(-MOST_TICKS).max(MOST_TICKS);
const instant = time.min(0);
const colour = yup.string().matches(/^#[0-9a-f]{6}$/i);
const count = yup.number().integer().min(0).max(1e15);
const strict = <T extends yup.ObjectShape>(shape: T) => yup.object(shape).noUnknown();

const span = strict({
  text: yup.string().defined().max(LONGEST_SPAN),
  italic: yup.boolean(),
  bold: yup.boolean(),
  underline: yup.boolean(),
  colour,
  speaker: yup.string().max(200),
  ruby: yup.string().max(1000),
});
const frameRate = strict({
  num: yup.number().integer().min(1).max(240_000).required(),
  den: yup.number().integer().min(1).max(1001).required(),
  dropFrame: yup.boolean().required(),
});
const amountOf = (most: number) => yup.number().min(-most).max(most).required();
const shadow = strict({
  colour: colour.required(),
  opacity: yup.number().min(0).max(1).required(),
  across: amountOf(400),
  down: amountOf(400),
  blur: yup.number().min(0).max(400).required(),
});
const plate = strict({
  behind: yup.string().oneOf(PLATED).required(),
  colour: colour.required(),
  opacity: yup.number().min(0).max(1).required(),
  across: yup.number().min(0).max(20).required(),
  down: yup.number().min(0).max(20).required(),
  corner: yup.number().min(0).max(20).required(),
});
/** In shares of the frame: text may stand beside it, to come in or to be kept. */
const beside = yup.number().min(-10).max(11).required();
const style = strict({
  family: yup.string().max(200),
  size: yup.number().min(1).max(4000),
  colour,
  outlineColour: colour,
  outlineWidth: yup.number().min(0).max(400),
  saidColour: colour.nullable(),
  across: yup.string().oneOf(['left', 'centre', 'right']),
  down: yup.string().oneOf(['top', 'middle', 'bottom']),
  margin: yup.number().min(-8000).max(8000),
  lineSpacing: yup.number().min(0.1).max(10),
  placed: strict({ x: beside, y: beside }).nullable().default(undefined),
  turn: yup.number().min(-360).max(360).nullable(),
  breakAt: yup.number().min(0.01).max(10).nullable(),
  fade: yup.number().integer().min(0).max(10_000).nullable(),
  bold: yup.boolean().nullable(),
  weight: yup.number().min(1).max(1000).nullable(),
  width: yup.number().min(1).max(1000).nullable(),
  gradient: strict({
    colour: colour.required(),
    angle: yup.number().min(-360).max(360).required(),
  })
    .nullable()
    .default(undefined),
  letterSpacing: yup.number().min(-1).max(10).nullable(),
  letterCase: yup.string().oneOf(LETTER_CASES).nullable(),
  fitWidth: yup.number().min(0.01).max(10).nullable(),
  shadow: shadow.nullable(),
  plate: plate.nullable(),
  behind: colour.nullable(),
  behindImage: id.nullable(),
});
const word = strict({
  text: yup.string().defined().max(1000),
  start: time.required(),
  end: time.required(),
  source: yup.string().oneOf(['heard', 'tapped', 'woven', 'spread', 'pinned']).required(),
  confidence: yup.number().min(0).max(1).nullable(),
  syllables: yup
    .array(
      strict({
        from: yup.number().integer().min(1).max(1000).required(),
        share: yup.number().min(0).max(1).required(),
      }).required(),
    )
    .max(100)
    .nullable(),
  held: yup
    .array(
      strict({
        from: yup.number().min(0).max(1).required(),
        to: yup.number().min(0).max(1).required(),
      }).required(),
    )
    .max(100)
    .nullable(),
});
const tie = strict({
  to: yup.string().oneOf(['word', 'mark']).required(),
  mark: id,
  frames: yup.number().integer().min(-100_000).max(100_000).required(),
}).nullable();
const share = yup.number().min(0).max(1);
const duration = strict({
  count: yup.number().min(0).max(1e7).required(),
  in: yup.string().oneOf(['frames', 'beats', 'share']).required(),
});
const anchor = strict({
  of: yup.string().oneOf(['unit', 'word', 'line', 'whole']).required(),
  across: yup.number().min(-10).max(10).required(),
  down: yup.number().min(-10).max(10).required(),
  onBaseline: yup.boolean(),
});
const curve = yup
  .array(yup.number().min(-10).max(10).required())
  .min(4)
  .max(4)
  .test('time', '${path} must go forwards in time', (value) =>
    [value?.[0], value?.[2]].every((x) => x === undefined || (x >= 0 && x <= 1)),
  );
const seed = yup.number().integer().min(0).max(0xffffffff);
const amount = yup.number().min(-100_000).max(100_000);
const move = strict({
  what: yup.string().oneOf(MOVES).required(),
  from: amount,
  angle: yup.number().min(-360).max(360),
  in: yup.string().oneOf(['px', 'em', 'outside']),
  colour,
  soft: yup.number().min(0).max(100),
  easing: yup.string().oneOf(EASINGS).required(),
  curve,
  about: anchor.default(undefined),
});
const MOST_MOVES = 20;
const phase = {
  by: yup.string().oneOf(UNITS).required(),
  takes: duration.nullable().defined(),
  overlap: share.required(),
  order: yup.string().oneOf(ORDERS).required(),
  seed: seed.required(),
  moves: yup.array(move.required()).max(MOST_MOVES).required(),
};
const comesIn = strict({
  ...phase,
  when: yup.string().oneOf(COMING).required(),
  arrives: yup.string().oneOf(['lands', 'begins']).required(),
  early: yup.number().integer().min(-10_000).max(10_000).required(),
  over: duration.nullable().defined(),
  after: yup.number().integer().min(-10_000).max(10_000).required(),
  rate: yup.number().min(0.1).max(1000),
  uneven: share,
  slips: yup.number().min(0).max(100),
  caret: strict({
    shape: yup.string().oneOf(CARETS).required(),
    on: yup.number().integer().min(1).max(10_000).required(),
    off: yup.number().integer().min(0).max(10_000).required(),
    stays: yup.number().integer().min(0).max(1e7).nullable(),
  })
    .nullable()
    .default(undefined),
});
const goes = strict({ ...phase, when: yup.string().oneOf(GOING).required() });
const stay = strict({
  what: yup.string().oneOf(STAYS).required(),
  by: yup.string().oneOf(UNITS).required(),
  amount,
  angle: yup.number().min(-360).max(360),
  period: duration.default(undefined),
  on: yup.string().oneOf(HEARD_TIMES),
  seed,
  colour,
  over: yup.string().oneOf(['frame', 'behind']),
  every: yup.number().integer().min(1).max(1000),
  moves: yup.string().oneOf(VALUED),
  at: yup
    .array(
      strict({
        when: yup.string().oneOf(NAMED_TIMES).required(),
        values: yup.array(amount.required()).min(1).max(100).required(),
      }).required(),
    )
    .max(20),
  easing: yup.string().oneOf(EASINGS),
});
const stays = yup.array(stay.required()).max(MOST_MOVES);
/** Of a pattern all of it; of a cue what differs. */
const wholeMovement = strict({
  comesIn: comesIn.nullable().defined(),
  stays: stays.required(),
  goes: goes.nullable().defined(),
});
const ownMovement = strict({ comesIn: comesIn.nullable(), stays, goes: goes.nullable() });
const keySounds = strict({
  material: id.required(),
  level: yup.number().min(LEAST_LEVEL).max(MOST_LEVEL).required(),
  varied: share.required(),
  seed: seed.required(),
  space: instant.nullable(),
  enter: instant.nullable(),
}).default(undefined);
const ratio = yup.number().min(0).max(100);
const alignment = yup.string().oneOf(ALIGNMENTS);
const towards = yup.string().oneOf(CRAWL_DIRECTIONS);
const pixels = yup.number().min(0).max(1e7);
const frameCount = yup.number().integer().min(0).max(1e7);
/** Of rolls and of crawls together: each has some of them. */
const passageLook = strict({
  family: yup.string().max(200),
  size: yup.number().min(1).max(4000),
  colour,
  headingColour: colour,
  roleColour: colour,
  lineSpacing: yup.number().min(0.1).max(10),
  titleRatio: ratio,
  headingRatio: ratio,
  roleRatio: ratio,
  largerRatio: ratio,
  smallerRatio: ratio,
  gutter: ratio,
  gutterAt: share,
  sideWidth: share,
  roleAlign: alignment,
  nameAlign: alignment,
  capitalHeadings: yup.boolean(),
  capitalRoles: yup.boolean(),
  capitalNames: yup.boolean(),
  boldHeadings: yup.boolean(),
  boldRoles: yup.boolean(),
  boldNames: yup.boolean(),
  blank: ratio,
  picture: ratio,
  softEdge: pixels,
  behind: colour,
  behindOpacity: share,
  downwards: yup.boolean(),
  tilt: yup.number().min(-90).max(90),
  sway: share,
  swayFrames: frameCount,
  between: yup.string().max(200),
  times: yup.number().integer().min(1).max(1000),
  towards,
  insetLeft: pixels,
  insetRight: pixels,
  band: ratio,
  bandColour: colour,
  bandOpacity: share,
  bandBlur: yup.number().min(0).max(400),
  bandFade: frameCount,
  up: pixels,
  label: yup.string().max(200),
  labelSide: towards,
  labelColour: colour,
  labelBehind: colour,
});
const journey = strict({
  follows: yup.string().oneOf(FOLLOWING).required(),
  speed: yup.number().min(1e-6).max(100_000).required(),
  keeps: yup.string().oneOf(['start', 'end']).required(),
  skipStart: pixels.required(),
  skipEnd: pixels.required(),
  holdStart: frameCount.required(),
  holdEnd: frameCount.required(),
  easeIn: frameCount.required(),
  easeOut: frameCount.required(),
});
const side = yup.number().integer().min(16).max(16_384);

/** What an entity of each kind may have. */
export const shapes = {
  programme: strict({
    id,
    title: yup.string().max(300),
    frame: strict({ width: side.required(), height: side.required() }),
    frameRate,
    startTimecode: instant,
    length: instant,
    setBy: yup.string().oneOf(['default', 'film', 'editor']),
    sound: id.nullable(),
    picture: id.nullable(),
    backdrop: strict({
      colour: colour.required(),
      image: id.nullable(),
      fill: yup.boolean().nullable(),
      across: share.nullable(),
      down: share.nullable(),
    }),
    profile: strict({
      charactersASecond: yup.number().min(1).max(200).required(),
      longestLine: yup.number().integer().min(1).max(1000).required(),
      lines: yup.number().integer().min(1).max(20).required(),
      shortestStay: instant.required(),
      longestStay: instant.required(),
      gapFrames: yup.number().integer().min(0).max(1000).required(),
    }),
    spelling: strict({
      language: yup.string().oneOf(LANGUAGES).required(),
      right: yup.array(yup.string().max(200).required()).required().max(20_000),
    }).nullable(),
    passedOver: yup.array(yup.string().max(500).required()).max(100_000).nullable(),
  }),
  material: strict({
    id,
    hash: yup.string().matches(/^[0-9a-f]{64}$/),
    name: yup.string().max(500),
    kind: yup.string().oneOf(['sound', 'film', 'font', 'image']),
    bytes: count,
    length: instant,
    sound: strict({
      sampleRate: yup.number().min(1).max(1e7).required(),
      channels: yup.number().integer().min(1).max(256).required(),
      codec: yup.string().max(60).required(),
    }).nullable(),
    picture: strict({
      width: count.required(),
      height: count.required(),
      frameRate: frameRate.nullable(),
      codec: yup.string().max(60).required(),
      shown: yup.boolean().required(),
    }).nullable(),
    family: yup.string().max(200).nullable(),
    remarks: yup.array(yup.string().max(500).required()).max(20),
    energy: yup
      .string()
      .matches(/^[A-Za-z0-9+/]*={0,2}$/)
      .max(2_000_000)
      .nullable(),
    sections: yup
      .array(
        strict({
          start: instant.required(),
          end: instant.required(),
          kind: yup.string().oneOf(SECTION_KINDS).required(),
          letter: yup
            .string()
            .matches(/^[A-Z]$/)
            .required(),
        }).required(),
      )
      .max(500)
      .nullable(),
  }),
  strand: strict({
    id,
    kind: yup.string().oneOf(STRAND_KINDS),
    title: yup.string().max(300),
    style,
    overlapAllowed: yup.boolean(),
    place: yup.number().integer().min(-1e6).max(1e6).nullable(),
    muted: yup.boolean().nullable(),
    pattern: id.nullable(),
  }),
  cue: strict({
    id,
    strand: id,
    start: instant,
    end: instant,
    text: yup.array(yup.array(span.required()).required().max(500)).max(MOST_LINES),
    style,
    words: yup.array(word.required()).max(5000),
    comment: yup.string().max(20_000).nullable(),
    cutShort: yup.string().max(20_000).nullable(),
    startTie: tie,
    endTie: tie,
    passage: id.nullable(),
    pattern: id.nullable(),
    movement: ownMovement.nullable(),
    keys: keySounds.nullable(),
    group: strict({ id: id.required(), standing: yup.string().oneOf(STANDING).required() })
      .nullable()
      .default(undefined),
  }),
  piece: strict({ id, material: id, start: instant, end: instant, kept: yup.boolean().nullable() }),
  beat: strict({
    id,
    material: id,
    at: instant,
    bar: yup.string().oneOf(METRES).nullable(),
    fixed: yup.boolean(),
    pin: yup.string().oneOf(['bar', 'metre']).nullable(),
    opinion: yup
      .array(yup.number().min(0).max(100).required())
      .length(1 + BAR_LENGTHS.length)
      .nullable(),
  }),
  hit: strict({
    id,
    material: id,
    start: instant,
    end: instant,
    level: yup.number().min(-200).max(60),
    band: yup.string().oneOf(HIT_BANDS).nullable(),
    drums: yup.array(yup.string().oneOf(DRUMS).required()).max(DRUMS.length).nullable(),
    kept: yup.boolean(),
  }),
  mark: strict({
    id,
    at: instant,
    name: yup.string().max(500),
    purpose: yup.string().oneOf(PURPOSES),
  }),
  sound: strict({
    id,
    material: id,
    at: instant,
    from: instant,
    to: instant,
    level: yup.number().min(LEAST_LEVEL).max(MOST_LEVEL),
    fadeIn: instant,
    fadeOut: instant,
    muted: yup.boolean(),
  }),
  passage: strict({
    id,
    kind: yup.string().oneOf(TRAVELLING_KINDS),
    title: yup.string().max(300),
    sheet: yup.string().max(LONGEST_SHEET),
    separator: yup.string().max(100).nullable(),
    look: passageLook,
    journey,
  }),
  pattern: strict({
    id,
    name: yup.string().max(200),
    look: style,
    movement: wholeMovement,
    note: yup.string().max(1000).nullable(),
  }),
} satisfies Record<EntityKind, yup.AnyObjectSchema>;

/** Fields that an entity may lack. */
const OPTIONAL = new Set([
  'piece kept',
  'material energy',
  'material sections',
  'beat pin',
  'beat opinion',
  'hit band',
  'hit drums',
  'strand place',
  'strand muted',
  'strand pattern',
  'cue comment',
  'cue cutShort',
  'cue startTie',
  'cue endTie',
  'cue passage',
  'cue pattern',
  'cue movement',
  'cue keys',
  'cue group',
  'pattern note',
  'passage separator',
  'programme spelling',
  'programme passedOver',
]);

/** The fields that an entity of each kind has when it is whole. */
export const wholeFields = Object.fromEntries(
  Object.entries(shapes).map(([kind, shape]) => [
    kind,
    Object.keys(shape.fields).filter((field) => !OPTIONAL.has(`${kind} ${field}`)),
  ]),
) as Record<EntityKind, string[]>;

const change = strict({
  entity: yup.string().oneOf(Object.keys(shapes)).required(),
  id: id.required(),
  was: yup.object().nullable().defined(),
  becomes: yup.object().nullable().defined(),
});

/** What is sent to have a step kept; see `wire.ts`. */
export const commitShape = strict({
  base: count.required(),
  clientId: id.required(),
  changeId: id.required(),
  name: yup.string().defined().max(400),
  changes: yup.array(change.required()).required().max(MOST_CHANGES),
  undoes: id,
  redoes: id,
  goesWith: id,
});

/** Something that is not as the schema has it: a sentence that says which part is wrong. */
export class NotValid extends Error {
  override readonly name = 'NotValid';
}

/** Checks `value` against `shape`. @throws NotValid */
export function check<T>(shape: yup.Schema<unknown>, value: unknown): T {
  try {
    return shape.validateSync(value, { strict: true, abortEarly: true }) as T;
  } catch (error) {
    throw new NotValid(
      error instanceof yup.ValidationError ? `${error.message}.` : 'It cannot be read.',
    );
  }
}

/** Checks the fields of a change; what comes into being must be whole. @throws NotValid */
export function checkChange({ entity, id: of, was, becomes }: Change): void {
  for (const part of [was, becomes]) if (part) check(shapes[entity], part);
  if (becomes && 'id' in becomes && becomes.id !== of)
    throw new NotValid('An entity cannot change its id.');
  if (was === null && becomes) checkWhole(entity, becomes);
}

/** Checks that an entity has every field of its kind, each as it should be. @throws NotValid */
export function checkWhole(kind: EntityKind, entity: unknown): void {
  check(shapes[kind], entity);
  const missing = wholeFields[kind].find((field) => !Object.hasOwn(entity as object, field));
  if (missing) throw new NotValid(`The ${kind} lacks its ${missing}.`);
}

const table = yup.object().required();
/** Tables that files of earlier versions lack. */
const later = yup.object();
const fileShape = yup.object({
  format: yup.string().oneOf([FILE_FORMAT]).required(),
  programme: yup
    .object({
      facts: table,
      materials: table,
      strands: table,
      cues: table,
      pieces: table,
      beats: later,
      hits: later,
      marks: later,
      sounds: later,
      passages: later,
      patterns: later,
    })
    .required()
    .noUnknown(),
});

/** A file of patterns; each of them is checked by itself. */
export const patternFileShape = strict({
  format: yup.string().oneOf([PATTERN_FORMAT]).required(),
  height: yup.number().integer().min(1).max(100_000).required(),
  rate: strict({
    num: yup.number().integer().min(1).max(1e6).required(),
    den: yup.number().integer().min(1).max(1e6).required(),
  }).required(),
  patterns: yup.array(yup.object().required()).min(1).max(1000).required(),
});

/**
 * The programme of a file, every entity of it checked; tables that files of earlier versions lack are empty.
 *
 * @param json  what the file holds, parsed
 * @throws NotValid
 */
export function programmeOfFile(json: unknown): Programme {
  const file = check<{ programme: Programme }>(fileShape, json);
  const programme = completed(file.programme);
  checkWhole('programme', programme.facts);
  for (const kind of Object.keys(tableOf) as (keyof typeof tableOf)[])
    for (const [key, entity] of Object.entries(programme[tableOf[kind]])) {
      checkWhole(kind, entity);
      if (entity.id !== key) throw new NotValid(`The ${kind} ${key} has another id inside.`);
    }
  return programme;
}
