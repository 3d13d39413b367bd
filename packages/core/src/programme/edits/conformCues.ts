/** Carrying cues and marks from one sound to another in its place (re-conforming), or along with one that is moved. */
import { carried, type Carried } from '../../conform/carrying.ts';
import { frameBefore, frameLength } from '../../time/frameRate.ts';
import { later, ZERO } from '../../time/ticks.ts';
import { apply } from '../apply.ts';
import { broughtAlong, type BroughtAlong } from '../broughtAlong.ts';
import { create, remove, update, type Change, type Edit } from '../change.ts';
import { soundOf, stretchOf, wholeSound } from '../heard.ts';
import type { Id, Programme, Sound } from '../programme.ts';

/** What carrying comes to. */
export interface Conforming extends Omit<BroughtAlong, 'changes'> {
  readonly edit: Edit;
}

const nothing = (edit: Edit): Conforming => ({ edit, kept: 0, notAsTheyWere: [], marksAtCuts: 0 });

/** How the new sound is heard: from where the old one was, whole, or from the same instant where that began later. */
function laid(programme: Programme, old: Sound, to: Id, map: readonly Carried[]): Sound {
  const material = programme.materials[to];
  if (!material) return old;
  const from = old.from > 0 ? (carried(map, old.from, 'start')?.time ?? ZERO) : ZERO;
  return { ...wholeSound(material), at: old.at, from, level: old.level };
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
  const name = `Put ${becomes?.name ?? 'a sound'} in the place of ${was?.name ?? 'another'}`;
  if (!old || !becomes) return nothing({ name, changes: [] });
  const fresh = laid(programme, old, to, map);
  const { changes, ...told } = broughtAlong(programme, old, fresh, map, newId);
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
      changes: [...changes, ...soundChanges(programme, old, fresh, newId), ...ofFacts],
    },
    ...told,
  };
}

/** The new sound is laid as the old one was, which is heard no longer. */
function soundChanges(programme: Programme, old: Sound, fresh: Sound, newId: () => Id): Change[] {
  const own = soundOf(programme, fresh.material);
  const [storedOld, storedOwn] = [programme.sounds[old.id], own && programme.sounds[own.id]];
  const plain = fresh.at === 0 && fresh.from === 0 && fresh.level === 0;
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
  return { edit: { ...laying, changes: [...laying.changes, ...changes] }, ...told };
}
