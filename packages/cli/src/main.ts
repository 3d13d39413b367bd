/** `cadence`: every computation from the command line. */
import { parseArgs } from 'node:util';
import { convertCommand, readCommand } from './captions.ts';
import { checkCommand, paceReadingCommand } from './check.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { WrongUsage } from './failure.ts';
import { listenCommand } from './listen.ts';
import { paceCrawlCommand, paceRollCommand } from './pace.ts';
import { sceneCommand, stillCommand } from './picture.ts';
import { splitCommand } from './split.ts';
import { weaveCommand } from './weave.ts';

interface Options {
  readonly json?: boolean;
  readonly help?: boolean;
  readonly only?: string;
  readonly as?: string;
  readonly rate?: string;
  readonly start?: string;
  readonly shift?: string;
  readonly at?: string;
  readonly height?: string;
  readonly material?: string;
  readonly profile?: string;
  readonly strand?: string;
  readonly language?: string;
  readonly pins?: string;
  readonly frame?: string;
  readonly size?: string;
  readonly duration?: string;
  readonly speed?: string;
  readonly window?: string;
}

interface Verb {
  /** Names of what stands after the verb, and what may stand there besides. */
  readonly takes: readonly string[];
  readonly maybe?: string;
  readonly example: string;
  run(names: string[], options: Options): Promise<object>;
}

const needed = (value: string | undefined, option: string): string => {
  if (value === undefined) throw new WrongUsage(`${option} is needed.`);
  return value;
};

const verbs: Readonly<Record<string, Verb>> = {
  listen: {
    takes: ['SOUND'],
    example: 'listen demo/ferry/narration-hesper.opus --only speech --json',
    run: ([file = ''], options) => listenCommand(file, options.only),
  },
  weave: {
    takes: ['SOUND', 'SCRIPT'],
    example: 'weave demo/ferry/narration-hesper.opus script.txt --pins pins.json --json',
    run: ([file = '', script = ''], options) => weaveCommand(file, script, options),
  },
  read: {
    takes: ['FILE'],
    example: 'read ferry.srt --json',
    run: ([file = ''], options) => readCommand(file, options),
  },
  convert: {
    takes: ['IN', 'OUT'],
    example: 'convert ferry.srt ferry.vtt --shift 1.5',
    run: ([from = '', to = ''], options) => convertCommand(from, to, options),
  },
  split: {
    takes: ['SOUND'],
    maybe: 'SCRIPT',
    example: 'split demo/ferry/narration-hesper.opus script.txt --profile unhurried --json',
    run: ([file = '', script], options) => splitCommand(file, script, options),
  },
  pace: {
    takes: ['reading, roll or crawl', 'CAPTIONS-or-SHEET'],
    example: 'pace roll credits.txt --duration 54 --json',
    run: ([what, file = ''], options) => {
      if (what === 'reading') return paceReadingCommand(file, options);
      if (what === 'roll') return paceRollCommand(file, options);
      if (what === 'crawl') return paceCrawlCommand(file, options);
      throw new WrongUsage('pace takes reading and captions, or roll or crawl and a sheet.');
    },
  },
  check: {
    takes: ['PROGRAMME-or-CAPTIONS'],
    example: 'check ferry.srt --json',
    run: ([file = ''], options) => checkCommand(file, options),
  },
  still: {
    takes: ['PROGRAMME', 'OUT.png'],
    example: 'still ferry.cadence.json --at 10:00:12:00 frame.png --height 720',
    run: ([file = '', out = ''], options) => {
      const height = options.height === undefined ? undefined : Number(options.height);
      if (height !== undefined && !(Number.isInteger(height) && height >= 1 && height <= 8640))
        throw new WrongUsage('--height takes whole pixels up to 8640.');
      return stillCommand(file, needed(options.at, '--at'), out, height, options.material);
    },
  },
  scene: {
    takes: ['PROGRAMME'],
    example: 'scene ferry.cadence.json --at 10:00:12:00 --json',
    run: ([file = ''], options) => sceneCommand(file, needed(options.at, '--at')),
  },
};

const text = { type: 'string' } as const;
const flag = { type: 'boolean' } as const;

function usage(): string {
  const lines = Object.values(verbs).map((verb) => `  npm run -s cadence -- ${verb.example}`);
  return ['Give a verb and its files, for example:', ...lines].join('\n');
}

async function run(args: string[]): Promise<{ result?: object; help?: string }> {
  let parsed;
  try {
    parsed = parseArgs({
      args,
      allowPositionals: true,
      options: {
        json: flag,
        help: flag,
        only: text,
        as: text,
        rate: text,
        start: text,
        shift: text,
        at: text,
        height: text,
        material: text,
        profile: text,
        strand: text,
        language: text,
        pins: text,
        frame: text,
        size: text,
        duration: text,
        speed: text,
        window: text,
      },
    });
  } catch (error) {
    throw new WrongUsage((error as Error).message);
  }
  const [name = '', ...names] = parsed.positionals;
  const options: Options = parsed.values;
  const verb = Object.hasOwn(verbs, name) ? verbs[name] : undefined;
  if (options.help) return { help: verb ? `npm run -s cadence -- ${verb.example}` : usage() };
  if (!verb) throw new WrongUsage(usage());
  const most = verb.takes.length + Number(verb.maybe !== undefined);
  if (names.length < verb.takes.length || names.length > most)
    throw new WrongUsage(
      `${name} takes ${verb.takes.join(' and ')}${verb.maybe ? `, and may take ${verb.maybe}` : ''}: ${verb.example}`,
    );
  return { result: await verb.run(names, options) };
}

const args = process.argv.slice(2);
try {
  const { result, help } = await run(args);
  process.stdout.write(help === undefined ? `${JSON.stringify(result)}\n` : `${help}\n`);
} catch (error) {
  if (error instanceof WrongUsage) {
    process.stderr.write(`${error.message}\n`);
    process.exitCode = 2;
  } else if (error instanceof Unusable) {
    const { kind, message, file } = error;
    if (args.includes('--json'))
      process.stdout.write(`${JSON.stringify({ error: { kind, message, file } })}\n`);
    process.stderr.write(`${file}: ${message}\n`);
    process.exitCode = 1;
  } else throw error;
}
