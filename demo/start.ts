/** Starts the server with the demo in it, if its data folder is empty. */
import { fileURLToPath } from 'node:url';
import { start } from '@cadence/server/start.ts';
import { seedDemo } from './seed.ts';

const project = fileURLToPath(new URL('../', import.meta.url));
const running = await start({
  data: process.env.CADENCE_DATA ?? `${project}data`,
  port: Number(process.env.CADENCE_PORT ?? 4310),
  web: `${project}packages/web/dist`,
});
if (await running.isNew()) await seedDemo(running);
process.stdout.write(`${running.address}\n`);
running.stopOnSignal();
