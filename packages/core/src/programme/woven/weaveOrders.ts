/** Weaving in the time of a sound: what is asked for of the programme, and what comes back in its time. */
import type { Range } from '../../time/range.ts';
import { earlier, later, ZERO, type Ticks } from '../../time/ticks.ts';
import type { Pin, Tap, Woven } from '../../weave/woven.ts';
import { runsOf, toWeave, type Stay } from '../edits/words/weaveCues.ts';
import { inMaterial, inProgramme, soundOf, stretchOf } from '../heard.ts';
import type { Id, Programme } from '../programme.ts';

/** Words to be woven, with pins and bounds in the time of the material. */
export interface WeaveOrder {
  readonly words: readonly string[];
  readonly pins: readonly Pin[];
  readonly taps: readonly Tap[];
  readonly within: Range;
  /** The words that begin a line or a sentence. */
  readonly lines: readonly number[];
}

/** Orders for a sound, and what puts their answers into the programme's time. */
export interface WeaveOrders {
  readonly orders: readonly WeaveOrder[];
  readonly inProgramme: (woven: readonly Woven[]) => Woven[];
}

/**
 * What is to be heard for in a material, so that some cues get the times of their words. Cues that stand by themselves
 * are heard for only up to what is on either side of them.
 *
 * @param stay  as in `toWeave`
 * @returns     undefined where the material is not heard in the programme
 */
export function weaveOrders(
  programme: Programme,
  strand: Id,
  cues: readonly Id[],
  material: Id,
  stay: Stay = 'fixed',
): WeaveOrders | undefined {
  const sound = soundOf(programme, material);
  if (!sound) return undefined;
  const there = (time: Ticks): Ticks => later(ZERO, inMaterial(sound, time));
  const here = <T extends Ticks | null>(time: T): T =>
    (time === null ? null : later(ZERO, inProgramme(sound, time))) as T;
  const heard = stretchOf(sound);
  const orders = runsOf(programme, strand, cues).map((run): WeaveOrder => {
    const { words, pins, taps, lines } = toWeave(programme, strand, run.cues, stay);
    return {
      ...{ words, lines },
      pins: pins.map((pin): Pin => ({
        index: pin.index,
        ...(pin.start !== undefined && { start: there(pin.start) }),
        ...(pin.end !== undefined && { end: there(pin.end) }),
      })),
      taps: taps.map(({ index, at }) => ({ index, at: there(at) })),
      within: {
        start: there(later(heard.start, run.within.start)),
        end: there(earlier(heard.end, run.within.end)),
      },
    };
  });
  return {
    orders,
    inProgramme: (woven) =>
      woven.map(({ near, sounds, ...word }) => ({
        ...word,
        ...(sounds && {
          sounds: sounds.map((each) => ({
            ...each,
            start: here(each.start),
            end: here(each.end),
          })),
        }),
        start: here(word.start),
        end: here(word.end),
        ...(near && { near: { start: here(near.start), end: here(near.end) } }),
      })),
  };
}
