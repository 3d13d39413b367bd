/** How one part of a text stands at an instant of its movement. */
import { eased } from './easing.ts';
import { after, grownAbout, shiftedBy, STRAIGHT, turnedAbout, type Transform } from './matrix.ts';
import {
  CENTRE,
  framesLong,
  type Anchor,
  type Move,
  type Movement,
  type Stay,
} from './movement.ts';
import { valueAt } from './values.ts';
import { chance } from './random.ts';
import { STRETCH, stretchedAt, type Stretching } from './stretching.ts';
import { steady } from './steady.ts';
import type { Coming, CueTime, Going } from './threads.ts';
import { framesOf, threadsOf } from './threads.ts';

/** A box in pixels of the frame, from its top left, and the baseline of what stands in it. */
export interface Ground {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  readonly baseline: number;
}

/** The boxes that a unit grows and turns about, and what its measures are. */
export interface Place {
  readonly unit: Ground;
  readonly word: Ground;
  readonly line: Ground;
  readonly whole: Ground;
  /** The size of the text in pixels. */
  readonly em: number;
  /** Of the frame, in pixels. */
  readonly frame: { readonly width: number; readonly height: number };
  /** Where the unit stands among its own, from 0. */
  readonly number: number;
}

/** A part that is wiped: what is seen of it, from 0 to 1, from which direction, and how wide the edge fades. */
export interface Wipe {
  readonly share: number;
  /** In degrees: 0 from the right, 90 from below. */
  readonly angle: number;
  /** In pixels. */
  readonly soft: number;
}

export interface UnitState {
  readonly transform: Transform;
  /** From 0 to 1. */
  readonly opacity: number;
  /** In pixels of the frame. */
  readonly blur: number;
  /** What is between its letters besides, in ems. */
  readonly spacing: number;
  /** Another colour than its own, and how much of it, from 0 to 1. */
  readonly tint?: { readonly colour: string; readonly share: number };
  readonly wipe?: Wipe;
}

export const AT_REST: UnitState = { transform: STRAIGHT, opacity: 1, blur: 0, spacing: 0 };

export const isAtRest = (state: UnitState): boolean => state === AT_REST;

type Changing = { -readonly [K in keyof UnitState]: UnitState[K] };

const mixed = (from: number, own: number, share: number): number => from + (own - from) * share;

function pointOf(about: Anchor, place: Place): [number, number] {
  const box = place[about.of];
  return [
    box.x + box.w * about.across,
    about.onBaseline ? box.baseline : box.y + box.h * about.down,
  ];
}

/** How far a unit is moved away so that it is just outside the frame, towards an angle. */
function outside({ unit, frame }: Place, x: number, y: number): number {
  const ways = [
    x > 0 ? (frame.width - unit.x) / x : x < 0 ? (unit.x + unit.w) / -x : Infinity,
    y > 0 ? (frame.height - unit.y) / y : y < 0 ? (unit.y + unit.h) / -y : Infinity,
  ];
  return Math.max(0, Math.min(...ways));
}

/** @param share  how much of the way to the style's own it has come, eased */
function apply(state: Changing, move: Move, share: number, place: Place): void {
  const { what, from, about = CENTRE } = move;
  const grown = (across: number, down: number): void => {
    state.transform = after(state.transform, grownAbout(across, down, ...pointOf(about, place)));
  };
  switch (what) {
    case 'opacity':
      state.opacity *= Math.min(1, Math.max(0, mixed(from ?? 0, 1, share)));
      break;
    case 'scale':
      grown(mixed(from ?? 0, 1, share), mixed(from ?? 0, 1, share));
      break;
    case 'width':
      grown(mixed(from ?? 0, 1, share), 1);
      break;
    case 'height':
      grown(1, mixed(from ?? 0, 1, share));
      break;
    case 'place': {
      const angle = ((move.angle ?? 90) * Math.PI) / 180;
      const [x, y] = [steady(Math.cos(angle)), steady(Math.sin(angle))];
      const far =
        move.in === 'outside'
          ? outside(place, x, y)
          : (from ?? 0) * (move.in === 'px' ? 1 : place.em);
      const away = far * (1 - share);
      state.transform = after(shiftedBy(x * away, y * away), state.transform);
      break;
    }
    case 'turn':
      state.transform = after(
        state.transform,
        turnedAbout(mixed(from ?? 0, 0, share), ...pointOf(about, place)),
      );
      break;
    case 'blur':
      state.blur = Math.max(state.blur, mixed(from ?? 0, 0, share), 0);
      break;
    case 'spacing':
      state.spacing += mixed(from ?? 0, 0, share);
      break;
    case 'colour':
      state.tint = { colour: move.colour ?? '#ffffff', share: Math.min(1, Math.max(0, 1 - share)) };
      break;
    case 'wipe':
      state.wipe = {
        share: Math.min(1, Math.max(0, share)),
        angle: move.angle ?? 180,
        soft: (move.soft ?? 0) * place.em,
      };
  }
}

/**
 * The share of its way that a unit has come at a frame, from 0 to 1; undefined where it is not seen. A unit that takes no
 * frames is there at once; one that takes five is on its way in five frames, and there in the sixth.
 */
function shareOf(frame: number, { begins, lands }: Coming): number | undefined {
  if (frame < begins) return undefined;
  return frame >= lands ? 1 : (frame - begins + 1) / (lands - begins + 1);
}

/** How much of a unit is left, from 1 to 0; undefined where it is gone. */
function leftOf(frame: number, { leaves, gone }: Going): number | undefined {
  if (frame >= gone) return undefined;
  return frame < leaves ? 1 : 1 - (frame - leaves + 1) / (gone - leaves + 1);
}

