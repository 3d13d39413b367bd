/** The workers that proof-read, and the one that finds: a pattern can run for ever, and is stopped alone. */
import type { Cue, Id, Programme } from '@cadence/core/programme/programme.ts';
import type { Finding } from '@cadence/core/check/finding.ts';
import type { Match, Search } from '@cadence/core/text/find.ts';
import { heldWorker } from '../workers/held.ts';
import type { Proof } from '../workers/proof.worker.ts';

const begin = () =>
  new Worker(new URL('../workers/proof.worker.ts', import.meta.url), { type: 'module' });
const reading = heldWorker<Proof>(begin);
const finding = heldWorker<Proof>(begin);

export const proofWorker = reading.get;

/** The longest time that a pattern may take, in milliseconds. */
const LONGEST = 3000;

/**
 * The matches in each of several texts.
 *
 * @throws where the pattern cannot be read or takes too long
 */
export async function findAll(texts: readonly string[], search: Search): Promise<Match[][]> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, refuse) => {
    timer = setTimeout(() => {
      finding.stop();
      refuse(
        new Error('This pattern takes too long. Simplify it: use fewer * and + within brackets.'),
      );
    }, LONGEST);
  });
  try {
    return await Promise.race([finding.get().find(texts, search), late]);
  } finally {
    clearTimeout(timer);
  }
}

let told = new Map<Id, Cue>();
let toldOf: Id | null = null;
const found = new Map<Id, readonly Finding[]>();
/** Answers come in the order of the questions, as the worker does one after the other. */
let last: Promise<unknown> = Promise.resolve();

/** Tells the worker what changed since it was last told, and gives what is found now. */
export function findingsNow({ facts, strands, cues }: Programme): Promise<Finding[]> {
  const before = toldOf === facts.id ? told : new Map<Id, Cue>();
  const all = Object.values(cues);
  const changed = all.filter((cue) => before.get(cue.id) !== cue);
  const gone = [...told.keys()].filter((id) => cues[id] === undefined);
  told = new Map(all.map((cue) => [cue.id, cue]));
  toldOf = facts.id;
  const answer = last.then(async () => {
    for (const [id, findings] of await proofWorker().read({ facts, strands, changed, gone }))
      found.set(id, findings);
    for (const id of gone) found.delete(id);
    return [...found.values()].flat();
  });
  last = answer.catch(() => {
    // Nobody knows what it has; it is told everything the next time.
    reading.stop();
    found.clear();
    told.clear();
    toldOf = null;
  });
  return answer;
}
