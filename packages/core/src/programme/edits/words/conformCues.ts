/** Carrying cues and marks from one sound to another in its place (re-conforming), or along with one that is moved. */
import { carried, type Carried } from '../../../conform/carrying.ts';
import { frameBefore, frameLength } from '../../../time/frameRate.ts';
import { earlier, later, subtract, ZERO, type Ticks } from '../../../time/ticks.ts';
import { apply } from '../../record/apply.ts';
import { broughtAlong, type BroughtAlong } from '../../woven/broughtAlong.ts';
import { create, remove, update, type Change, type Edit } from '../../record/change.ts';
import { correctionsAlong } from './correctionsAlong.ts';
import { soundOf, stretchOf, wholeSound } from '../../heard.ts';
import type { Id, Material, Programme, Sound } from '../../programme.ts';

/** What carrying comes to. */
export interface Conforming extends Omit<BroughtAlong, 'changes'> {
  readonly edit: Edit;
  /** Pieces, beats and hits that the editor had corrected, and that are so in the new sound too. */
  readonly corrections: number;
}

const nothing = (edit: Edit): Conforming => ({
  edit,
  kept: 0,
  notAsTheyWere: [],
  marksAtCuts: 0,
  corrections: 0,
});

/**
 * How the new sound is heard: as the old one was, whole, or between the same instants where that was trimmed. Its fades
 * fit into it.
 */
function laid(old: Sound, was: Material, becomes: Material, map: readonly Carried[]): Sound {
  const at = (time: Ticks, side: 'start' | 'end') => carried(map, time, side)?.time;
  const from = old.from > 0 ? (at(old.from, 'start') ?? ZERO) : ZERO;
  const end = old.to < was.length ? at(old.to, 'end') : undefined;
  const to = end !== undefined && end > from ? end : becomes.length;
  const length = later(ZERO, subtract(to, from));
  return {
    ...old,
    material: becomes.id,
    from,
    to,
    fadeIn: earlier(old.fadeIn, length),
    fadeOut: earlier(old.fadeOut, length),
  };
}

/**
 * Puts one sound in the place of another, and cues and marks where what they belong to is in the new one.
 *
 * @param map  what of the material `from` is where in the material `to`, from `carrying`
 */
export function conformCues(
  programme: Programme,
  from: Id,
  to: Id,
  map: readonly Carried[],
  newId: () => Id,
): Conforming {
  const old = soundOf(programme, from);
  const [was, becomes] = [programme.materials[from], programme.materials[to]];
  const name = `Carry cues over to ${becomes?.name ?? 'a sound'}`;
  if (!old || !was || !becomes) return nothing({ name, changes: [] });
  const fresh = laid(old, was, becomes, map);
  const { changes, ...told } = broughtAlong(programme, old, fresh, map, newId);
  const corrected = correctionsAlong(programme, from, to, map, newId);
  const { facts } = programme;
  const frame = frameLength(facts.frameRate);
  // A programme that ended with its sound does so still.
  const ends = facts.sound === from && Math.abs(facts.length - stretchOf(old).end) <= frame;
  const ofFacts = update('programme', facts, {
    ...(facts.sound === from && { sound: to }),
    ...(ends && { length: later(frame, frameBefore(stretchOf(fresh).end, facts.frameRate)) }),
  });
  return {
    edit: {
      name,
      changes: [
        ...changes,
        ...corrected.changes,
        ...soundChanges(programme, old, fresh, newId),
        ...ofFacts,
      ],
    },
    ...told,
    corrections: corrected.count,
  };
}

/** The new sound is laid as the old one was, which is heard no longer. */
function soundChanges(programme: Programme, old: Sound, fresh: Sound, newId: () => Id): Change[] {
  const own = soundOf(programme, fresh.material);
  const [storedOld, storedOwn] = [programme.sounds[old.id], own && programme.sounds[own.id]];
  const material = programme.materials[fresh.material];
  // What is heard whole and as it is needs no entry of its own where it is the main sound.
  const whole = material && { ...wholeSound(material), id: fresh.id };
  const plain = JSON.stringify(whole) === JSON.stringify(fresh);
  return [
    ...(storedOld ? [remove('sound', storedOld)] : []),
    ...(storedOwn ? [remove('sound', storedOwn)] : []),
    ...(plain && programme.facts.sound === old.material
      ? []
      : [create('sound', { ...fresh, id: newId() })]),
  ];
}

/**
 * A change to how a sound is laid, and cues and marks brought along with it.
 *
 * @param laying  the change, such as from `moveSound`
 */
export function layWithCues(
  programme: Programme,
  material: Id,
  laying: Edit,
  newId: () => Id,
): Conforming {
  const old = soundOf(programme, material);
  const fresh = soundOf(apply(programme, laying.changes), material);
  if (!old || !fresh) return nothing(laying);
  const { from, to } = fresh;
  const same: Carried = { from, to, at: from, until: to, how: 'same' };
  const { changes, ...told } = broughtAlong(programme, old, fresh, [same], newId);
  const edit = { ...laying, changes: [...laying.changes, ...changes] };
  return { edit, ...told, corrections: 0 };
}
