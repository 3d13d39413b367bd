/** `split`: a script woven and cut into cues that can be read. */
import { scriptOf } from '@cadence/core/formats/sheet/blocks.ts';
import { findPieces } from '@cadence/core/listen/speech/speech.ts';
import { cutWoven } from '@cadence/core/programme/woven/cutWoven.ts';
import { plainText, type Line } from '@cadence/core/text/lines.ts';
import { wordsOf } from '@cadence/core/text/words.ts';
import { readWords } from './captions.ts';
import { profileOf, type CheckOptions } from './check.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { WrongUsage } from './failure.ts';
import { pathOf } from './files.ts';
import { hear } from '@cadence/node/hear.ts';
import { secondsOf } from './output.ts';
import { openSound } from '@cadence/node/sound.ts';
import { weaveSound } from '@cadence/node/weave.ts';

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
  if (!texts) {
    const { speech } = await hear(await openSound(pathOf(file)), ['speech']);
    return {
      cues: findPieces(speech).map(({ start, end }) => ({
        start: secondsOf(start),
        end: secondsOf(end),
        text: '',
        words: [],
      })),
    };
  }
  const tokens = texts.flatMap((text) => wordsOf(plainText(text)).map((word) => word.text));
  const { woven } = await weaveSound(pathOf(file), options.language ?? 'en', [{ words: tokens }]);
  // The lines of a lyric are those of its verses.
  const cues = cutWoven(texts, woven[0] ?? [], {
    limits: profile,
    whole: strand === 'lyric',
  });
  return {
    cues: cues.map(({ start, end, text, words: times }) => ({
      start: secondsOf(start),
      end: secondsOf(end),
      text: plainText(text),
      words: times.map((word) => ({
        ...word,
        start: secondsOf(word.start),
        end: secondsOf(word.end),
      })),
    })),
  };
}
