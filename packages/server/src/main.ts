/** Runs the server by the settings of the environment; the scripts of the project start this. */
import { fileURLToPath } from 'node:url';
import { start } from './start.ts';

const project = fileURLToPath(new URL('../../../', import.meta.url));
const { CADENCE_DATA, CADENCE_PORT, CADENCE_WEB, CADENCE_LOG } = process.env;

const running = await start({
  data: CADENCE_DATA ?? `${project}data`,
  port: Number(CADENCE_PORT ?? 4310),
  ...(CADENCE_WEB !== 'none' && { web: CADENCE_WEB ?? `${project}packages/web/dist` }),
  ...(CADENCE_LOG && { logLevel: CADENCE_LOG }),
});
process.stdout.write(`${running.address}\n`);

let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    void running.stop().then(() => process.exit(0));
  });
