/** Starts the server with the demo in it, if its data folder is empty. */
import { fileURLToPath } from 'node:url';
import { endWith } from '@cadence/server/endWith.ts';
import { start } from '@cadence/server/start.ts';
import { seedDemo } from './seed.ts';

process.on('uncaughtException', endWith);

const project = fileURLToPath(new URL('../', import.meta.url));
const running = await start({
  data: process.env.CADENCE_DATA ?? `${project}data`,
  port: Number(process.env.CADENCE_PORT ?? 4310),
  web: `${project}packages/web/dist`,
}).catch(endWith);
if (await running.isNew()) await seedDemo(running);
process.stdout.write(`${running.address}\n`);
running.stopOnSignal();