/** What of a movement one unit has part in. */
export interface UnitThread {
  readonly coming: Coming;
  readonly going: Going;
  readonly comesBy: readonly Move[];
  readonly goesBy: readonly Move[];
  readonly stays: readonly Stay[];
  /** The boxes of what comes in, of what stays and of what goes. */
  readonly inPlace: Place;
  readonly stayPlaces: readonly Place[];
  /** Of each of what stays, how it stretches; nothing where it does not. */
  readonly stretching?: readonly (Stretching | undefined)[] | undefined;
  readonly outPlace: Place;
}

/** How a unit stands at a frame of its cue; undefined where it is not seen. */
export function stateAt(thread: UnitThread, frame: number, time: CueTime): UnitState | undefined {
  const come = shareOf(frame, thread.coming);
  const left = leftOf(frame, thread.going);
  if (come === undefined || left === undefined) return undefined;
  const staying = thread.stays.length > 0;
  if (come === 1 && left === 1 && !staying) return AT_REST;
  const state: Changing = { ...AT_REST };
  thread.stays.forEach((stay, at) =>
    stayed(state, stay, thread.stayPlaces[at] as Place, frame, thread, time, at),
  );
  if (come < 1)
    for (const move of thread.comesBy)
      apply(state, move, eased(move.curve ?? move.easing, come), thread.inPlace);
  if (left < 1)
    for (const move of thread.goesBy)
      apply(state, move, 1 - eased(move.curve ?? move.easing, 1 - left), thread.outPlace);
  return state;
}

/** How much of a unit has come at a frame, and how much of it is left, from 0 to 1. */
export const comeAndLeft = (
  { coming, going }: UnitThread,
  frame: number,
): { readonly come: number; readonly left: number } => ({
  come: shareOf(frame, coming) ?? 0,
  left: leftOf(frame, going) ?? 0,
});

const [USUAL_PERIOD, SHAKES] = [framesLong(50), framesLong(2)];
/** Frames in which a pulse dies down to a third. */
const PULSE_DIES = 4;

function stayed(
  state: Changing,
  stay: Stay,
  place: Place,
  frame: number,
  { coming, going, stretching }: UnitThread,
  time: CueTime,
  number: number,
): void {
  const [x, y] = pointOf({ ...CENTRE, of: 'unit' }, place);
  const grown = (scale: number): void => {
    state.transform = after(state.transform, grownAbout(scale, scale, x, y));
  };
  const shifted = (across: number, down: number): void => {
    state.transform = after(shiftedBy(across, down), state.transform);
  };
  const share = (frame - coming.begins) / Math.max(1, going.gone - coming.begins - 1);
  const period = Math.max(1, framesOf(stay.period ?? USUAL_PERIOD, time));
  const wave = steady(Math.sin((2 * Math.PI * (frame - coming.begins)) / period));
  switch (stay.what) {
    case 'grows':
      grown(mixed(1, stay.amount ?? 1.1, share));
      break;
    case 'drifts': {
      const angle = ((stay.angle ?? 0) * Math.PI) / 180;
      const far = (stay.amount ?? 0.5) * place.em * share;
      shifted(steady(Math.cos(angle)) * far, steady(Math.sin(angle)) * far);
      break;
    }
    case 'breathes':
      grown(1 + ((stay.amount ?? 0.03) * (1 + wave)) / 2);
      break;
    case 'sways':
      state.transform = after(state.transform, turnedAbout((stay.amount ?? 2) * wave, x, y));
      break;
    case 'pulses': {
      const last = time[stay.on ?? 'beats']?.findLast((instant) => Math.round(instant) <= frame);
      if (last === undefined) break;
      grown(1 + (stay.amount ?? 0.05) * steady(Math.exp(-(frame - Math.round(last)) / PULSE_DIES)));
      break;
    }
    case 'swells':
      grown(1 + (stay.amount ?? 0.1) * steady(time.energy?.(frame) ?? 0));
      break;
    case 'stretches': {
      const unit = stretching?.[number];
      if (!unit) break;
      const { amount = STRETCH.amount, moves: what = STRETCH.moves } = stay;
      const back = framesOf(stay.period ?? STRETCH.period, time);
      const way = { amount, back, rate: time.rate };
      const { share: more, across } = stretchedAt(unit, frame, way, what !== 'height');
      apply(state, { what, from: 1 + more, easing: 'linear' }, 0, place);
      shifted(across, 0);
      break;
    }
    case 'trembles': {
      const shake = Math.max(1, framesOf(stay.period ?? SHAKES, time));
      const next = chance(
        (stay.seed ?? 1) * 7919 + place.number * 104_729 + Math.floor(frame / shake),
      );
      const far = (stay.amount ?? 0.02) * place.em;
      shifted((2 * next() - 1) * far, (2 * next() - 1) * far);
      break;
    }
    case 'values': {
      const { moves: what = 'scale', angle = 0 } = stay;
      const from = valueAt(stay, frame, time);
      if (from !== undefined)
        apply(state, { what, from, angle, in: 'em', easing: 'linear' }, 0, place);
      break;
    }
    case 'flashes':
    case 'underlines':
      // It is the frame that flashes, and a line that runs along: see flashes.ts and underline.ts in scene.
      break;
  }
}

/** How visible something is at a frame that comes and goes whole, and only fades: from 0 to 1. */
export function seenOf(movement: Movement, frame: number, length: number): number {
  const time = { length, beats: [], bars: [], marks: [], hits: [], beat: 1, rate: 1 };
  const part = { text: '', weight: 1 };
  const moving = { comes: [part], go: [part], pairs: [[0, 0]] as const };
  const { coming, going } = threadsOf(movement, moving, time);
  const [first, last] = [coming[0], going[0]];
  return first && last ? Math.min(shareOf(frame, first) ?? 0, leftOf(frame, last) ?? 0) : 0;
}
