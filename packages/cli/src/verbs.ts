/** What the command line can do. What a verb needs is loaded when it is run. */
import { WrongUsage } from './failure.ts';

/** Every option, and what stands for its value; null where it takes none. */
export const OPTIONS = {
  only: 'speech,onsets,pulse,drums,sections,hits',
  as: 'FORMAT',
  rate: '30000/1001',
  start: '10:00:00:00',
  shift: 'SECONDS',
  at: 'TIMECODE',
  height: 'PIXELS',
  material: 'FOLDER',
  profile: 'NAME',
  strand: 'NAME',
  pattern: 'NAME',
  sounds: 'KEYS.wav',
  seed: 'NUMBER',
  language: 'en',
  pins: 'PINS.json',
  frame: '1920x1080',
  size: 'PIXELS',
  duration: 'SECONDS',
  speed: 'PIXELS-PER-FRAME',
  window: 'X0,X1',
  range: 'TIMECODE-TIMECODE',
  loudness: '-23',
  bits: '24',
  codec: 'h264',
  'text-only': null,
} as const;
export type OptionName = keyof typeof OPTIONS;
export type Options = { readonly [Name in OptionName]?: string };

export interface Verb {
  /** Names of what stands after the verb, and what may stand there besides. */
  readonly takes: readonly string[];
  readonly maybe?: string;
  /** The options that it knows, besides `--json` and `--help`. */
  readonly options: readonly OptionName[];
  readonly example: string;
  run(names: readonly string[], options: Options): Promise<object>;
}

const needed = (value: string | undefined, option: string): string => {
  if (value === undefined) throw new WrongUsage(`${option} is needed.`);
  return value;
};

const isProgramme = (file: string): boolean => /\.json$/i.test(file);

/** Refuses options that go with something else than what was given. */
function onlyFor(what: string, options: Options, names: readonly OptionName[]): void {
  const given = names.find((name) => options[name] !== undefined);
  if (given !== undefined) throw new WrongUsage(`--${given} goes with ${what}.`);
}

