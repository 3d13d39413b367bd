/** Runs the server by the settings of the environment; the scripts of the project start this. */
import { endWith } from './endWith.ts';
import { settings } from './settings.ts';
import { start } from './start.ts';

process.on('uncaughtException', endWith);

const running = await start(settings()).catch(endWith);
process.stdout.write(`${running.address}\n`);
running.stopOnSignal();
