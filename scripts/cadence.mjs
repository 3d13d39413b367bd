/** The command line, `cadence`, from its bundle. Standard output belongs to it alone. */
import { pathToFileURL } from 'node:url';
import { ensureCommandLine, ensurePackages } from './ensure.mjs';

ensurePackages(true);
const { main } = await import(pathToFileURL(ensureCommandLine()).href);
process.exitCode = await main(process.argv.slice(2));
