/** Weaving words and cutting their cues anew, in one step; and what comes of it, for showing it before it is made. */
import { plural } from '../../../text/plural.ts';
import type { Repeat, Woven } from '../../../weave/woven.ts';
import { apply } from '../../record/apply.ts';
import type { Edit } from '../../record/change.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import { withTies } from '../../ties.ts';
import { cutCues, type Cut } from '../cues/cutCues.ts';
import { cuesAgain } from './cuesAgain.ts';
import { weaveCues, type Follow, type Weaving } from './weaveCues.ts';

export interface WeaveAndCut {
  readonly strand: Id;
  /** How cues follow their words; undefined where they stay. */
  readonly follow: Follow | undefined;
  /** How cues are cut; undefined where they are not. */
  readonly cut: Cut | undefined;
  /** Lines that are heard again and get cues of their own. */
  readonly repeats?: readonly Repeat[] | undefined;
}

export function weaveAndCut(
  programme: Programme,
  weaving: Weaving,
  woven: readonly Woven[],
  { strand, follow, cut, repeats = [] }: WeaveAndCut,
  newId: () => Id,
): Edit {
  const once = weaveCues(programme, weaving, woven, follow);
  const edit = repeats.length > 0 ? withAgain(programme, once, weaving, repeats, newId) : once;
  if (!cut) return edit;
  const parts = cutCues(apply(programme, edit.changes), strand, weaving.cues, cut, newId);
  return {
    ...edit,
    name: `${edit.name} and cut cues`,
    changes: [...edit.changes, ...parts.changes],
  };
}

/** An edit that weaves, and that gives lines that are heard again cues of their own. */
function withAgain(
  programme: Programme,
  once: Edit,
  weaving: Weaving,
  repeats: readonly Repeat[],
  newId: () => Id,
): Edit {
  const again = cuesAgain(apply(programme, once.changes), weaving, repeats, newId);
  return {
    ...once,
    name: `${once.name}, ${plural(repeats.length, 'line')} again`,
    changes: [...once.changes, ...again],
  };
}

/** The cues of a strand, in order, that an edit changes or makes out of `ids`: just as they are once it is made. */
export function cuesAfter(
  programme: Programme,
  strand: Id,
  ids: readonly Id[],
  edit: Edit,
): readonly Cue[] {
  const after = apply(programme, withTies(programme, edit).changes);
  const chosen = new Set(ids);
  return cuesInOrder(after, strand).filter(({ id }) => chosen.has(id) || !(id in programme.cues));
}
