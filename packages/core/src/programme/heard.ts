/**
 * What is heard in the programme, and when: the sounds as they are laid, and what was found in them in the
 * programme's time.
 */
import { ENERGIES_A_SECOND, unpackEnergy } from '../listen/signal/energy.ts';
import { add, clamp, subtract, toSeconds, ZERO, type Ticks } from '../time/ticks.ts';
import type { Range } from '../time/range.ts';
import { beatsInOrder, hitsInOrder, piecesInOrder } from './order.ts';
import type { Beat, Hit, Id, Material, Piece, Programme, Section, Sound } from './programme.ts';

/** A material heard whole from the start of the programme, as it is. */
export const wholeSound = (material: Material): Sound => ({
  id: material.id,
  material: material.id,
  at: ZERO,
  from: ZERO,
  to: material.length,
  level: 0,
  fadeIn: ZERO,
  fadeOut: ZERO,
  muted: false,
});

/** How a material is heard, if it is: as it was laid, or whole where it is the main sound. */
export function soundOf(programme: Programme, material: Id | null): Sound | undefined {
  if (material === null) return undefined;
  const laid = Object.values(programme.sounds).find((sound) => sound.material === material);
  if (laid) return laid;
  const main = programme.facts.sound === material ? programme.materials[material] : undefined;
  return main && wholeSound(main);
}

/** Every sound that is heard, the main one first. */
export function soundsHeard(programme: Programme): readonly Sound[] {
  const main = soundOf(programme, programme.facts.sound);
  const others = Object.values(programme.sounds).filter(
    (sound) => sound.material !== main?.material,
  );
  return main ? [main, ...others] : others;
}

/** The sound that would take the place of another: the last that came and is not heard yet, else the last other one. */
export function newSound(programme: Programme, old: Id): Id | undefined {
  const heard = new Set(soundsHeard(programme).map(({ material }) => material));
  const others = Object.values(programme.materials).filter(
    ({ id, sound }) => sound !== null && id !== old,
  );
  return (others.findLast(({ id }) => !heard.has(id)) ?? others.at(-1))?.id;
}

/** When in the programme an instant of the sound's material is heard. */
export const inProgramme = (sound: Sound, time: Ticks): Ticks =>
  add(subtract(time, sound.from), sound.at);

/** The instant of the sound's material that is heard at a time of the programme. */
export const inMaterial = (sound: Sound, time: Ticks): Ticks =>
  add(subtract(time, sound.at), sound.from);

/**
 * A time of the programme as an instant of a material; the time itself where the material is not heard.
 */
export function materialTime(programme: Programme, material: Id | null, time: Ticks): Ticks {
  const sound = soundOf(programme, material);
  return sound ? inMaterial(sound, time) : time;
}

/** An instant of a material as a time of the programme; the instant itself where it is not heard. */
export function programmeTime(programme: Programme, material: Id | null, time: Ticks): Ticks {
  const sound = soundOf(programme, material);
  return sound ? inProgramme(sound, time) : time;
}

/** The stretch of the programme during which a sound is heard. */
export const stretchOf = (sound: Sound): Range => ({
  start: sound.at,
  end: add(sound.at, subtract(sound.to, sound.from)),
});

/**
 * How loud a sound is at a time of the programme, as a factor: nothing outside its stretch, its fades at
 * either end as straight lines.
 */
export function gainAt(sound: Sound, time: Ticks): number {
  const { start, end } = stretchOf(sound);
  if (sound.muted || time < start || time >= end) return 0;
  const rising = sound.fadeIn > 0 ? Math.min(1, (time - start) / sound.fadeIn) : 1;
  const falling = sound.fadeOut > 0 ? Math.min(1, (end - time) / sound.fadeOut) : 1;
  return Math.min(rising, falling) * 10 ** (sound.level / 20);
}

const energies = new WeakMap<Material, Uint8Array>();

/** How loud the main sound is at a time of the programme, from 0 to 1; 0 where that was not heard. */
export function energyAt(programme: Programme, time: Ticks): number {
  const sound = soundOf(programme, programme.facts.sound);
  const material = programme.materials[sound?.material ?? ''];
  if (!sound || !material?.energy) return 0;
  const energy = energies.get(material) ?? unpackEnergy(material.energy);
  energies.set(material, energy);
  const place = toSeconds(inMaterial(sound, time)) * ENERGIES_A_SECOND;
  const before = Math.floor(place);
  const share = place - before;
  const kept = (1 - share) * (energy[before] ?? 0) + share * (energy[before + 1] ?? 0);
  return kept / 255;
}

/** Remembers the last answer as long as nothing that it was made from has changed. */
function remembering<T>(
  table: (programme: Programme) => unknown,
  make: (programme: Programme) => readonly T[],
): (programme: Programme) => readonly T[] {
  let last: readonly unknown[] = [];
  let answer: readonly T[] = [];
  return (programme) => {
    const { facts, sounds, materials } = programme;
    const now = [table(programme), sounds, facts.sound, materials];
    if (now.some((part, at) => part !== last[at])) [last, answer] = [now, make(programme)];
    return answer;
  };
}

/** Ranges of a material as they fall in the programme, cut at the ends of what is heard. */
function shiftedRanges<T extends Range>(sound: Sound, found: readonly T[]): readonly T[] {
  if (sound.at === 0 && sound.from === 0 && found.every((item) => item.end <= sound.to))
    return found;
  return found
    .filter((item) => item.end > sound.from && item.start < sound.to)
    .map((item) => ({
      ...item,
      start: inProgramme(sound, clamp(item.start, sound.from, sound.to)),
      end: inProgramme(sound, clamp(item.end, sound.from, sound.to)),
    }));
}

const byStart = (a: Range, b: Range) => a.start - b.start;

/** What is found in each sound, one sound after another; sorted where there are several. */
function merged<T>(
  programme: Programme,
  of: (sound: Sound) => readonly T[],
  compare: (a: T, b: T) => number,
): readonly T[] {
  const parts = soundsHeard(programme)
    .map(of)
    .filter((part) => part.length > 0);
  return parts.length === 1 ? (parts[0] ?? []) : parts.flat().sort(compare);
}

/** The pieces of speech that are heard, in the programme's time, by start. */
export const heardPieces = remembering<Piece>(
  (programme) => programme.pieces,
  (programme) =>
    merged(
      programme,
      (sound) => shiftedRanges(sound, piecesInOrder(programme, sound.material)),
      byStart,
    ),
);

/** The sections of the songs that are heard, in the programme's time, by start. */
export const heardSections = remembering<Section>(
  (programme) => programme.materials,
  (programme) =>
    merged(
      programme,
      (sound) => shiftedRanges(sound, programme.materials[sound.material]?.sections ?? []),
      byStart,
    ),
);

/** The hits that are heard, in the programme's time, by start. */
export const heardHits = remembering<Hit>(
  (programme) => programme.hits,
  (programme) =>
    merged(
      programme,
      (sound) => shiftedRanges(sound, hitsInOrder(programme, sound.material)),
      byStart,
    ),
);

/** The beats that are heard, in the programme's time, in order. */
export const heardBeats = remembering<Beat>(
  (programme) => programme.beats,
  (programme) =>
    merged(
      programme,
      (sound) => {
        const beats = beatsInOrder(programme, sound.material);
        if (sound.at === 0 && sound.from === 0) return beats.filter(({ at }) => at <= sound.to);
        return beats
          .filter(({ at }) => at >= sound.from && at < sound.to)
          .map((beat) => ({ ...beat, at: inProgramme(sound, beat.at) }));
      },
      (a, b) => a.at - b.at,
    ),
);
