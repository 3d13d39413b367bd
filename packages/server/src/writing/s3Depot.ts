/** A depot in an S3-compatible store, which workers on many machines reach. What they work on is kept on each meanwhile. */
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  DeleteObjectsCommand,
  GetObjectCommand,
  HeadObjectCommand,
  paginateListObjectsV2,
  PutObjectCommand,
  S3Client,
  S3ServiceException,
} from '@aws-sdk/client-s3';
import { Upload } from '@aws-sdk/lib-storage';
import type { Id } from '@cadence/core/programme/programme.ts';
import { clearFolder, folderOf, isThere, jobKey, writeWhole, type Depot } from './depot.ts';

/** The most objects that one request may remove. */
const MOST_REMOVED = 1000;

export class S3Depot implements Depot {
  readonly here: string;
  readonly #client: S3Client;
  readonly #bucket: string;
  /** Comes before every key; empty or ends with a slash. */
  readonly #prefix: string;

  private constructor(here: string, bucket: string, prefix: string) {
    this.here = here;
    this.#bucket = bucket;
    this.#prefix = prefix;
    // Region, credentials and the address of another store than the usual one come from the environment.
    this.#client = new S3Client({
      region: process.env.AWS_REGION ?? 'us-east-1',
      forcePathStyle: true,
      // Not every store knows the newer checksums.
      requestChecksumCalculation: 'WHEN_REQUIRED',
      responseChecksumValidation: 'WHEN_REQUIRED',
    });
  }

  /** @param url  such as `s3://bucket/prefix` */
  static async open(url: string): Promise<S3Depot> {
    const { hostname, pathname } = new URL(url);
    const prefix = pathname.replace(/^\/+|\/+$/g, '');
    const here = await mkdtemp(join(tmpdir(), 'cadence-depot-'));
    return new S3Depot(here, hostname, prefix && `${prefix}/`);
  }

  #object(key: string): { Bucket: string; Key: string } {
    return { Bucket: this.#bucket, Key: `${this.#prefix}${key}` };
  }

  async has(key: string): Promise<boolean> {
    try {
      await this.#client.send(new HeadObjectCommand(this.#object(key)));
      return true;
    } catch (error) {
      if (error instanceof S3ServiceException && error.$metadata.httpStatusCode === 404)
        return false;
      throw error;
    }
  }

  async fetch(key: string): Promise<void> {
    const path = join(this.here, key);
    if (await isThere(path)) return;
    const { Body } = await this.#client.send(new GetObjectCommand(this.#object(key)));
    await writeWhole(path, (arriving) => pipeline(Body as Readable, createWriteStream(arriving)));
  }

  async keep(key: string): Promise<void> {
    const path = join(this.here, key);
    await this.#upload(key, path);
    await rm(path, { force: true });
  }

  async put(key: string, bytes: string): Promise<void> {
    await this.#client.send(new PutObjectCommand({ ...this.#object(key), Body: bytes }));
  }

  async take(key: string, path: string): Promise<void> {
    if (!(await this.has(key))) await this.#upload(key, path);
  }

  async #upload(key: string, path: string): Promise<void> {
    const params = { ...this.#object(key), Body: createReadStream(path) };
    await new Upload({ client: this.#client, params }).done();
  }

  async clear(job: Id, except?: string): Promise<void> {
    await clearFolder(folderOf(this, job), except);
    const kept = except === undefined ? undefined : this.#object(jobKey(job, except)).Key;
    const keys = (await this.#keys(jobKey(job, ''))).filter((key) => key !== kept);
    for (let at = 0; at < keys.length; at += MOST_REMOVED) {
      const Objects = keys.slice(at, at + MOST_REMOVED).map((Key) => ({ Key }));
      await this.#client.send(
        new DeleteObjectsCommand({ Bucket: this.#bucket, Delete: { Objects, Quiet: true } }),
      );
    }
  }

  async jobs(): Promise<Id[]> {
    return [];
  }

  async #keys(prefix: string): Promise<string[]> {
    const pages = paginateListObjectsV2(
      { client: this.#client },
      { Bucket: this.#bucket, Prefix: `${this.#prefix}${prefix}` },
    );
    const keys: string[] = [];
    for await (const { Contents = [] } of pages)
      keys.push(...Contents.flatMap(({ Key }) => Key ?? []));
    return keys;
  }

  async close(): Promise<void> {
    this.#client.destroy();
    await rm(this.here, { recursive: true, force: true });
  }
}
