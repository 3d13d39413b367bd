/** What was heard in materials: fetched once, and listened for again where the server has it no longer. */
import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { KeptHeard } from '@cadence/core/listen/heardFile.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { materialUrl, server } from '../sync/api.ts';
import type { Listening } from '../workers/listening.worker.ts';
import type { MediaWorker, Progress, Taken } from '../workers/media.worker.ts';

const known = new Map<string, KeptHeard>();
const loading = new Map<string, Promise<KeptHeard | undefined>>();

let listening: Remote<Listening> | undefined;

/** The worker that unpacks what was heard and finds pieces in it; begun with the first call. */
export function listeningWorker(): Remote<Listening> {
  listening ??= wrap<Listening>(
    new Worker(new URL('../workers/listening.worker.ts', import.meta.url), { type: 'module' }),
  );
  return listening;
}

/** Runs work in a media worker of its own, which ends with it or when `signal` stops it. */
async function inMedia<T>(
  work: (media: Remote<MediaWorker>) => Promise<T>,
  signal: AbortSignal,
): Promise<T> {
  const worker = new Worker(new URL('../workers/media.worker.ts', import.meta.url), {
    type: 'module',
  });
  try {
    return await new Promise<T>((done, fail) => {
      signal.addEventListener('abort', () => fail(new DOMException('Stopped.', 'AbortError')), {
        once: true,
      });
      worker.onerror = () => fail(new Error('Reading the file failed. Nothing was added.'));
      work(wrap<MediaWorker>(worker)).then(done, fail);
    });
  } finally {
    worker.terminate();
  }
}

/**
 * Reads a sound or a film and sends it to the server.
 *
 * @param material  the id that it will have
 */
export const takeMedia = (
  file: Blob,
  material: Id,
  report: (progress: Progress) => void,
  signal: AbortSignal,
): Promise<Taken> =>
  inMedia(async (media) => (await media.take(file, material, proxy(report))) as Taken, signal);

export function remember(hash: string, heard: KeptHeard): void {
  known.set(hash, heard);
}

/** What was heard in the material with this content, if it is at hand. */
export const heardNow = (hash: string): KeptHeard | undefined => known.get(hash);

/** What was heard in the material with this content; undefined where its file is gone. */
export function heardIn(hash: string): Promise<KeptHeard | undefined> {
  const found = known.get(hash);
  if (found) return Promise.resolve(found);
  let wait = loading.get(hash);
  if (!wait) {
    wait = fetchHeard(hash).finally(() => loading.delete(hash));
    loading.set(hash, wait);
  }
  return wait;
}

async function fetchHeard(hash: string): Promise<KeptHeard | undefined> {
  const kept = await server.heard(hash).catch(() => undefined);
  let heard = kept && (await listeningWorker().unpack(kept));
  if (!heard) {
    const url = new URL(materialUrl(hash), window.location.href).href;
    const again = inMedia((media) => media.hearAgain(url, hash), new AbortController().signal);
    heard = await again.catch(() => undefined);
  }
  if (heard) known.set(hash, heard);
  return heard;
}

/** What was heard in a material; undefined until it is there. */
export const useHeard = (hash: string | undefined): KeptHeard | undefined => useHeardAll([hash])[0];

/** What was heard in each of some materials; undefined until it is there. */
export function useHeardAll(hashes: readonly (string | undefined)[]): (KeptHeard | undefined)[] {
  const [, setCount] = useState(0);
  const key = hashes.join(' ');
  useEffect(() => {
    let stale = false;
    for (const hash of key.split(' '))
      if (hash !== '' && !known.has(hash))
        void heardIn(hash).then((found) => found && !stale && setCount((count) => count + 1));
    return () => {
      stale = true;
    };
  }, [key]);
  return hashes.map((hash) => (hash === undefined ? undefined : known.get(hash)));
}
