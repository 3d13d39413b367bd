/** `keys`: letters on the hits of a sound, or sounds of keys under the letters of a text. */
import { stat } from 'node:fs/promises';
import { strokesAmong } from '@cadence/core/mix/keySounds.ts';
import { WAV_RATE, wavOf } from '@cadence/core/mix/wavOf.ts';
import { COMES_IN, framesLong } from '@cadence/core/movement/movement.ts';
import { lettersOnHits, typedTimes } from '@cadence/core/movement/typing.ts';
import { newProgramme } from '@cadence/core/programme/defaults.ts';
import { KEYS } from '@cadence/core/programme/edits/patterns/keys.ts';
import type { Cue, Hit, Programme } from '@cadence/core/programme/programme.ts';
import { strokesOf } from '@cadence/core/programme/strokes.ts';
import { linesOf } from '@cadence/core/text/lines.ts';
import { frames } from '@cadence/core/time/frameRate.ts';
import { fromSeconds, ZERO } from '@cadence/core/time/ticks.ts';
import { hear } from '@cadence/node/hear.ts';
import { soundMaterial } from '@cadence/node/material.ts';
import { openSound } from '@cadence/node/sound.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { cuePointsOf } from './cuePoints.ts';
import { WrongUsage } from './failure.ts';
import { pathOf, readText, writeWhole } from './files.ts';
import { secondsOf } from './output.ts';

/** The text of a file; what was given itself where there is no file of that name. */
async function textOf(given: string): Promise<string> {
  const isFile = await stat(pathOf(given)).then(
    (found) => found.isFile(),
    () => false,
  );
  const text = (isFile ? (await readText(given)).text : given).replace(/\r\n?/g, '\n').trim();
  if (text === '') throw new Unusable('empty', 'There are no letters in the text.', given);
  return text;
}

/** The hits of a recording. @throws Unusable where there are none */
async function hitsOf(file: string) {
  const { hits } = await hear(await openSound(pathOf(file)), ['hits']);
  if (hits.length === 0)
    throw new Unusable('no hits', 'No hits are heard in this sound, so no keys either.', file);
  return hits;
}

/** The JSON of `keys` for a sound: each letter of a text on a hit. */
export async function keysOnHitsCommand(sound: string, given: string): Promise<object> {
  const text = await textOf(given);
  const hits = await hitsOf(sound);
  const strokes = strokesAmong(hits);
  // Where keys are heard as they are let go, there are more hits than letters.
  const away = (count: number) => Math.abs(lettersOnHits(text, []).length - count);
  const used = away(strokes.length) < away(hits.length) ? strokes : hits;
  const letters = lettersOnHits(
    text,
    used.map(({ start }) => start),
  );
  return {
    letters,
    hits: hits.length,
    without: letters.filter(({ hit }) => hit === null).length,
  };
}

interface LaidOptions {
  readonly rate?: string | undefined;
  readonly seed?: string | undefined;
  readonly sounds?: string | undefined;
}

/** A figure that was asked for. @throws WrongUsage where it is none, or out of bounds */
function figure(name: string, asked: string | undefined, usual: number, most: number): number {
  const value = Number(asked ?? usual);
  if (!(value > 0 && value <= most))
    throw new WrongUsage(`--${name} takes a number up to ${most}.`);
  return value;
}

/** How uneven the hand is that types. */
const UNEVEN = 0.5;
/** Frames before the first letter, and how long it is heard after the last one, in seconds. */
const [BEFORE, AFTER] = [5, 0.6];

/** A programme of one typed text, with the sounds of a recording under its letters. */
async function typedProgramme(
  text: string,
  recording: string,
  { rate, seed }: { rate: number; seed: number },
): Promise<{ programme: Programme; cue: Cue }> {
  const hits = await hitsOf(recording);
  const material = await soundMaterial(pathOf(recording), 'keys');
  const named = await cuePointsOf(recording).catch(() => []);
  const place = (name: string) => {
    const found = named.find((each) => each.text.trim().toLowerCase() === name);
    return found ? fromSeconds(found.start) : null;
  };
  const base = newProgramme('p', 'Typed', 's', 'card');
  const { frameRate } = base.facts;
  const typing = { rate, uneven: UNEVEN, seed };
  const seconds = (typedTimes(text, typing).at(-1) ?? 0) + AFTER;
  const length = frames(BEFORE + Math.ceil((seconds * frameRate.num) / frameRate.den), frameRate);
  const comesIn = {
    ...COMES_IN,
    ...typing,
    by: 'letter',
    when: 'typed',
    arrives: 'begins',
  } as const;
  const cue: Cue = {
    id: 'c',
    strand: 's',
    ...{ start: ZERO, end: length, text: linesOf(text), style: {}, words: [] },
    movement: { comesIn: { ...comesIn, after: BEFORE, takes: framesLong(0), moves: [] } },
    keys: { ...KEYS, material: material.id, seed, space: place('space'), enter: place('return') },
  };
  const found = hits.map(({ start, end, levelDb }, at): Hit => ({
    id: `h${at}`,
    material: material.id,
    ...{ start: fromSeconds(start), end: fromSeconds(end), level: levelDb, kept: false },
  }));
  return {
    cue,
    programme: {
      ...base,
      facts: { ...base.facts, length },
      materials: { [material.id]: material },
      cues: { [cue.id]: cue },
      hits: Object.fromEntries(found.map((hit) => [hit.id, hit])),
    },
  };
}

/** The JSON of `keys` for a text: a sound of each letter is laid, as the mixdown of a programme lays it. */
export async function keysLaidCommand(
  given: string,
  out: string,
  options: LaidOptions,
): Promise<object> {
  if (options.sounds === undefined) throw new WrongUsage('--sounds is needed.');
  const rate = figure('rate', options.rate, 9, 60);
  const seed = figure('seed', options.seed, 1, 0xffffffff);
  if (!Number.isInteger(seed)) throw new WrongUsage('--seed takes a whole number.');
  const text = await textOf(given);
  const recording = options.sounds;
  const { programme, cue } = await typedProgramme(text, recording, { rate, seed });
  const open = async () => openSound(pathOf(recording));
  const range = { start: ZERO, end: programme.facts.length };
  const wav = await wavOf(programme, { range, bits: 24 }, open);
  await writeWhole(out, wav.content());
  return {
    file: out,
    duration: wav.length / WAV_RATE,
    sampleRate: WAV_RATE,
    letters: strokesOf(programme, cue).map(({ text: letter, frame }) => ({
      text: letter,
      at: secondsOf(frames(frame, programme.facts.frameRate)),
    })),
  };
}
