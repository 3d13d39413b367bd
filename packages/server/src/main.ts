/** Runs the server by the settings of the environment; the scripts of the project start this. */
import { fileURLToPath } from 'node:url';
import { endWith } from './endWith.ts';
import { start } from './start.ts';

const project = fileURLToPath(new URL('../../../', import.meta.url));
const { CADENCE_DATA, CADENCE_PORT, CADENCE_WEB, CADENCE_LOG } = process.env;

process.on('uncaughtException', endWith);

const running = await start({
  data: CADENCE_DATA ?? `${project}data`,
  port: Number(CADENCE_PORT ?? 4310),
  ...(CADENCE_WEB !== 'none' && { web: CADENCE_WEB ?? `${project}packages/web/dist` }),
  ...(CADENCE_LOG && { logLevel: CADENCE_LOG }),
}).catch(endWith);
process.stdout.write(`${running.address}\n`);
running.stopOnSignal();
