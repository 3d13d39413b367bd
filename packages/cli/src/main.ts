/** `cadence`: every computation from the command line. */
import { Unusable } from '@cadence/node/unusable.ts';
import { WrongUsage } from './failure.ts';
import { parseUsage } from './usage.ts';

/** Writes an error as the contract has it: JSON where that was asked for, and a sentence. */
function tell(kind: string, message: string, file: string | undefined, asJson: boolean): void {
  const error = { kind, message, ...(file !== undefined && { file }) };
  if (asJson) process.stdout.write(`${JSON.stringify({ error })}\n`);
  process.stderr.write(file === undefined ? `${message}\n` : `${file}: ${message}\n`);
}

/**
 * Runs a command, and gives its exit code: 0 done, 1 the input could not be used, 2 wrong usage.
 *
 * @param args  what stands after `cadence`
 */
export async function main(args: readonly string[]): Promise<number> {
  const asJson = args.includes('--json');
  try {
    const asked = parseUsage(args);
    if ('help' in asked) process.stdout.write(`${asked.help}\n`);
    else {
      const result = await asked.verb.run(asked.names, asked.options);
      process.stdout.write(`${JSON.stringify(result)}\n`);
    }
    return 0;
  } catch (error) {
    if (error instanceof WrongUsage) {
      process.stderr.write(`${error.message}\n`);
      return 2;
    }
    if (error instanceof Unusable) tell(error.kind, error.message, error.file, asJson);
    else {
      const why = error instanceof Error ? error.message : String(error);
      tell(
        'unexpected',
        `This is a fault of cadence, and nothing was written: ${why}`,
        undefined,
        asJson,
      );
      if (process.env.CADENCE_LOG === 'debug')
        process.stderr.write(`${String((error as Error).stack)}\n`);
    }
    return 1;
  }
}
