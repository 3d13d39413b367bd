/**
 * Words that are not sure settle by themselves: around a pin or a tap that was just set, and where the text of a woven cue
 * was changed; so do the lines beside it that are not sure. What is sure or fixed does not move.
 */
import type { Edit } from '@cadence/core/programme/record/change.ts';
import type { Step } from '@cadence/core/programme/record/history.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { isUnsettled, unsettles } from '@cadence/core/programme/woven/settling.ts';
import { unsureAround } from '@cadence/core/programme/woven/unsure.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { whenMade } from '../desk/desk.ts';
import { store } from '../desk/store.ts';
import { weaveSome } from './weaving.ts';

/** Edits in more places at once are woven when the editor asks for it; so are sounds that take long to read. */
const FEW = 3;
const LONGEST = 20 * 60;
/** While the text is being typed, it rests for so long before its words are heard for, in milliseconds. */
const REST = 700;

const waiting = new Map<Id, ReturnType<typeof setTimeout>>();

/** Nothing is said where it goes wrong: the words stay doubtful, and can be woven by hand. */
async function settle(id: Id, after: Step['id']): Promise<void> {
  const programme = store.getState().open?.programme;
  const cue = programme?.cues[id];
  const sound = programme?.materials[programme.facts.sound ?? ''];
  if (!cue || !sound || toSeconds(sound.length) > LONGEST || !isUnsettled(cue)) return;
  const ids = unsureAround(programme, id).map((each) => each.id);
  await weaveSome(ids, 'sure', after).catch(() => undefined);
}

/** Of changes, one for each run of cues that settle together. */
function apart<T extends { readonly id: Id }>(changes: readonly T[]): T[] {
  const programme = store.getState().open?.programme;
  const seen = new Set<Id>();
  return changes.filter(({ id }) => {
    if (seen.has(id)) return false;
    for (const cue of programme ? unsureAround(programme, id) : []) seen.add(cue.id);
    return true;
  });
}

function soon(edit: Edit, step: Step['id']): void {
  const changes = apart(edit.changes.filter(unsettles));
  if (changes.length > FEW) return;
  for (const { id, becomes } of changes) {
    clearTimeout(waiting.get(id));
    waiting.set(
      id,
      setTimeout(() => void settle(id, step), becomes?.text ? REST : 0),
    );
  }
}

/** Has words settle after each edit, until it is ended. */
export const settling = (): (() => void) => whenMade(soon);
