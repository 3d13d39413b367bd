/** Puts the demo into an empty data folder. */
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { hitsIn, unpackHeard, type KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { heardBeats } from '@cadence/core/programme/heard.ts';
import { findStrokes } from '@cadence/core/listen/pulse/strokes.ts';
import { findPulse } from '@cadence/core/listen/pulse/pulse.ts';
import { findPieces } from '@cadence/core/listen/speech/speech.ts';
import { wayOf } from '@cadence/core/scene/travelling.ts';
import { nodeShelf } from '@cadence/node/fonts.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { apply } from '@cadence/core/programme/record/apply.ts';
import { newProgramme } from '@cadence/core/programme/defaults.ts';
import { addCue } from '@cadence/core/programme/edits/cues/addCue.ts';
import { keepFound, type Found } from '@cadence/core/programme/edits/found/keepFound.ts';
import { songOf } from '@cadence/core/programme/edits/found/songOf.ts';
import { setSong } from '@cadence/core/programme/edits/found/pulse.ts';
import { addMarks } from '@cadence/core/programme/edits/found/marks.ts';
import { setPieces } from '@cadence/core/programme/edits/found/pieces.ts';
import {
  addMaterial,
  setBackdrop,
  setFacts,
} from '@cadence/core/programme/edits/programme/setFacts.ts';
import {
  addPassage,
  cueOf,
  editPassage,
  placePassage,
  setSpeed,
  type MeasureWay,
} from '@cadence/core/programme/edits/programme/passages.ts';
import { layKeys } from '@cadence/core/programme/edits/patterns/keys.ts';
import { applyPattern, changeMovement } from '@cadence/core/programme/edits/patterns/patterns.ts';
import { setComment } from '@cadence/core/programme/edits/text/emphasise.ts';
import { setStyle } from '@cadence/core/programme/edits/text/reword.ts';
import { rightEverywhere } from '@cadence/core/programme/edits/text/proof.ts';
import { addStrand } from '@cadence/core/programme/edits/programme/strands.ts';
import { trimCue } from '@cadence/core/programme/edits/cues/trimCue.ts';
import { weaveAndCut } from '@cadence/core/programme/edits/words/weaveAndCut.ts';
import { toWeave, weaveCues } from '@cadence/core/programme/edits/words/weaveCues.ts';
import { crawlLook } from '@cadence/core/programme/passage.ts';
import { wordsOf } from '@cadence/core/text/words.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import type { Id, Material, Pattern, Programme } from '@cadence/core/programme/programme.ts';
import { patternsAtHand } from '@cadence/core/programme/patterns.ts';
import {
  frameAfter,
  frameBefore,
  frames,
  parseRate,
  type FrameRate,
} from '@cadence/core/time/frameRate.ts';
import { add, fromSeconds, later, subtract, type Ticks } from '@cadence/core/time/ticks.ts';
import { parseTimecode } from '@cadence/core/time/timecode.ts';
import type { Repeat, Woven } from '@cadence/core/weave/woven.ts';
import { NOTICES } from '@cadence/server/news/harbourBoard.ts';
import type { Running } from '@cadence/server/start.ts';
import { HARBOUR } from './board/harbour.ts';
import { EMBLEM } from './ferry/emblem.ts';
import { FILM } from './ferry/river.ts';
import { APART, ENTER, SPACE, STROKES, strokeAt } from './ferry/keys.ts';
import { TYPED } from './ferry/script.ts';
import { LINES, songLength } from './slack/song.ts';

const here = fileURLToPath(new URL('./', import.meta.url));
const folder = `${here}ferry/`;

interface Phrases {
  readonly seconds: number;
  readonly phrases: readonly { text: string; start: number; end: number }[];
}

type Store = Running['store'];

/** Keeps a file of the demo with what was heard in it. */
async function keep(
  store: Store,
  name: string,
): Promise<{ hash: string; bytes: number; heard: Uint8Array }> {
  const { hash, bytes } = await store.takeFile(here + name);
  const heard = await readFile(`${here}${name.replace(/\.\w+$/, '')}.heard`);
  await store.keepSide(hash, 'heard', heard);
  return { hash, bytes, heard };
}

export async function seedDemo(running: Running): Promise<void> {
  await seedSong(running);
  await seedBoard(running);
  await seedTrailer(running);
  await seedFerry(running);
}

/** Makes "Slack Water": a song with its pulse; its words as they are sung, and again a line every four bars. */
async function seedSong(running: Running): Promise<void> {
  await keepSong(running, 'Slack Water on the Bars', onBars);
  await keepSong(running, 'Slack Water', asSung);
}

/** Lays the lines of the song on a strand. */
type Lay = (programme: Programme, strand: Id) => Programme | Promise<Programme>;

async function keepSong({ keeper, store }: Running, title: string, lay: Lay): Promise<void> {
  const song = await keep(store, 'slack/slack-water.opus');
  const heard = unpackHeard(song.heard);
  if (!heard)
    throw new Error('What was heard in the song is of another version: see demo/hear.ts.');
  const strand = randomUUID();
  let programme = newProgramme(randomUUID(), title, strand, 'lyric');
  const change = (edit: { changes: Parameters<typeof apply>[1] }) =>
    (programme = apply(programme, edit.changes));
  const id = randomUUID();
  change(
    addMaterial(programme, {
      id,
      hash: song.hash,
      bytes: song.bytes,
      name: 'slack-water.opus',
      kind: 'sound',
      length: fromSeconds(songLength()),
      sound: { sampleRate: 48_000, channels: 2, codec: 'opus' },
      picture: null,
      family: null,
      remarks: [],
    }),
  );
  const found = foundIn(heard);
  change({ changes: keepFound(id, found, randomUUID) });
  change({ changes: setSong(programme, id, songOf(heard, found.pulse)) });
  change(setFacts(programme, { setBy: 'editor' }));
  change(applyPattern(programme, onShelf(programme, 'Ripple'), { strand }));
  programme = await lay(programme, strand);
  const hard = cuesInOrder(programme, strand).filter((_, line) => line % 2 === 0);
  change(
    applyPattern(programme, onShelf(programme, 'Bollard'), { cues: hard.map((cue) => cue.id) }),
  );
  await keeper.keepNew(programme);
}

/** A line every four bars from where they are sung, and marks on the lines. */
function onBars(programme: Programme, strand: Id): Programme {
  const bars = heardBeats(programme).filter(({ bar }) => bar !== null);
  return LINES.reduce((before, text, line) => {
    const [from, to] = [bars[8 + 4 * line], bars[12 + 4 * line]];
    if (!from || !to) return before;
    const range = { start: from.at, end: subtract(to.at, frames(3, before.facts.frameRate)) };
    const laid = apply(before, addCue(before, strand, range, text, randomUUID).changes);
    const mark = { at: from.at, purpose: 'bar' as const, name: `line ${String(line + 1)}` };
    return apply(laid, addMarks(laid, [mark], randomUUID).changes);
  }, programme);
}

/** Each word where it was woven. */
async function asSung(programme: Programme, strand: Id): Promise<Programme> {
  const found = JSON.parse(await readFile(`${here}slack/woven.json`, 'utf8')) as {
    woven: Woven[];
    repeats: Repeat[];
  };
  const span = songLength() / LINES.length;
  const laid = LINES.reduce((before, text, line) => {
    const range = { start: fromSeconds(line * span), end: fromSeconds((line + 1) * span) };
    return apply(before, addCue(before, strand, range, text, randomUUID).changes);
  }, programme);
  const cues = cuesInOrder(laid, strand).map(({ id }) => id);
  const how = { strand, follow: { lead: 2, tail: 6 }, cut: undefined, repeats: found.repeats };
  const weaving = toWeave(laid, strand, cues);
  return apply(laid, weaveAndCut(laid, weaving, found.woven, how, randomUUID).changes);
}

/** A pattern of the shelf. */
function onShelf(programme: Programme, name: string): Pattern {
  const found = patternsAtHand(programme).find((pattern) => pattern.name === name);
  if (!found) throw new Error(`There is no pattern “${name}” on the shelf.`);
  return found;
}

/** Makes "Harbour Board": a crawl of notices over a drawn harbour, and a card before it. */
async function seedBoard({ keeper, store }: Running): Promise<void> {
  const cards = randomUUID();
  let programme = newProgramme(randomUUID(), 'Harbour Board', cards, 'card');
  const change = (edit: { changes: Parameters<typeof apply>[1] }) =>
    (programme = apply(programme, edit.changes));
  const picture = await store.takeFile(`${here}board/harbour.webp`);
  const image = randomUUID();
  change(
    addMaterial(programme, {
      id: image,
      hash: picture.hash,
      bytes: picture.bytes,
      name: 'harbour.webp',
      kind: 'image',
      length: 0 as Ticks,
      sound: null,
      picture: { ...HARBOUR, frameRate: null, codec: 'webp', shown: true },
      family: null,
      remarks: [],
    }),
  );
  change(setBackdrop(programme, { image, fill: true, down: 0.7 }));
  const opening = { start: 0 as Ticks, end: fromSeconds(4) };
  change(addCue(programme, cards, opening, 'The Harbour Board\nat Skerrymoor', randomUUID));
  const id = randomUUID();
  const sheet = NOTICES.slice(0, 9)
    .map((notice) => `${notice}\n`)
    .join('');
  const { family } = crawlLook(programme.facts.frame.height);
  await shelf.prepare(family, [[{ text: `${sheet}•` }]]);
  const crawl = { id, title: 'Harbour Board', sheet, from: fromSeconds(4) };
  change(addPassage(programme, 'crawl', crawl, wayIn(programme), randomUUID));
  const look = {
    label: 'Harbour Board',
    bandFade: 12,
    softEdge: 60,
    bandOpacity: 0.6,
    bandBlur: 14,
  };
  change(editPassage(programme, id, { look }, wayIn(programme)));
  change(setSpeed(programme, id, BOARD_SPEED, wayIn(programme)));
  const end = cueOf(programme, id)?.end ?? programme.facts.length;
  const closing = { start: end, end: add(end, fromSeconds(4)) };
  change(addCue(programme, cards, closing, 'The tide waits\nfor the ferry', randomUUID));
  change(setFacts(programme, { length: closing.end, setBy: 'editor' }));
  await keeper.keepNew(programme);
}

const foundIn = (heard: KeptHeard): Found => ({
  pieces: [],
  pulse: findPulse(heard.pulse),
  hits: hitsIn(heard.hitFigures),
  strokes: findStrokes(heard.pulse),
  hitShare: heard.hitShare,
  length: fromSeconds(60),
});

/** What the two programmes of the ferry have in common: its film, phrases with their times, and its words. */
interface FerryFilm {
  readonly rate: FrameRate;
  readonly length: Ticks;
  readonly film: Material;
  readonly heard: KeptHeard | undefined;
  readonly phrases: Phrases['phrases'];
  /** As they were woven, in the order of the phrases. */
  readonly words: readonly Woven[];
}

async function ferryFilm(store: Store): Promise<FerryFilm> {
  const { seconds, phrases } = JSON.parse(
    await readFile(`${folder}phrases.json`, 'utf8'),
  ) as Phrases;
  const rate = parseRate(String(FILM.rate));
  if (!rate) throw new Error('The film has no usual frame rate.');
  const { hash, bytes, heard } = await keep(store, 'ferry/skerrymoor-cut3.mp4');
  await store.keepSide(hash, 'still', await readFile(`${folder}skerrymoor-cut3.still.webp`));
  const length = frames(Math.round(seconds * FILM.rate), rate);
  return {
    ...{ rate, length, phrases },
    heard: unpackHeard(heard),
    words: JSON.parse(await readFile(`${folder}woven.json`, 'utf8')) as Woven[],
    film: {
      ...{ id: randomUUID(), hash, bytes, length, name: 'skerrymoor-cut3.mp4', kind: 'film' },
      sound: { ...SOUND, codec: 'aac' },
      picture: {
        ...{ width: FILM.width, height: FILM.height, frameRate: rate },
        ...{ codec: 'avc', shown: true },
      },
      ...{ family: null, remarks: [] },
    },
  };
}

const SOUND = { sampleRate: 48_000, channels: 1 };

/** A phrase as a cue, with room for its words to be heard out. */
const rangeOf = ({ start, end }: Phrases['phrases'][number], rate: FrameRate) => ({
  start: frameBefore(fromSeconds(start), rate),
  end: frameAfter(add(fromSeconds(end), fromSeconds(0.16)), rate),
});

/** Phrases whose words pop as they are said, on a strand that has none yet. */
function popping(
  before: Programme,
  strand: string,
  { rate, phrases, words }: FerryFilm,
  [first, after]: readonly [first: number, after: number],
): Programme {
  let programme = before;
  const change = (edit: Pick<Edit, 'changes'>) => (programme = apply(programme, edit.changes));
  for (let at = first; at < after; at++) {
    const [phrase, next] = [phrases[at], phrases[at + 1]];
    if (!phrase) break;
    // Each stays until the next is said, so that the eye has time for it.
    const { start, end } = rangeOf(phrase, rate);
    const until = next ? subtract(rangeOf(next, rate).start, frames(12, rate)) : end;
    change(addCue(programme, strand, { start, end: later(end, until) }, phrase.text, randomUUID));
  }
  const ids = cuesInOrder(programme, strand).map(({ id }) => id);
  const weaving = toWeave(programme, strand, ids);
  const from = phrases.slice(0, first).flatMap(({ text }) => wordsOf(text)).length;
  change(weaveCues(programme, weaving, words.slice(from, from + weaving.words.length)));
  change(applyPattern(programme, onShelf(programme, 'Splice'), { strand }));
  return programme;
}

/** Has a cue typed, each letter with the sound of a key, cut out of a recording that comes with it. */
async function typed(
  before: Programme,
  cue: string,
  store: Store,
  { rate, after }: { readonly rate: number; readonly after: number },
): Promise<Programme> {
  let programme = before;
  const change = (edit: Pick<Edit, 'changes'>) => (programme = apply(programme, edit.changes));
  const recording = await keep(store, 'ferry/keys.opus');
  const keys = randomUUID();
  change(
    addMaterial(programme, {
      ...{ id: keys, hash: recording.hash, bytes: recording.bytes, name: 'keys.opus' },
      ...{ kind: 'sound', length: fromSeconds(strokeAt(STROKES) + APART), family: null },
      ...{ sound: { ...SOUND, codec: 'opus' }, picture: null, remarks: [] },
    }),
  );
  const typing = unpackHeard(recording.heard);
  if (typing) change({ changes: keepFound(keys, foundIn(typing), randomUUID) });
  const keyByKey = onShelf(programme, 'Key by key');
  change(applyPattern(programme, keyByKey, { cues: [cue] }));
  const { comesIn } = keyByKey.movement;
  if (comesIn) change(changeMovement(programme, [cue], { comesIn: { ...comesIn, rate, after } }));
  const [space, enter] = [SPACE, ENTER].map((stroke) => fromSeconds(strokeAt(stroke)));
  const stroke = { material: keys, space: space ?? null, enter: enter ?? null };
  change(layKeys(programme, [cue], stroke, randomUUID));
  return programme;
}

/** How many phrases are said in the trailer, and when a name is shown in it, in seconds. */
const [TRAILER_PHRASES, NAME] = [8, { start: 13.4, end: 17.6 }];

/** Makes "Four Hundred Links": an opening that is typed with its keys, words that pop as they are said, and a name. */
async function seedTrailer({ keeper, store }: Running): Promise<void> {
  const ferry = await ferryFilm(store);
  const { rate, film, heard, phrases } = ferry;
  const strand = randomUUID();
  let programme = newProgramme(randomUUID(), 'Four Hundred Links', strand, 'narration');
  const change = (edit: Pick<Edit, 'changes'>) => (programme = apply(programme, edit.changes));
  change(addMaterial(programme, film));
  if (heard) {
    const pieces = findPieces(heard.speech).slice(0, TRAILER_PHRASES);
    change(setPieces(programme, film.id, pieces, randomUUID));
  }
  programme = popping(programme, strand, ferry, [0, TRAILER_PHRASES]);
  for (const name of ['Skerrymoor', 'Orran', 'Isla']) change(rightEverywhere(programme, name));
  const end = frameAfter(fromSeconds(phrases[TRAILER_PHRASES - 1]?.end ?? 0), rate);
  change(setFacts(programme, { length: add(end, fromSeconds(2)), setBy: 'editor' }));

  const cards = randomUUID();
  change(addStrand(programme, 'card', cards));
  const opening = randomUUID();
  const open = { start: 0 as Ticks, end: frameBefore(fromSeconds(2.28), rate) };
  change(addCue(programme, cards, open, 'Skerrymoor, 5.45', () => opening));
  // Clear of the ferry.
  change(setStyle(programme, [opening], { down: 'top' }));
  programme = await typed(programme, opening, store, { rate: 11, after: 6 });
  const name = randomUUID();
  const shown = { start: fromSeconds(NAME.start), end: fromSeconds(NAME.end) };
  change(addCue(programme, cards, shown, 'Isla\nwho counts the links', () => name));
  change(applyPattern(programme, onShelf(programme, 'Berth'), { cues: [name] }));
  await keeper.keepNew(programme);
}

/** Makes "The Ferry at Skerrymoor": pieces found, half of it typed and woven, a title card, a few things to mend. */
async function seedFerry({ keeper, store }: Running): Promise<void> {
  const ferry = await ferryFilm(store);
  const { rate, length, film, heard, phrases, words } = ferry;
  const narration = await keep(store, 'ferry/narration-hesper.opus');
  const strand = randomUUID();
  let programme = newProgramme(randomUUID(), 'The Ferry at Skerrymoor', strand);
  const change = (edit: Pick<Edit, 'changes'>) => (programme = apply(programme, edit.changes));
  const material = { length, family: null, remarks: [] };
  change(addMaterial(programme, film));
  change(
    addMaterial(programme, {
      ...material,
      ...{ id: randomUUID(), hash: narration.hash, bytes: narration.bytes },
      ...{ name: 'narration-hesper.opus', kind: 'sound' },
      sound: { ...SOUND, codec: 'opus' },
      picture: null,
    }),
  );
  change(
    setFacts(programme, { startTimecode: parseTimecode('10:00:00:00', rate) ?? (0 as Ticks) }),
  );
  if (heard) change(setPieces(programme, film.id, findPieces(heard.speech), randomUUID));
  for (const phrase of phrases.slice(0, TYPED))
    change(addCue(programme, strand, rangeOf(phrase, rate), phrase.text, randomUUID));
  const ids = cuesInOrder(programme, strand).map(({ id }) => id);
  const weaving = toWeave(programme, strand, ids);
  change(weaveCues(programme, weaving, words.slice(0, weaving.words.length)));
  change(somethingToMend(programme, strand));
  const cards = randomUUID();
  change(addStrand(programme, 'card', cards));
  const title = randomUUID();
  const opening = { start: 0 as Ticks, end: fromSeconds(2.2) };
  change(addCue(programme, cards, opening, 'The Ferry\nat Skerrymoor', () => title));
  const emblem = await store.takeFile(`${folder}emblem.png`);
  change(
    addMaterial(programme, {
      ...material,
      id: randomUUID(),
      hash: emblem.hash,
      bytes: emblem.bytes,
      name: 'emblem.png',
      kind: 'image',
      length: 0 as Ticks,
      sound: null,
      picture: { ...EMBLEM, frameRate: null, codec: 'png', shown: true },
    }),
  );
  const sheet = await readFile(`${folder}credits.txt`, 'utf8');
  for (const edit of closingRoll(sheet)) change(edit(programme));
  programme = await typed(programme, title, store, { rate: 14, after: 4 });
  // Clear of the ferry, and gone before the second phrase.
  change(setStyle(programme, [title], { down: 'top' }));
  change(trimCue(programme, title, 'end', fromSeconds(4)));
  const pops = randomUUID();
  change(addStrand(programme, 'narration', pops));
  programme = popping(programme, pops, ferry, [FIRST_POPPING, phrases.length]);
  const popped = cuesInOrder(programme, pops).map((cue) => cue.id);
  change(setStyle(programme, popped, { down: 'top' }));
  await keeper.keepNew(programme);
}

/** The last phrases, from “Listen.” on, pop word by word. */
const FIRST_POPPING = 35;

/** A roll after the last picture, at the speed at which it is through in about three quarters of a minute. */
function closingRoll(sheet: string): ((programme: Programme) => Edit)[] {
  const id = randomUUID();
  const from = 0 as Ticks;
  return [
    (programme) => addPassage(programme, 'roll', { id, sheet, from }, wayIn(programme), randomUUID),
    (programme) => setSpeed(programme, id, ROLL_SPEED, wayIn(programme)),
    (programme) => {
      const placing = { start: programme.facts.length };
      return placePassage(programme, id, placing, wayIn(programme), randomUUID);
    },
    (programme) => setFacts(programme, { length: cueOf(programme, id)?.end ?? from }),
  ];
}

/** In pixels a frame. */
const ROLL_SPEED = 3;
const BOARD_SPEED = 9;

/** How far a passage travels on the frame of a programme. */
const wayIn =
  ({ facts }: Programme): MeasureWay =>
  (passage) =>
    wayOf(passage, facts.frame, shelf).distance;
const shelf = nodeShelf();

/** What an editor noted, and would want to mend: one cue far too short, one gap that flickers. */
function somethingToMend(
  programme: Programme,
  strand: string,
): { changes: Parameters<typeof apply>[1] } {
  const rate = programme.facts.frameRate;
  const cues = cuesInOrder(programme, strand);
  const [bell, fast, near, after] = [cues[3], cues[6], cues[11], cues[12]];
  if (!bell || !fast || !near || !after) return { changes: [] };
  return {
    changes: [
      ...rightEverywhere(programme, 'Skerrymoor').changes,
      ...setComment(programme, bell.id, 'Ask Tam whether it was the bell or the winch.').changes,
      ...trimCue(programme, fast.id, 'end', add(fast.start, fromSeconds(1.68))).changes,
      ...trimCue(programme, near.id, 'end', subtract(after.start, frames(1, rate))).changes,
    ],
  };
}
