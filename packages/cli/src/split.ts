/** `split`: a script cut into cues that can be read, on the pieces of speech in a sound. */
import { scriptOf } from '@cadence/core/formats/sheet/blocks.ts';
import { findPieces } from '@cadence/core/listen/speech.ts';
import { cutToFit } from '@cadence/core/programme/edits/fitLines.ts';
import { sharedOut } from '@cadence/core/programme/script.ts';
import { spreadWords } from '@cadence/core/programme/spreadWords.ts';
import { plainText, type Line } from '@cadence/core/text/lines.ts';
import { words } from '@cadence/core/text/words.ts';
import { fromSeconds, ZERO } from '@cadence/core/time/ticks.ts';
import { readWords } from './captions.ts';
import { profileOf, type CheckOptions } from './check.ts';
import { Unusable, WrongUsage } from './failure.ts';
import { pathOf } from './files.ts';
import { hear } from './hear.ts';
import { secondsOf } from './output.ts';
import { openSound } from './sound.ts';

export interface SplitOptions extends CheckOptions {
  readonly strand?: string | undefined;
}

const STRANDS = ['subtitle', 'narration', 'lyric'];

/** The paragraphs of a script, whatever kind of file it is in. */
async function scriptIn(file: string, options: SplitOptions): Promise<(readonly Line[])[]> {
  const { sheet, captions } = await readWords(file, options);
  const script = sheet ? scriptOf(sheet.blocks) : captions.map(({ text }) => text);
  if (script.length === 0) throw new Unusable('no text', 'There is no text in this file.', file);
  return script;
}

/** The JSON of `split`. Without a script, a cue without text for each piece. */
export async function splitCommand(
  file: string,
  script: string | undefined,
  options: SplitOptions,
): Promise<object> {
  const { strand = 'subtitle' } = options;
  if (!STRANDS.includes(strand))
    throw new WrongUsage(`--strand takes ${STRANDS.join(', ')}, not ${strand}.`);
  const [, profile] = profileOf(options);
  const texts = script === undefined ? undefined : await scriptIn(script, options);
  const sound = await openSound(pathOf(file));
  const { speech } = await hear(sound, ['speech']);
  const pieces = findPieces(speech);
  if (!texts)
    return {
      cues: pieces.map(({ start, end }) => ({
        start: secondsOf(start),
        end: secondsOf(end),
        text: '',
        words: [],
      })),
    };
  const stretches =
    pieces.length > 0 ? pieces : [{ start: ZERO, end: fromSeconds(sound.duration) }];
  // The lines of a lyric are those of its verses.
  const cut = strand === 'lyric' ? texts : cutToFit(texts, profile);
  const ranges = sharedOut(cut, stretches);
  return {
    cues: cut.map((lines, at) => {
      const range = ranges[at] ?? { start: ZERO, end: ZERO };
      const text = plainText(lines);
      return {
        start: secondsOf(range.start),
        end: secondsOf(range.end),
        text,
        words: spreadWords(
          words(text).map((word) => word.text),
          range,
        ).map(({ start, end, ...word }) => ({
          ...word,
          start: secondsOf(start),
          end: secondsOf(end),
        })),
      };
    }),
  };
}
