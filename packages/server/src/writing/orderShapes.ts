/** What a job may ask for. */
import * as yup from 'yup';
import { check } from '@cadence/core/programme/schema.ts';
import { NOTHING, PICTURE } from '@cadence/core/scene/sceneAt.ts';
import { countFrames } from '@cadence/core/time/frameRate.ts';
import { subtract, type Ticks } from '@cadence/core/time/ticks.ts';
import { CONTAINERS, QUALITIES, type Writing } from '@cadence/film/write/order.ts';

/** The largest picture, in pixels a side, and the most stills of one job. */
const LARGEST = 8192;
const MOST_STILLS = 20_000;
/** The most frames of one film: a day at 60 a second. */
const MOST_FRAMES = 86_400 * 60;
const BITS_A_SECOND = { least: 100_000, most: 400_000_000 };

const ticks = yup.number().integer().required();
const range = yup
  .object({ start: ticks.min(0), end: ticks })
  .noUnknown()
  .required()
  .test('forward', 'A range must end after it starts.', ({ start, end }) => end > start);
const side = yup.number().integer().min(2).max(LARGEST).required();
const even = side.test('even', 'The size of a film is even.', (value) => value % 2 === 0);
const ground = yup
  .string()
  .required()
  .test(
    'ground',
    'There is no such ground.',
    (value) => value === PICTURE || value === NOTHING || /^#[0-9a-f]{6}$/i.test(value),
  );
const loudness = yup.number().min(-60).max(0);

const film = yup
  .object({
    container: yup.string().oneOf(CONTAINERS).required(),
    video: yup.string().oneOf(['h264', 'vp9', 'av1']).required(),
    audio: yup.string().oneOf(['aac', 'opus']),
    width: even,
    height: even,
    rate: yup
      .object({
        num: yup.number().integer().min(1).max(240_000).required(),
        den: yup.number().integer().min(1).max(2002).required(),
        dropFrame: yup.boolean().required(),
      })
      .noUnknown()
      .required(),
    quality: yup
      .mixed()
      .required()
      .test('quality', 'There is no such quality.', (value) =>
        typeof value === 'number'
          ? value >= BITS_A_SECOND.least && value <= BITS_A_SECOND.most
          : QUALITIES.some((each) => each === value),
      ),
    range,
    on: ground,
    loudness,
    tracks: yup.array(yup.string().required()).required(),
  })
  .noUnknown()
  .test('length', 'This film is too long, or has no frame.', (value) => {
    const length = subtract(value.range.end as Ticks, value.range.start as Ticks);
    const frames = countFrames(length, value.rate);
    return frames >= 1 && frames <= MOST_FRAMES;
  });

const stills = yup
  .object({
    stills: yup
      .array(
        yup
          .object({ at: ticks.min(0), name: yup.string().min(1).max(200).required() })
          .noUnknown()
          .required(),
      )
      .min(1)
      .max(MOST_STILLS)
      .required(),
    width: side,
    height: side,
    on: ground,
  })
  .noUnknown();

const sound = yup
  .object({ range, bits: yup.number().oneOf([16, 24]).required(), loudness })
  .noUnknown();

const shapes = { film, stills, sound };

/** @throws NotValid where it is not what can be written */
export function checkWriting(value: unknown): Writing {
  const shape = yup
    .object({
      kind: yup.string().oneOf(['film', 'stills', 'sound']).required(),
      order: yup.mixed(),
    })
    .noUnknown();
  const { kind, order } = check<{ kind: Writing['kind']; order: unknown }>(shape, value);
  return { kind, order: check(shapes[kind], order) } as Writing;
}
