/**
 * How long it takes to put changes on top of somebody else's: `npx tsx bench/rebase.ts`. A programme of 10,000 cues,
 * of which so many were retimed by one hand and moved by another; the median of five.
 */
import { frames } from '@cadence/core/time/frameRate.ts';
import { apply } from '@cadence/core/programme/record/apply.ts';
import type { Change } from '@cadence/core/programme/record/change.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import { rebase } from '@cadence/core/programme/record/rebase.ts';
import { longProgramme } from '@cadence/core/programme/samples.ts';
import { add } from '@cadence/core/time/ticks.ts';

const programme = longProgramme(10_000);
const frame = frames(1, programme.facts.frameRate);
const cues = cuesInOrder(programme, 's');

for (const count of [500, 1000, 2000, 5000, 10_000]) {
  const some = cues.slice(0, count);
  const theirs: Change[] = some.map(({ id, end }) => ({
    entity: 'cue',
    id,
    was: { end },
    becomes: { end: add(end, frame) },
  }));
  const mine: Change[] = some.map(({ id, start, end }) => ({
    entity: 'cue',
    id,
    was: { start, end },
    becomes: { start: add(start, frame), end: add(end, frame) },
  }));
  const times: number[] = [];
  let leftOut = 0;
  for (let turn = 0; turn < 5; turn++) {
    const base = apply(programme, theirs);
    const begun = performance.now();
    leftOut = rebase(base, mine).leftOut.length;
    times.push(performance.now() - begun);
  }
  const median = times.sort((a, b) => a - b)[2] ?? 0;
  console.log(
    `${count.toLocaleString('en-GB').padStart(6)} changes: ${median.toFixed(0)} ms, ${leftOut} left out`,
  );
}
