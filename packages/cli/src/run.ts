/** Runs `cadence` with the words that this process was given. */
import { main } from './main.ts';

process.exitCode = await main(process.argv.slice(2));
