/** A server for one test, on a data folder of its own: `serve.ts FOLDER PORT empty|demo|long`. */
import { fileURLToPath } from 'node:url';
import { longProgramme } from '@cadence/core/programme/samples.ts';
import { start } from '@cadence/server/start.ts';
import { seedDemo } from '../demo/seed.ts';

const [data = '', port = '0', content = 'empty'] = process.argv.slice(2);
const web = fileURLToPath(new URL('../packages/web/dist', import.meta.url));
const running = await start({ data, port: Number(port), web, logLevel: 'silent' });
if (await running.isNew()) {
  if (content === 'demo') await seedDemo(running);
  if (content === 'long') await running.keeper.keepNew(longProgramme(10_000));
}
process.stdout.write(`${running.address}\n`);
running.stopOnSignal();
