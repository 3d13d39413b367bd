/** Writes what leaves as a film, as still pictures or as a sound, beside the page. */
import { expose } from 'comlink';
import type { write } from './filming.ts';

const service = {
  /** See `filming.ts`. It is loaded with the first call: what shapes text takes a while, and calls must not be missed. */
  async write(...what: Parameters<typeof write>): ReturnType<typeof write> {
    const filming = await import('./filming.ts');
    return filming.write(...what);
  },
};

export type FilmService = typeof service;
expose(service);
