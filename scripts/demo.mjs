/** Sets everything up and starts the application with the demo. */
import { ensureBuilt, ensurePackages, runTypeScript } from './ensure.mjs';

ensurePackages();
ensureBuilt();
process.exitCode = await runTypeScript('demo/start.ts');
