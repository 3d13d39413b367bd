/**
 * A stand-in for an outside host of films, which takes them in pieces over tus 1.0 (https://tus.io).
 *
 * It can be told to be slow, to fail, or to refuse, so that one can see what becomes of a film then.
 */
import { readdir, readFile, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { FileStore } from '@tus/file-store';
import { Server, type Upload } from '@tus/server';

/** Where it takes films. */
export const HOST_PATH = '/api/host/films';

export const MOODS = ['well', 'slow', 'fails', 'refuses'] as const;
export type Mood = (typeof MOODS)[number];

/** How long each piece takes a slow host, in milliseconds. */
const SLOW = 1500;

/** A film that a host has, or a part of it. */
export interface HostedFilm {
  readonly id: string;
  readonly name: string;
  /** In bytes. */
  readonly size: number;
  readonly arrived: number;
}

export class OutsideHost {
  readonly #folder: string;
  readonly #tus: Server;
  mood: Mood = 'well';

  constructor(folder: string) {
    this.#folder = folder;
    this.#tus = new Server({
      path: HOST_PATH,
      relativeLocation: true,
      datastore: new FileStore({ directory: folder }),
      onIncomingRequest: (request) => this.#meet(request.method),
    });
  }

  readonly handle = (...of: Parameters<Server['handle']>): Promise<void> => this.#tus.handle(...of);

  /** Does as its mood is. */
  async #meet(method: string): Promise<void> {
    if (this.mood === 'refuses' && method === 'POST')
      throw { status_code: 403, body: 'No films are taken at this time.' };
    if (method !== 'PATCH') return;
    if (this.mood === 'fails') throw { status_code: 503, body: 'Out of order.' };
    if (this.mood === 'slow') await setTimeout(SLOW);
  }

  /** All that has arrived, whole or in part. */
  async films(): Promise<HostedFilm[]> {
    const names = (await readdir(this.#folder)).filter((name) => !name.endsWith('.json'));
    const films = await Promise.all(names.map((id) => this.#film(id).catch(() => undefined)));
    return films.filter((film) => film !== undefined);
  }

  async #film(id: string): Promise<HostedFilm> {
    const text = await readFile(join(this.#folder, `${id}.json`), 'utf8');
    const { size = 0, metadata } = JSON.parse(text) as Upload;
    const { size: arrived } = await stat(join(this.#folder, id));
    return { id, name: metadata?.filename ?? '', size, arrived };
  }

  /** Forgets everything that it was sent. */
  async clear(): Promise<void> {
    for (const name of await readdir(this.#folder)) await rm(join(this.#folder, name));
  }
}
