/** What a command line asks for: a verb, what it is given, and options of its own. */
import { parseArgs } from 'node:util';
import { nearestWord } from '@cadence/core/text/language/editDistance.ts';
import { WrongUsage } from './failure.ts';
import { OPTIONS, VERBS, type OptionName, type Options, type Verb } from './verbs.ts';

export type Asked =
  | { readonly help: string }
  | { readonly verb: Verb; readonly names: readonly string[]; readonly options: Options };

const COMMAND = 'npm run -s cadence --';

/** All that can be asked for. */
export function usage(): string {
  const lines = Object.values(VERBS).map(({ example }) => `  ${COMMAND} ${example}`);
  return [
    'Give a verb and its files, for example:',
    ...lines,
    `${COMMAND} VERB --help tells what a verb takes.`,
  ].join('\n');
}

/** What a verb takes. */
function helpOf(name: string, { takes, maybe, options, example }: Verb): string {
  const files = [...takes, ...(maybe === undefined ? [] : [`[${maybe}]`])];
  const given = options.map((option) =>
    OPTIONS[option] === null ? `[--${option}]` : `[--${option} ${OPTIONS[option]}]`,
  );
  return [
    `${COMMAND} ${[name, ...files, ...given, '[--json]'].join(' ')}`,
    `  ${COMMAND} ${example}`,
  ].join('\n');
}

/** Whether options take a value, as Node's parser wants to know it. */
const typesOf = (names: readonly OptionName[]) =>
  Object.fromEntries(
    names.map((name) => [
      name,
      { type: OPTIONS[name] === null ? ('boolean' as const) : ('string' as const) },
    ]),
  );

/** The words of a command line that are no options and no values of any. */
function wordsIn(args: readonly string[]): string[] {
  const known = typesOf(Object.keys(OPTIONS) as OptionName[]);
  const flags = { json: { type: 'boolean' as const }, help: { type: 'boolean' as const } };
  return parseArgs({
    args: [...args],
    allowPositionals: true,
    strict: false,
    options: { ...known, ...flags },
  }).positionals;
}

/** The verb that some words begin with; undefined where they begin with none. */
function verbIn(words: readonly string[]): { name: string; verb: Verb } | undefined {
  for (const count of [2, 1]) {
    const name = words.slice(0, count).join(' ');
    if (Object.hasOwn(VERBS, name)) return { name, verb: VERBS[name] as Verb };
  }
  return undefined;
}

/** Why some words begin with no verb. */
function noSuchVerb(words: readonly string[]): WrongUsage {
  const [first, second = ''] = words;
  if (first === undefined) return new WrongUsage(usage());
  const seconds = Object.keys(VERBS).flatMap((name) =>
    name.startsWith(`${first} `) ? [name.slice(first.length + 1)] : [],
  );
  if (seconds.length > 0) {
    const meant = nearestWord(second, seconds);
    return new WrongUsage(
      `${first} takes ${seconds.join(', ')}${meant ? `; did you mean ${first} ${meant}?` : '.'}`,
    );
  }
  const meant = nearestWord(first, [
    ...new Set(Object.keys(VERBS).map((name) => name.split(' ')[0] ?? '')),
  ]);
  return new WrongUsage(
    meant
      ? `There is no verb ${first}; did you mean ${meant}?`
      : `There is no verb ${first}.\n${usage()}`,
  );
}

/** Why a verb does not know an option: with the nearest that it knows. */
function unknownOption(name: string, option: string, known: readonly OptionName[]): WrongUsage {
  const meant = nearestWord(option, [...known, 'json', 'help']);
  const all = [...known, 'json', 'help'].map((each) => `--${each}`).join(', ');
  return new WrongUsage(
    `${name} has no option --${option}; ${meant ? `did you mean --${meant}?` : `it has ${all}.`}`,
  );
}

/**
 * What the words of a command line ask for.
 *
 * @throws WrongUsage where there is no such verb, it has no such option, or it is given too little or too much
 */
export function parseUsage(args: readonly string[]): Asked {
  const words = wordsIn(args);
  const found = verbIn(words);
  const wantsHelp = args.includes('--help');
  if (!found) {
    if (wantsHelp) return { help: usage() };
    throw noSuchVerb(words);
  }
  const { name, verb } = found;
  const { tokens } = parseArgs({
    args: [...args],
    allowPositionals: true,
    strict: false,
    tokens: true,
    options: typesOf(verb.options),
  });
  const options: Record<string, string> = {};
  for (const token of tokens) {
    if (token.kind !== 'option' || token.name === 'json' || token.name === 'help') continue;
    if (!verb.options.some((option) => option === token.name))
      throw unknownOption(name, token.name, verb.options);
    const takesNone = OPTIONS[token.name as OptionName] === null;
    if (takesNone && token.value !== undefined)
      throw new WrongUsage(`--${token.name} takes no value.`);
    if (!takesNone && !token.value)
      throw new WrongUsage(`--${token.name} takes ${OPTIONS[token.name as OptionName]}.`);
    options[token.name] = token.value ?? 'yes';
  }
  if (wantsHelp) return { help: helpOf(name, verb) };
  const names = words.slice(name.split(' ').length);
  const { takes, maybe, example } = verb;
  const most = takes.length + Number(maybe !== undefined);
  if (names.length < takes.length || names.length > most)
    throw new WrongUsage(
      `${name} takes ${takes.join(' and ')}${maybe ? `, and may take ${maybe}` : ''}: ${example}`,
    );
  return { verb, names, options };
}
