/** Writing a film on Node: its parts in threads, one a core, then joined. */
import { availableParallelism } from 'node:os';
import { proxy, type Remote } from 'comlink';
import type { SoundFound } from '@cadence/film/write/film.ts';
import { SOUND_SHARE } from '@cadence/film/write/job.ts';
import { frameCount, partsOf } from '@cadence/film/write/order.ts';
import { joinInto, type FilmHelper, type FilmWork } from './filmHelper.ts';
import { withHelper } from './helperThread.ts';
import { Rows } from './rows.ts';

/** How far a film is: shares from 0 to 1. */
export interface FilmProgress {
  readonly doing: 'writing' | 'joining';
  readonly share: number;
}

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
  threads = availableParallelism(),
): Promise<{ readonly sound: SoundFound | undefined; readonly faults: readonly string[] }> {
  const { order } = work;
  const parts = partsOf(order);
  const rows = new Rows(parts, Math.min(threads, parts.length));
  const [whole, sounding] = [frameCount(order), order.audio ? SOUND_SHARE : 0];
  let [frames, heard] = [0, 0];
  const tell = () =>
    report({
      doing: 'writing',
      share: (1 - sounding) * (frames / whole) + sounding * heard,
    });
  let sound: SoundFound | undefined;
  /** Whether a thread has failed: the others stop after their part. */
  let failed = false;
  const thread = (row: number) =>
    withHelper('film', async (helper) => {
      try {
        await writeRow(helper, row);
      } catch (error) {
        failed = true;
        throw error;
      } finally {
        // A thread that ends with open codecs takes the process with it.
        await helper.end();
      }
    });
  const writeRow = async (helper: Remote<FilmHelper>, row: number) => {
    await helper.begin(work);
    if (row === 0)
      sound = await helper.sound(
        proxy((share) => {
          heard = share;
          tell();
        }),
      );
    for (let part = rows.next(row); part && !failed; part = rows.next(row)) {
      let drawn = 0;
      await helper.part(
        part,
        proxy(() => {
          drawn++;
          frames++;
          tell();
        }),
      );
      frames += part.to - part.from - drawn;
    }
  };
  const ended = await Promise.allSettled(
    Array.from({ length: Math.min(threads, parts.length) }, (_, row) => thread(row)),
  );
  for (const each of ended) if (each.status === 'rejected') throw each.reason;
  const faults = await joinInto(out, work, (joined) =>
    report({ doing: 'joining', share: joined / whole }),
  );
  return { sound, faults };
}
