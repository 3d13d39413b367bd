/** Having words woven: what is sent to the worker, and what comes back in the programme's time. */
import { proxy } from 'comlink';
import type { Carried } from '@cadence/core/conform/carrying.ts';
import {
  acceptWords,
  doubtfulIn,
  pinWord,
  toWeave,
  weaveCues,
  type Stay,
} from '@cadence/core/programme/edits/words/weaveCues.ts';
import { wordsIn } from '@cadence/core/programme/woven/wordsIn.ts';
import { languageOf } from '@cadence/core/programme/edits/text/proof.ts';
import type { Cue, Id, Material, Programme } from '@cadence/core/programme/programme.ts';
import { timesOf } from '@cadence/core/programme/woven/reworded.ts';
import { weaveOrders } from '@cadence/core/programme/woven/weaveOrders.ts';
import type { Range } from '@cadence/core/time/range.ts';
import {
  add,
  fromSeconds,
  later,
  subtract,
  toSeconds,
  ZERO,
  type Ticks,
} from '@cadence/core/time/ticks.ts';
import type { Repeat, Woven } from '@cadence/core/weave/woven.ts';
import { materialUrl } from '../sync/api.ts';
import { make } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { say, messageOf } from '../desk/say.ts';
import { currentCues, openNow, selectionNow, store } from '../desk/store.ts';
import { selected } from '../desk/view.ts';
import { player } from '../playback/player.ts';
import { heldWorker } from '../workers/held.ts';
import type { OnProgress, WeavingWorker } from '../workers/weave.worker.ts';

const worker = heldWorker<WeavingWorker>(
  () => new Worker(new URL('../workers/weave.worker.ts', import.meta.url), { type: 'module' }),
);

/** Ends weaving; it begins anew the next time. */
export const stopWeaving = worker.stop;

/**
 * The time of each word of some cues, in order, in the programme's time; see `weaveOrders`.
 *
 * @throws PinsCross, or whatever the sound cannot be read for
 */
export async function weave(
  programme: Programme,
  strand: Id,
  cues: readonly Id[],
  material: Id,
  language: string,
  onProgress: OnProgress,
  stay: Stay = 'fixed',
): Promise<Woven[]> {
  const asked = ordersOn(programme, strand, cues, material, language, stay);
  const all: Woven[] = [];
  for (const order of asked.orders) {
    const found = await worker.get().weave({ ...asked.sound, ...order }, proxy(onProgress));
    all.push(...asked.inProgramme(found));
  }
  return all;
}

/** What weaving found: a time for each word, and lines that are heard again where nothing is written. */
export interface FoundWords {
  readonly woven: readonly Woven[];
  readonly repeats: readonly Repeat[];
}

/** As {@link weave}, and the lines that are heard again. */
export async function weaveAll(
  programme: Programme,
  strand: Id,
  cues: readonly Id[],
  material: Id,
  language: string,
  onProgress: OnProgress,
): Promise<FoundWords> {
  const { orders, inProgramme, sound } = ordersOn(programme, strand, cues, material, language);
  const woven: Woven[] = [];
  const repeats: Repeat[] = [];
  for (const order of orders) {
    const asked = { ...sound, ...order };
    const found = await worker.get().weave(asked, proxy(onProgress));
    const again = await worker.get().repeats(asked, found, proxy(onProgress));
    const before = woven.length;
    repeats.push(
      ...again.map((repeat) => ({
        from: before + repeat.from,
        to: before + repeat.to,
        woven: inProgramme(repeat.woven),
      })),
    );
    woven.push(...inProgramme(found));
  }
  return { woven, repeats };
}

/** What is asked for, and of which sound. */
function ordersOn(
  programme: Programme,
  strand: Id,
  cues: readonly Id[],
  material: Id,
  language: string,
  stay: Stay = 'fixed',
) {
  const file = programme.materials[material];
  const wanted = weaveOrders(programme, strand, cues, material, stay);
  if (!wanted || !file) throw new Error('There is no sound to weave on.');
  const sound = { url: materialUrl(file.hash), duration: toSeconds(file.length), language };
  return { ...wanted, sound };
}

