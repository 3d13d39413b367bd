/** Writing a film on Node: its parts by a crew, one for each core, then joined. */
import { writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import type { SoundFound } from '@cadence/film/write/film.ts';
import { SOUND_SHARE } from '@cadence/film/write/job.ts';
import { frameCount, partsOf, SOUND_PART, type Part } from '@cadence/film/write/order.ts';
import { Crew, CrewEnded, WORK_FILE, type Found, type Work } from './crew.ts';
import { joinInto, type FilmWork } from './filmHelper.ts';
import { Rows } from './rows.ts';

/** How far a film is: shares from 0 to 1. */
export interface FilmProgress {
  readonly doing: 'writing' | 'joining';
  readonly share: number;
}

/** How often a task is tried whose process ended in the middle of it. */
const TRIES = 3;

/**
 * Writes a film, or goes on with it where some of its parts are there. The file is there whole or not at all.
 *
 * @param report  told how far it is
 * @returns what was found of its sound, and what is wrong with the file that was written
 */
export async function writeFilm(
  work: FilmWork,
  out: string,
  report: (progress: FilmProgress) => void = () => undefined,
  size = availableParallelism(),
): Promise<{ readonly sound: SoundFound | undefined; readonly faults: readonly string[] }> {
  const { programme, order, material, parts: folder } = work;
  const parts = partsOf(order);
  const crew = new Crew(Math.min(size, parts.length), 0);
  const rows = new Rows(parts, crew.size);
  const [whole, sounding] = [frameCount(order), order.audio ? SOUND_SHARE : 0];
  let heard = 0;
  /** How many frames of each part are written. */
  const drawn = new Map<Part, number>();
  const tell = () => {
    const frames = [...drawn.values()].reduce((sum, count) => sum + count, 0);
    report({ doing: 'writing', share: (1 - sounding) * (frames / whole) + sounding * heard });
  };
  /** Whether a task has failed: the others stop after their part. */
  let failed = false;
  const done = async (slot: number, name: string, told: (share: number) => void) => {
    for (let tried = 1; ; tried++)
      try {
        return await crew.do(slot, { folder, material, name }, told);
      } catch (error) {
        if (error instanceof CrewEnded && tried < TRIES && !failed) continue;
        failed = true;
        throw error;
      }
  };
  const writeRow = async (slot: number): Promise<Found> => {
    let found: Found = {};
    if (slot === 0 && order.audio)
      found = await done(slot, SOUND_PART, (share) => {
        heard = share;
        tell();
      });
    for (let part = rows.next(slot); part && !failed; part = rows.next(slot)) {
      const now = part;
      const told = (share: number) => {
        drawn.set(now, share * (now.to - now.from));
        tell();
      };
      await done(slot, part.name, told);
      told(1);
    }
    return found;
  };
  try {
    const asked: Work = { programme, writing: { kind: 'film', order } };
    await writeFile(join(folder, WORK_FILE), JSON.stringify(asked));
    const ended = await Promise.allSettled(
      Array.from({ length: crew.size }, (_, slot) => writeRow(slot)),
    );
    for (const each of ended) if (each.status === 'rejected') throw each.reason;
    const sounds = ended.flatMap((each) => (each.status === 'fulfilled' ? [each.value.sound] : []));
    const faults = await joinInto(out, work, (joined) =>
      report({ doing: 'joining', share: joined / whole }),
    );
    return { sound: sounds.find((sound) => sound !== undefined), faults };
  } finally {
    crew.end();
  }
}
