/** The sections of a song follow its bars: where the editor says where bars begin, they are looked for again. */
import { setSong, withOtherBars } from '@cadence/core/programme/edits/found/pulse.ts';
import { beatsInOrder } from '@cadence/core/programme/order.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import type { Step } from '@cadence/core/programme/record/history.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { make, whenMade } from '../desk/desk.ts';
import { openNow, store } from '../desk/store.ts';
import { heardIn, listeningWorker } from './heard.ts';

/** Bars are often corrected one after the other; sections wait for so long, in milliseconds. */
const REST = 800;

const waiting = new Map<Id, ReturnType<typeof setTimeout>>();

const barsOf = (material: Id) =>
  beatsInOrder(openNow().programme, material).filter(({ bar }) => bar !== null);

/** Nothing is said where it goes wrong: the sections stay as they are. */
async function follow(material: Id, after: Step['id']): Promise<void> {
  const before = store.getState().open?.programme.materials[material];
  if (!before?.energy) return;
  const heard = await heardIn(before.hash);
  if (!heard || !store.getState().open) return;
  const bars = barsOf(material);
  const sections = await listeningWorker().sections(
    { pulse: heard.pulse, level: heard.level },
    bars.map(({ at }) => toSeconds(at)),
  );
  const now = store.getState().open?.programme.materials[material];
  if (now !== before || JSON.stringify(barsOf(material)) !== JSON.stringify(bars)) return;
  if (JSON.stringify(sections) === JSON.stringify(now.sections ?? null)) return;
  const changes = setSong(openNow().programme, material, { sections });
  make({ name: 'Find the sections', changes }, { goesWith: after });
}

function soon(edit: Edit, step: Step['id']): void {
  const programme = store.getState().open?.programme;
  for (const material of programme ? withOtherBars(programme, edit) : []) {
    clearTimeout(waiting.get(material));
    waiting.set(
      material,
      setTimeout(() => void follow(material, step).catch(() => undefined), REST),
    );
  }
}

/** Has sections follow each edit of bars, until it is ended. */
export const sectionsFollow = (): (() => void) => whenMade(soon);
