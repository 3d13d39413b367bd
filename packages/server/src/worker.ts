/** Runs a worker by the settings of the environment: `npm run worker` starts this. */
import { Crew } from '@cadence/node/crew.ts';
import { endWith } from './endWith.ts';
import { CannotStart } from './keep/cannotStart.ts';
import { workerSettings } from './settings.ts';
import { openDepot } from './writing/openDepot.ts';
import { work } from './writing/worker.ts';

process.on('uncaughtException', endWith);

const { queue, depot: place } = workerSettings();
if (!queue)
  endWith(
    new CannotStart('A worker needs a queue: set CADENCE_QUEUE, such as redis://127.0.0.1:6379.'),
  );
const depot = await openDepot(place).catch(endWith);
const crew = new Crew();
const working = work(queue, depot, crew);
process.stdout.write(`Takes films from ${queue}, ${crew.size} parts at a time.\n`);
let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    void working
      .close()
      .then(() => depot.close())
      .then(() => process.exit(0));
  });
