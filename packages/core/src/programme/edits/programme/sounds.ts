/** Laying sounds in the programme: where each begins, what of it is heard, how loud, and its fades. */
import { nearestFrame } from '../../../time/frameRate.ts';
import {
  add,
  clamp,
  earlier,
  fromSeconds,
  later,
  subtract,
  ZERO,
  type Ticks,
} from '../../../time/ticks.ts';
import { create, remove, update, type Edit } from '../../record/change.ts';
import { soundOf, soundsHeard, wholeSound } from '../../heard.ts';
import { shortestCue } from '../../record/limits.ts';
import type { Id, Programme, Sound } from '../../programme.ts';

/** Levels that make sense, in decibels. */
export const LEAST_LEVEL = -60;
export const MOST_LEVEL = 0;
/** A fade that keeps a cut from clicking. */
const SHORT_FADE = fromSeconds(0.02);

/** Lets a material be heard from the start of the programme, beside what is heard already. */
export function addSound(programme: Programme, material: Id, newId: () => Id): Edit {
  const found = programme.materials[material];
  const name = `Add ${found?.name ?? 'a sound'} to the sounds`;
  if (!found?.sound || soundOf(programme, material)) return { name, changes: [] };
  const changes = [create('sound', { ...wholeSound(found), id: newId() })];
  return { name, changes };
}

/** A material is heard no longer. */
export function removeSound(programme: Programme, material: Id): Edit {
  const laid = soundOf(programme, material);
  const stored = laid && programme.sounds[laid.id];
  const main = programme.facts.sound === material;
  return {
    name: 'Remove a sound',
    changes: [
      ...(stored ? [remove('sound', stored)] : []),
      ...(main ? update('programme', programme.facts, { sound: null }) : []),
    ],
  };
}

/**
 * Changes how a sound is heard. What is heard of it stays within its material and is at least a frame
 * long, fades fit into it, and it does not begin before the programme.
 */
export function setSound(
  programme: Programme,
  material: Id,
  part: Partial<Omit<Sound, 'id' | 'material'>>,
  newId: () => Id,
  name = 'Change level and fades',
): Edit {
  const old = soundOf(programme, material);
  const whole = programme.materials[material];
  if (!old || !whole) return { name, changes: [] };
  const wanted = { ...old, ...part };
  const shortest = shortestCue(programme);
  const from = clamp(wanted.from, ZERO, subtract(whole.length, shortest));
  const to = clamp(wanted.to, add(from, shortest), whole.length);
  const length = subtract(to, from);
  const next: Sound = {
    ...wanted,
    from,
    to,
    at: later(wanted.at, ZERO),
    level: Math.max(LEAST_LEVEL, Math.min(MOST_LEVEL, wanted.level)),
    fadeIn: clamp(wanted.fadeIn, ZERO, length),
    fadeOut: clamp(wanted.fadeOut, ZERO, length),
  };
  const stored = programme.sounds[old.id];
  const changes = stored
    ? update('sound', stored, next)
    : [create('sound', { ...next, id: newId() })];
  return { name, changes };
}

/** Whether a sound is the only one of several that is heard. */
export const isAlone = (programme: Programme, material: Id): boolean => {
  const sounds = soundsHeard(programme);
  return (
    sounds.length > 1 && sounds.every((sound) => sound.muted !== (sound.material === material))
  );
};

/** Has a sound be heard alone: all others are muted; where it is so already, none is muted any more. */
export function hearAlone(programme: Programme, material: Id, newId: () => Id): Edit {
  const all = isAlone(programme, material);
  const edits = soundsHeard(programme).flatMap(({ material: other, muted }) => {
    const quiet = !all && other !== material;
    return muted === quiet ? [] : [setSound(programme, other, { muted: quiet }, newId)];
  });
  return {
    name: all ? 'Unmute every sound' : 'Solo a sound',
    changes: edits.flatMap(({ changes }) => changes),
  };
}

/** Moves a sound against the programme by whole frames. */
export function moveSound(
  programme: Programme,
  material: Id,
  frames: Ticks,
  newId: () => Id,
): Edit {
  const sound = soundOf(programme, material);
  const name = 'Move the sound';
  if (!sound) return { name, changes: [] };
  const wanted = add(sound.at, nearestFrame(frames, programme.facts.frameRate));
  // Before the programme's start, what is heard is cut instead.
  const cut = wanted < 0 ? (-wanted as Ticks) : ZERO;
  const edit = setSound(
    programme,
    material,
    { at: later(wanted, ZERO), from: add(sound.from, cut) },
    newId,
    name,
  );
  return cut > 0
    ? { ...edit, note: 'The part before the start of the programme is not heard.' }
    : edit;
}

/**
 * Trims a sound so that the programme begins with an instant of it, with a short fade in.
 *
 * @param at  the instant, in the material's time: its first beat, say
 */
export function beginWith(programme: Programme, material: Id, at: Ticks, newId: () => Id): Edit {
  const sound = soundOf(programme, material);
  const name = 'Start at this beat';
  if (!sound) return { name, changes: [] };
  const from = later(earlier(at, sound.to), ZERO);
  return setSound(
    programme,
    material,
    { at: ZERO, from, fadeIn: later(sound.fadeIn, SHORT_FADE) },
    newId,
    name,
  );
}