/** By name; a verb of two words is one of several that its first word has. */
export const VERBS: Readonly<Record<string, Verb>> = {
  listen: {
    takes: ['SOUND'],
    options: ['only'],
    example: 'listen demo/ferry/narration-hesper.opus --only speech --json',
    run: async ([file = ''], options) =>
      (await import('./listen.ts')).listenCommand(file, options.only),
  },
  weave: {
    takes: ['SOUND-or-PROGRAMME', 'SCRIPT-or-OUT'],
    options: ['pins', 'language', 'as', 'rate', 'strand', 'material'],
    example: 'weave demo/ferry/narration-hesper.opus script.txt --pins pins.json --json',
    run: async ([file = '', other = ''], options) => {
      if (!isProgramme(file)) {
        onlyFor('a programme', options, ['strand', 'material']);
        return (await import('./weave.ts')).weaveCommand(file, other, options);
      }
      onlyFor('a sound and a script', options, ['pins', 'as', 'rate']);
      return (await import('./programmes.ts')).weaveProgrammeCommand(file, other, options);
    },
  },
  bring: {
    takes: ['PROGRAMME', 'FILE', 'OUT'],
    options: ['strand', 'as', 'rate'],
    example: 'bring ferry.cadence.json ferry.srt ferry-with-cues.cadence.json --json',
    run: async ([file = '', from = '', out = ''], options) =>
      (await import('./programmes.ts')).bringCommand(file, from, out, options),
  },
  carry: {
    takes: ['PROGRAMME', 'SOUND', 'OUT'],
    options: ['material'],
    example: 'carry ferry.cadence.json narration-2.wav ferry-2.cadence.json --json',
    run: async ([file = '', sound = '', out = ''], options) =>
      (await import('./programmes.ts')).carryCommand(file, sound, out, options),
  },
  read: {
    takes: ['FILE'],
    options: ['as', 'rate'],
    example: 'read ferry.srt --json',
    run: async ([file = ''], options) => (await import('./captions.ts')).readCommand(file, options),
  },
  convert: {
    takes: ['IN', 'OUT'],
    options: ['as', 'rate', 'start', 'shift'],
    example: 'convert ferry.srt ferry.vtt --shift 1.5',
    run: async ([from = '', to = ''], options) =>
      (await import('./captions.ts')).convertCommand(from, to, options),
  },
  split: {
    takes: ['SOUND'],
    maybe: 'SCRIPT',
    options: ['strand', 'profile', 'language', 'as', 'rate'],
    example: 'split demo/ferry/narration-hesper.opus script.txt --profile unhurried --json',
    run: async ([file = '', script], options) =>
      (await import('./split.ts')).splitCommand(file, script, options),
  },
  'pace reading': {
    takes: ['CAPTIONS'],
    options: ['profile', 'as', 'rate'],
    example: 'pace reading ferry.srt --json',
    run: async ([file = ''], options) =>
      (await import('./check.ts')).paceReadingCommand(file, options),
  },
  'pace roll': {
    takes: ['SHEET'],
    options: ['rate', 'frame', 'size', 'duration', 'speed'],
    example: 'pace roll credits.txt --duration 54 --json',
    run: async ([file = ''], options) => (await import('./pace.ts')).paceRollCommand(file, options),
  },
  'pace crawl': {
    takes: ['SHEET'],
    options: ['rate', 'frame', 'size', 'window', 'duration', 'speed'],
    example: 'pace crawl notices.txt --speed 4 --json',
    run: async ([file = ''], options) =>
      (await import('./pace.ts')).paceCrawlCommand(file, options),
  },
  check: {
    takes: ['PROGRAMME-or-CAPTIONS'],
    options: ['profile', 'language', 'as', 'rate'],
    example: 'check ferry.srt --json',
    run: async ([file = ''], options) => (await import('./check.ts')).checkCommand(file, options),
  },
  still: {
    takes: ['PROGRAMME', 'OUT.png'],
    options: ['at', 'height', 'material'],
    example: 'still ferry.cadence.json --at 10:00:12:00 frame.png --height 720',
    run: async ([file = '', out = ''], options) => {
      const height = options.height === undefined ? undefined : Number(options.height);
      if (height !== undefined && !(Number.isInteger(height) && height >= 1 && height <= 8640))
        throw new WrongUsage('--height takes whole pixels up to 8640.');
      const at = needed(options.at, '--at');
      return (await import('./picture.ts')).stillCommand(file, at, out, height, options.material);
    },
  },
  sound: {
    takes: ['PROGRAMME', 'OUT.wav'],
    options: ['range', 'loudness', 'bits', 'material'],
    example: 'sound ferry.cadence.json ferry.wav --loudness -23 --json',
    run: async ([file = '', out = ''], options) =>
      (await import('./sound.ts')).soundCommand(file, out, options),
  },
  film: {
    takes: ['PROGRAMME', 'OUT.mp4'],
    options: ['material', 'range', 'size', 'rate', 'codec', 'text-only', 'loudness'],
    example: 'film ferry.cadence.json ferry.mp4 --size 720 --json',
    run: async ([file = '', out = ''], options) =>
      (await import('./film.ts')).filmCommand(file, out, options),
  },
  'pattern list': {
    takes: ['PROGRAMME'],
    options: [],
    example: 'pattern list ferry.cadence.json --json',
    run: async ([file = '']) => (await import('./patterns.ts')).listCommand(file),
  },
  'pattern apply': {
    takes: ['PROGRAMME', 'OUT'],
    options: ['pattern', 'strand'],
    example: 'pattern apply ferry.cadence.json ferry-2.cadence.json --pattern Splice --json',
    run: async ([file = '', out = ''], options) => {
      const pattern = needed(options.pattern, '--pattern');
      return (await import('./patterns.ts')).applyCommand(file, out, pattern, options.strand);
    },
  },
  keys: {
    takes: ['SOUND-or-TEXT', 'TEXT-or-OUT.wav'],
    options: ['rate', 'seed', 'sounds'],
    example: 'keys opening.txt --rate 9 --seed 3 --sounds demo/ferry/keys.opus opening.wav --json',
    run: async ([file = '', other = ''], options) => {
      const keys = await import('./keys.ts');
      if (options.sounds !== undefined) return keys.keysLaidCommand(file, other, options);
      onlyFor('--sounds', options, ['rate', 'seed']);
      return keys.keysOnHitsCommand(file, other);
    },
  },
  scene: {
    takes: ['PROGRAMME'],
    options: ['at'],
    example: 'scene ferry.cadence.json --at 10:00:12:00 --json',
    run: async ([file = ''], options) => {
      const at = needed(options.at, '--at');
      return (await import('./picture.ts')).sceneCommand(file, at);
    },
  },
};
