import { WrongUsage } from './failure.ts';
import { parseUsage, usage } from './usage.ts';
import { OPTIONS, VERBS } from './verbs.ts';

const wrong = (...args: string[]): string => {
  try {
    parseUsage(args);
  } catch (error) {
    if (error instanceof WrongUsage) return error.message;
    throw error;
  }
  return '';
};

describe('a command line', () => {
  test('is a verb, its files and its own options, in any order', () => {
    const asked = parseUsage(['--rate', '25', 'convert', 'in.srt', '--shift=1.5', 'out.vtt']);
    expect(asked).toMatchObject({
      verb: VERBS.convert,
      names: ['in.srt', 'out.vtt'],
      options: { rate: '25', shift: '1.5' },
    });
    expect(parseUsage(['pace', 'roll', 'x.txt', '--json'])).toMatchObject({
      verb: VERBS['pace roll'],
      names: ['x.txt'],
    });
    expect(parseUsage(['convert', 'a', 'b', '--shift', '-2'])).toMatchObject({
      options: { shift: '-2' },
    });
  });

  test.each([
    [['read', 'x.srt', '--rat', '25'], 'read has no option --rat; did you mean --rate?'],
    [['listen', 'x.wav', '--pins', 'p.json'], 'listen has no option --pins'],
    [['pace', 'roll', 'x.txt', '--windw', '1,2'], 'pace roll has no option --windw'],
    [['pace', 'crawl', 'x.txt', '--windw', '1,2'], 'did you mean --window?'],
    [['scene', 'x.json', '--quick'], 'it has --at, --json, --help.'],
    [['read', 'x.srt', '--rate'], '--rate takes 30000/1001.'],
    [['lissen', 'x.wav'], 'There is no verb lissen; did you mean listen?'],
    [['pace', 'rol', 'x.txt'], 'did you mean pace roll?'],
    [['pace'], 'pace takes reading, roll, crawl.'],
    [['read'], 'read takes FILE: read ferry.srt --json'],
    [['read', 'a', 'b'], 'read takes FILE'],
    [['split', 'a', 'b', 'c'], 'and may take SCRIPT'],
  ])('that is wrong is told why: %j', (args, why) => {
    expect(wrong(...args)).toContain(why);
  });

  test('without a verb shows them all', () => {
    expect(wrong()).toBe(usage());
    expect(parseUsage(['--help'])).toEqual({ help: usage() });
  });

  test('asks for help of a verb: what it takes, its options, and one example', () => {
    for (const [name, { example, options }] of Object.entries(VERBS)) {
      const asked = parseUsage([...name.split(' '), '--help']);
      const help = 'help' in asked ? asked.help : '';
      expect(help).toContain(example);
      for (const option of options)
        expect(help).toContain(
          OPTIONS[option] === null ? `[--${option}]` : `--${option} ${OPTIONS[option]}`,
        );
      // The example is one that works.
      expect(() => parseUsage(example.split(' '))).not.toThrow();
    }
  });
});