/**
 * What of one material is where in another.
 *
 * @throws whatever a sound cannot be read for
 */
export function compare(
  old: Material,
  fresh: Material,
  onProgress: OnProgress,
): Promise<Carried[]> {
  const of = ({ hash, length }: Material) => ({
    url: materialUrl(hash),
    duration: toSeconds(length),
  });
  return worker.get().compare(of(old), of(fresh), proxy(onProgress));
}

/** The language that is woven in where none is chosen. */
export const languageFor = (programme: Programme): string =>
  languageOf(programme) === 'none' ? 'und' : 'en';

/**
 * Weaves cues of one strand as they are now, on the main sound.
 *
 * @param stay      as in `toWeave`
 * @param goesWith  the step after which the words settle by themselves: the editor takes both back together
 * @throws whatever the sound cannot be read for
 */
export async function weaveSome(ids: readonly Id[], stay: Stay, goesWith?: string): Promise<void> {
  const { programme } = openNow();
  const { strand } = programme.cues[ids[0] ?? ''] ?? {};
  const material = programme.facts.sound;
  if (strand === undefined || material === null) return;
  const language = languageFor(programme);
  const woven = await weave(programme, strand, ids, material, language, () => undefined, stay);
  const now = openNow().programme;
  if (ids.some((id) => now.cues[id] !== programme.cues[id])) return;
  const edit = weaveCues(now, toWeave(now, strand, ids, stay), woven);
  if (goesWith === undefined) make(edit);
  else make({ name: 'Weave changed words', changes: edit.changes }, { goesWith });
}

/** Weaves one cue anew because the editor asks for it. */
export async function weaveAgain(id: Id): Promise<void> {
  if (openNow().programme.facts.sound === null) {
    say.note('There is no sound to weave on.');
    return;
  }
  try {
    await weaveSome([id], 'fixed');
  } catch (error) {
    say.problem(`${messageOf(error)} The words are unchanged.`);
  }
}

/** What is heard to either side of a word that is played. */
const AROUND = fromSeconds(0.5);

/** Plays a stretch with half a second around it. */
export function playAround({ start, end }: Range): void {
  player.play({ start: later(ZERO, subtract(start, AROUND)), end: add(end, AROUND) });
}

/** Plays every doubtful word of the strand, one after the other, until it is stopped. */
export function playDoubtful(): void {
  const all = currentCues(openNow().programme).flatMap((cue) =>
    doubtfulIn(cue).map((place) => ({ cue, place })),
  );
  if (all.length === 0) {
    say.note('No word is doubtful.');
    return;
  }
  say.note(`${plural(all.length, 'doubtful word')}, one after the other. Space stops.`);
  let at = -1;
  let end = ZERO;
  const next = (): boolean => {
    const word = all[++at];
    const time = word && timesOf(word.cue.words, wordsIn(word.cue))[word.place];
    if (!time) return false;
    store.dispatch(selected([word.cue.id]));
    end = add(time.end, AROUND);
    playAround(time);
    return true;
  };
  next();
  const stop = player.watch(() => {
    if (player.state().playing) return;
    // Stopped by hand before its end, it is enough.
    if (player.time < subtract(end, fromSeconds(0.1)) || !next()) stop();
  });
}

/** Plays a word with half a second around it. */
export function playWord(cue: Cue, place: number): void {
  const time = timesOf(cue.words, wordsIn(cue))[place];
  if (time) playAround(time);
}

/** Pins the doubtful words of the selected cues where they are. */
export function acceptDoubtful(): void {
  const ids = selectionNow().map(({ id }) => id);
  if (ids.length === 0) say.note('Select a cue first.');
  else make(acceptWords(openNow().programme, ids));
}

/** Fixes a word where it is, or so much earlier or later. */
export function pin(cue: Cue, place: number, by: Ticks): void {
  const time = timesOf(cue.words, wordsIn(cue))[place];
  if (!time) return;
  const start = later(ZERO, add(time.start, by));
  make(
    pinWord(openNow().programme, cue.id, place, { start, end: later(start, add(time.end, by)) }),
  );
}
