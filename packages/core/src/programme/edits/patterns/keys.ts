/** Laying sounds of keys under letters. */
import { plural } from '../../../text/plural.ts';
import { hitsInOrder } from '../../order.ts';
import type { Id, KeySounds, Programme } from '../../programme.ts';
import { update, type Edit } from '../../record/change.ts';
import { strokesOf } from '../../strokes.ts';

/** As key sounds are until something else is said. */
export const KEYS: Omit<KeySounds, 'material'> = { level: -6, varied: 0.5, seed: 1 };

/**
 * Lays the sounds of a recording under the letters of cues, each with a seed of its own, or changes those that are
 * there. Cues that do not come in letter by letter are left as they are.
 */
export function layKeys(
  programme: Programme,
  ids: readonly Id[],
  part: Partial<KeySounds> & Pick<KeySounds, 'material'>,
): Edit {
  const cues = ids.flatMap((id) => programme.cues[id] ?? []);
  const typed = cues.filter((cue) => cue.keys || strokesOf(programme, cue).length > 0);
  const name = `Lay key sounds under ${plural(typed.length, 'cue')}`;
  if (hitsInOrder(programme, part.material).length === 0) {
    const note = 'No hits were found in this recording, so that no keys can be cut out of it.';
    return { name, changes: [], note };
  }
  const changes = typed.flatMap((cue, at) => {
    const same = cue.keys?.material === part.material;
    const keys = { ...KEYS, seed: KEYS.seed + at, ...(same && cue.keys), ...part };
    return update('cue', cue, { keys });
  });
  const others = cues.length - typed.length;
  return {
    name,
    changes,
    ...(others > 0 && {
      note: `${plural(others, 'cue does', 'cues do')} not come in letter by letter, and stayed without.`,
    }),
  };
}

/** Takes the key sounds from under cues. */
export function takeKeys(programme: Programme, ids: readonly Id[]): Edit {
  const cues = ids.flatMap((id) => programme.cues[id] ?? []).filter((cue) => cue.keys);
  return {
    name: `Take the key sounds from ${plural(cues.length, 'cue')}`,
    changes: cues.flatMap((cue) => update('cue', cue, { keys: null })),
  };
}
