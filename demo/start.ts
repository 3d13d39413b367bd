/** Starts the server with the demo in it, if its data folder is empty. */
import { endWith } from '@cadence/server/endWith.ts';
import { settings } from '@cadence/server/settings.ts';
import { start } from '@cadence/server/start.ts';
import { seedDemo } from './seed.ts';

process.on('uncaughtException', endWith);

const running = await start(settings()).catch(endWith);
if (await running.isNew()) await seedDemo(running);
process.stdout.write(`${running.address}\n`);
running.stopOnSignal();
