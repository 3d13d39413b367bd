/**
 * Keeps the files of material, each once, under the hash of its content; and beside each what was
 * computed from it, so that it is never computed twice.
 */
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { access, mkdir, open, readdir, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { fileTypeFromFile } from 'file-type';
import { notFound, Problem } from '../problem.ts';
import type { Database } from './database.ts';
import { MaterialRow, type MaterialRecord } from './entities.ts';
import { readRows } from './rows.ts';

/** What can be kept beside a material: what was heard in it, and a small picture of it. */
export const SIDE_FILES = { heard: 'application/octet-stream', still: 'image/webp' } as const;
export type SideFile = keyof typeof SIDE_FILES;

const isHash = (text: string): boolean => /^[0-9a-f]{64}$/.test(text);
/** Kinds of content that are material; anything else is refused whatever its name. */
const taken =
  /^(?:audio|video|font)\/|^image\/(?:png|jpeg|webp)$|^application\/(?:ogg|mp4|font-\w+|x-font-\w+)$/;

export class MaterialStore {
  readonly #folder: string;
  readonly #database: Database;

  private constructor(folder: string, database: Database) {
    this.#folder = folder;
    this.#database = database;
  }

  /** Opens the store and clears away what an upload that was cut off may have left. */
  static async open(folder: string, database: Database): Promise<MaterialStore> {
    const store = new MaterialStore(folder, database);
    await mkdir(folder, { recursive: true });
    const names = await readdir(folder);
    await Promise.all(
      names.filter((name) => name.startsWith('arriving-')).map((name) => rm(join(folder, name))),
    );
    return store;
  }

  /**
   * Takes in a file as a stream, straight to disk. Where the stream breaks off nothing is left behind.
   *
   * @throws Problem 415 where its content is neither sound, film, picture nor font
   */
  async take(stream: Readable): Promise<MaterialRecord> {
    const arriving = join(this.#folder, `arriving-${randomUUID()}`);
    const hash = createHash('sha256');
    let bytes = 0;
    const measure = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        hash.update(chunk);
        bytes += chunk.length;
        done(null, chunk);
      },
    });
    try {
      await pipeline(stream, measure, createWriteStream(arriving, { flush: true }));
      const type = (await fileTypeFromFile(arriving))?.mime ?? '';
      if (!taken.test(type))
        throw new Problem(
          415,
          'not-material',
          'Not sound, film, picture or font',
          'The content of this file is neither sound, film, picture nor font, whatever its name. It was not kept.',
        );
      return await this.#keep(arriving, hash.digest('hex'), bytes, type);
    } finally {
      await rm(arriving, { force: true });
    }
  }

  async #keep(
    arriving: string,
    hash: string,
    bytes: number,
    mediaType: string,
  ): Promise<MaterialRecord> {
    const record = { hash, bytes, mediaType, kept: Date.now() };
    await rename(arriving, this.#path(hash));
    // The rename itself must reach the disk before the material is promised.
    const folder = await open(this.#folder);
    await folder.sync().finally(() => folder.close());
    await this.#database.em.fork().upsert(MaterialRow, record);
    return record;
  }

  async find(hash: string): Promise<MaterialRecord & { path: string }> {
    const [record] = isHash(hash)
      ? await readRows(
          this.#database.em.fork(),
          'material',
          { texts: ['media_type'], figures: ['bytes', 'kept'] },
          'where hash = ?',
          [hash],
        )
      : [];
    if (!record) throw notFound('material');
    const path = this.#path(hash);
    await access(path);
    const { bytes, kept, media_type: mediaType } = record;
    return { hash, bytes, kept, mediaType: mediaType ?? 'application/octet-stream', path };
  }

  /** Where a side file is, once it has been kept. */
  async findSide(hash: string, side: SideFile): Promise<string> {
    const path = this.#path(isHash(hash) ? hash : '', side);
    await access(path).catch(() => {
      throw notFound(`${side} file`);
    });
    return path;
  }

  async keepSide(hash: string, side: SideFile, bytes: Buffer): Promise<void> {
    await this.find(hash);
    const path = this.#path(hash, side);
    const arriving = `${path}.${randomUUID()}`;
    await writeFile(arriving, bytes, { flush: true });
    await rename(arriving, path);
  }

  /** Puts a file that is on this machine into the store; for data that ships with the application. */
  takeFile(path: string): Promise<MaterialRecord> {
    return this.take(createReadStream(path));
  }

  #path(hash: string, side?: SideFile): string {
    return join(this.#folder, side ? `${hash}.${side}` : hash);
  }
}
