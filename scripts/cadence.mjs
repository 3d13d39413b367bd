/** The command line, `cadence`. Standard output belongs to it alone. */
import { ensurePackages, runTypeScript } from './ensure.mjs';

ensurePackages(true);
process.exitCode = await runTypeScript('packages/cli/src/main.ts', process.argv.slice(2));
