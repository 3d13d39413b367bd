/** `weave`: when each word of a script is said in a sound. */
import { scriptOf } from '@cadence/core/formats/sheet/blocks.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { lineStarts } from '@cadence/core/text/sentences.ts';
import { wordsOf } from '@cadence/core/text/words.ts';
import { fromSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { heldNotes } from '@cadence/core/weave/heldNotes.ts';
import { PinsCross, type Pin, type Tap, type Woven } from '@cadence/core/weave/woven.ts';
import { readWords, type CaptionOptions } from './captions.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { weaveSound } from '@cadence/node/weave.ts';
import { pathOf, readText } from './files.ts';
import { secondsOf } from './output.ts';

export interface WeaveOptions extends CaptionOptions {
  readonly pins?: string | undefined;
  readonly language?: string | undefined;
}

/** The words of a script: of a plain text every token, of other files those of their text. */
async function tokensOf(
  file: string,
  options: CaptionOptions,
): Promise<{ tokens: string[]; lines: number[] }> {
  const plain = /\.(?:txt|md)$/i.test(file) && options.as === undefined;
  const texts = plain
    ? [(await readText(file)).text.replace(/^\uFEFF/, '')]
    : await paragraphs(file, options);
  const text = texts.join('\n');
  const tokens = wordsOf(text).map((word) => word.text);
  if (tokens.length === 0) throw new Unusable('no text', 'There is no text in this file.', file);
  return { tokens, lines: lineStarts(text) };
}

async function paragraphs(file: string, options: CaptionOptions): Promise<string[]> {
  const { sheet, captions } = await readWords(file, options);
  return (sheet ? scriptOf(sheet.blocks) : captions.map(({ text }) => text)).map(plainText);
}

/** Pins and taps as they stand in a file: seconds, by the index of their word. */
async function pinsIn(file: string, count: number): Promise<{ pins: Pin[]; taps: Tap[] }> {
  const wrong = (message: string) => new Unusable('pins', message, file);
  let given: unknown;
  try {
    given = JSON.parse((await readText(file)).text);
  } catch (error) {
    if (error instanceof Unusable) throw error;
    throw wrong('The pins are no JSON.');
  }
  if (!Array.isArray(given)) throw wrong('The pins are no list.');
  const taps: Tap[] = [];
  const pins = given.flatMap((pin: Record<string, unknown> | null, at): Pin[] => {
    const index = pin?.index;
    if (typeof index !== 'number' || !Number.isInteger(index) || index < 0 || index >= count)
      throw wrong(`Pin ${String(at + 1)} has no index of a word of the script.`);
    const time = (name: 'start' | 'end' | 'tap'): Ticks | undefined => {
      const value = pin?.[name] ?? undefined;
      if (value === undefined) return undefined;
      if (typeof value !== 'number' || !Number.isFinite(value) || value < 0)
        throw wrong(`The ${name} of pin ${String(at + 1)} is no number of seconds.`);
      return fromSeconds(value);
    };
    const [start, end] = [time('start'), time('end')];
    if (start !== undefined && end !== undefined && end < start)
      throw wrong(`Pin ${String(at + 1)} ends before it starts.`);
    const tap = time('tap');
    if (tap !== undefined) taps.push({ index, at: tap });
    if (start === undefined && end === undefined) return [];
    return [{ index, ...(start !== undefined && { start }), ...(end !== undefined && { end }) }];
  });
  return { pins, taps };
}

const orNull = (time: Ticks | null): number | null => (time === null ? null : secondsOf(time));

/** The JSON of a woven word, with the notes that are held in it. */
export function wovenJson(word: Woven) {
  const { start, end, confidence, source } = word;
  const held = heldNotes(word).map((note) => ({
    start: secondsOf(note.start),
    end: secondsOf(note.end),
  }));
  return {
    start: orNull(start),
    end: orNull(end),
    confidence,
    source,
    ...(held.length > 0 && { held }),
  };
}

/** The JSON of `weave`. */
export async function weaveCommand(
  file: string,
  script: string,
  options: WeaveOptions,
): Promise<object> {
  const { tokens, lines } = await tokensOf(script, options);
  const fixed = options.pins === undefined ? {} : await pinsIn(options.pins, tokens.length);
  try {
    const { woven, repeats, pieces } = await weaveSound(pathOf(file), options.language ?? 'en', [
      { words: tokens, lines, ...fixed },
    ]);
    return {
      words: (woven[0] ?? []).map((word, index) => ({
        index,
        text: tokens[index],
        ...wovenJson(word),
      })),
      repeats: (repeats[0] ?? []).map((repeat) => ({
        from: repeat.from,
        to: repeat.to,
        words: repeat.woven.map(wovenJson),
      })),
      pieces: pieces.map(({ start, end }) => ({ start: secondsOf(start), end: secondsOf(end) })),
    };
  } catch (error) {
    if (error instanceof PinsCross)
      throw new Unusable(
        'pins',
        `The pin of word ${String(error.index)} lies before one of an earlier word.`,
        options.pins ?? '',
      );
    throw error;
  }
}
