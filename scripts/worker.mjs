/** Sets everything up and starts a worker, which takes films from the queue that CADENCE_QUEUE names. */
import { ensureCrew, ensurePackages, runTypeScript } from './ensure.mjs';

ensurePackages();
ensureCrew();
process.exitCode = await runTypeScript('packages/server/src/worker.ts');
