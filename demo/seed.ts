/** Puts the demo into an empty data folder. */
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { hitsIn, unpackHeard, type KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { findPulse } from '@cadence/core/listen/pulse.ts';
import { findPieces } from '@cadence/core/listen/speech.ts';
import { apply } from '@cadence/core/programme/apply.ts';
import { newProgramme } from '@cadence/core/programme/defaults.ts';
import { addCue } from '@cadence/core/programme/edits/addCue.ts';
import { keepFound, type Found } from '@cadence/core/programme/edits/keepFound.ts';
import { addMarks } from '@cadence/core/programme/edits/marks.ts';
import { setPieces } from '@cadence/core/programme/edits/pieces.ts';
import { addMaterial, setFacts } from '@cadence/core/programme/edits/setFacts.ts';
import { setComment } from '@cadence/core/programme/edits/emphasise.ts';
import { rightEverywhere } from '@cadence/core/programme/edits/proof.ts';
import { trimCue } from '@cadence/core/programme/edits/trimCue.ts';
import { heardBeats } from '@cadence/core/programme/heard.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import type { Material, Programme } from '@cadence/core/programme/programme.ts';
import { frameAfter, frameBefore, frames, parseRate } from '@cadence/core/time/frameRate.ts';
import { add, fromSeconds, subtract, type Ticks } from '@cadence/core/time/ticks.ts';
import { parseTimecode } from '@cadence/core/time/timecode.ts';
import type { Running } from '@cadence/server/start.ts';
import { FILM } from './ferry/river.ts';
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
  await seedFerry(running);
}

/** Makes "Slack Water": a song with its pulse, its words on the strand, and marks on the lines. */
async function seedSong({ keeper, store }: Running): Promise<void> {
  const song = await keep(store, 'slack/slack-water.opus');
  const heard = unpackHeard(song.heard);
  if (!heard)
    throw new Error('What was heard in the song is of another version: see demo/hear.ts.');
  const strand = randomUUID();
  let programme = newProgramme(randomUUID(), 'Slack Water', strand);
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
  change({ changes: keepFound(id, foundIn(heard), randomUUID) });
  change(setFacts(programme, { setBy: 'editor' }));
  const bars = heardBeats(programme).filter(({ bar }) => bar !== null);
  LINES.forEach((text, line) => {
    const [from, to] = [bars[4 * line], bars[4 * line + 4]];
    if (!from || !to) return;
    const range = { start: from.at, end: subtract(to.at, frames(3, programme.facts.frameRate)) };
    change(addCue(programme, strand, range, text, randomUUID));
    const mark = { at: from.at, purpose: 'bar' as const, name: `line ${line + 1}` };
    change(addMarks(programme, [mark], randomUUID));
  });
  await keeper.keepNew(programme);
}

const foundIn = (heard: KeptHeard): Found => ({
  pieces: [],
  pulse: findPulse(heard.pulse),
  hits: hitsIn(heard.hitFigures),
  hitShare: heard.hitShare,
  length: fromSeconds(60),
});

/** Makes "The Ferry at Skerrymoor": pieces found, half of it typed, a few things to mend. */
async function seedFerry({ keeper, store }: Running): Promise<void> {
  const { seconds, phrases } = JSON.parse(
    await readFile(`${folder}phrases.json`, 'utf8'),
  ) as Phrases;
  const rate = parseRate(String(FILM.rate));
  if (!rate) throw new Error('The film has no usual frame rate.');
  const film = await keep(store, 'ferry/skerrymoor-cut3.mp4');
  const narration = await keep(store, 'ferry/narration-hesper.opus');
  await store.keepSide(film.hash, 'still', await readFile(`${folder}skerrymoor-cut3.still.webp`));

  const strand = randomUUID();
  let programme = newProgramme(randomUUID(), 'The Ferry at Skerrymoor', strand);
  const change = (edit: { changes: Parameters<typeof apply>[1] }) =>
    (programme = apply(programme, edit.changes));
  const length = frames(Math.round(seconds * FILM.rate), rate);
  const sound = { sampleRate: 48_000, channels: 1 };
  const filmId = randomUUID();
  const material: Omit<Material, 'id' | 'hash' | 'bytes' | 'name' | 'kind' | 'sound' | 'picture'> =
    {
      length,
      family: null,
      remarks: [],
    };
  change(
    addMaterial(programme, {
      ...material,
      id: filmId,
      hash: film.hash,
      bytes: film.bytes,
      name: 'skerrymoor-cut3.mp4',
      kind: 'film',
      sound: { ...sound, codec: 'aac' },
      picture: {
        width: FILM.width,
        height: FILM.height,
        frameRate: rate,
        codec: 'avc',
        shown: true,
      },
    }),
  );
  change(
    addMaterial(programme, {
      ...material,
      id: randomUUID(),
      hash: narration.hash,
      bytes: narration.bytes,
      name: 'narration-hesper.opus',
      kind: 'sound',
      sound: { ...sound, codec: 'opus' },
      picture: null,
    }),
  );
  change(
    setFacts(programme, { startTimecode: parseTimecode('10:00:00:00', rate) ?? (0 as Ticks) }),
  );
  const heard = unpackHeard(film.heard);
  if (heard) change(setPieces(programme, filmId, findPieces(heard.speech), randomUUID));
  for (const { text, start, end } of phrases.slice(0, TYPED)) {
    const range = {
      start: frameBefore(fromSeconds(start), rate),
      end: frameAfter(add(fromSeconds(end), fromSeconds(0.16)), rate),
    };
    change(addCue(programme, strand, range, text, randomUUID));
  }
  change(somethingToMend(programme, strand));
  await keeper.keepNew(programme);
}

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
