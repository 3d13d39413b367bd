/** Laying sounds of keys under letters. */
import { plural } from '../../../text/plural.ts';
import { hitsInOrder } from '../../order.ts';
import type { Id, KeySounds, Programme } from '../../programme.ts';
import { update, type Change, type Edit } from '../../record/change.ts';
import { soundsHeard } from '../../heard.ts';
import { setSound } from '../programme/sounds.ts';
import { strokesOf } from '../../strokes.ts';

/** As key sounds are until something else is said. */
export const KEYS: Omit<KeySounds, 'material'> = { level: -6, varied: 0.5, seed: 1 };

/**
 * Lays the sounds of a recording under the letters of cues, each with a seed of its own, or changes those that are
 * there. Cues that do not come in letter by letter are left as they are. A recording that would be heard besides is muted,
 * unless words have their times in it.
 */
export function layKeys(
  programme: Programme,
  ids: readonly Id[],
  part: Partial<KeySounds> & Pick<KeySounds, 'material'>,
  newId: () => Id,
): Edit {
  const cues = ids.flatMap((id) => programme.cues[id] ?? []);
  const typed = cues.filter((cue) => cue.keys || strokesOf(programme, cue).length > 0);
  const name = `Lay key sounds under ${plural(typed.length, 'cue')}`;
  if (hitsInOrder(programme, part.material).length === 0) {
    const note = 'No hits were found in this recording, so that no keys can be cut out of it.';
    return { name, changes: [], note };
  }
  const isFirst = !Object.values(programme.cues).some(
    ({ keys }) => keys?.material === part.material,
  );
  const quiet =
    isFirst && Object.values(programme.cues).every(({ words }) => words.length === 0)
      ? silenced(programme, part.material, newId)
      : [];
  const laid = typed.flatMap((cue, at) => {
    const same = cue.keys?.material === part.material;
    const keys = { ...KEYS, seed: KEYS.seed + at, ...(same && cue.keys), ...part };
    return update('cue', cue, { keys });
  });
  const others = cues.length - typed.length;
  const notes = [
    ...(quiet.length > 0 ? ['The recording itself is muted: only its keys are heard.'] : []),
    ...(others > 0
      ? [
          `${plural(others, 'cue does', 'cues do')} not come in letter by letter, and stayed without.`,
        ]
      : []),
  ];
  return {
    name,
    changes: [...laid, ...quiet],
    ...(notes.length > 0 && { note: notes.join(' ') }),
  };
}

/** What mutes a recording that is heard. */
function silenced(programme: Programme, material: Id, newId: () => Id): readonly Change[] {
  const isHeard = soundsHeard(programme).some(
    (sound) => sound.material === material && !sound.muted,
  );
  return isHeard ? setSound(programme, material, { muted: true }, newId).changes : [];
}

/** Takes the key sounds from under cues. */
export function takeKeys(programme: Programme, ids: readonly Id[]): Edit {
  const cues = ids.flatMap((id) => programme.cues[id] ?? []).filter((cue) => cue.keys);
  return {
    name: `Take the key sounds from ${plural(cues.length, 'cue')}`,
    changes: cues.flatMap((cue) => update('cue', cue, { keys: null })),
  };
}
