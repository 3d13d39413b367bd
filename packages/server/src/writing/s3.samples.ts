/** A stand-in for an S3-compatible store: as much of it as the depot uses, in memory, for tests. */
import { createHash } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import express, { raw } from 'express';
import { escapeXml } from '@cadence/core/formats/xml.ts';

export interface StandInStore {
  /** What is in it, by bucket and key. */
  readonly objects: Map<string, Buffer>;
  close(): Promise<void>;
}

const tagOf = (bytes: Buffer): string => `"${createHash('md5').update(bytes).digest('hex')}"`;
const xml = (body: string): string => `<?xml version="1.0" encoding="UTF-8"?>${body}`;

/** Starts a store, and tells this process where it is, as its environment would. */
export async function startStore(): Promise<StandInStore> {
  const objects = new Map<string, Buffer>();
  const uploads = new Map<string, Map<number, Buffer>>();
  const app = express();
  app.use(raw({ type: () => true, limit: '64mb' }));
  const bodyOf = (body: unknown): Buffer => (Buffer.isBuffer(body) ? body : Buffer.alloc(0));

  app.use((request, response) => {
    const name = decodeURIComponent(request.path.slice(1)).replace(/\/$/, '');
    const { query, method } = request;
    const upload = typeof query.uploadId === 'string' ? query.uploadId : undefined;
    if (method === 'GET' && query['list-type'] === '2') {
      const prefix = `${name}/${String(query.prefix ?? '')}`;
      const found = [...objects.keys()].filter((key) => key.startsWith(prefix));
      const contents = found.map(
        (key) => `<Contents><Key>${escapeXml(key.slice(name.length + 1))}</Key></Contents>`,
      );
      response.type('application/xml');
      response.send(
        xml(
          `<ListBucketResult><IsTruncated>false</IsTruncated>${contents.join('')}</ListBucketResult>`,
        ),
      );
    } else if (method === 'POST' && 'delete' in query) {
      for (const [, key] of bodyOf(request.body)
        .toString()
        .matchAll(/<Key>(.*?)<\/Key>/g))
        objects.delete(`${name}/${key}`);
      response.type('application/xml').send(xml('<DeleteResult/>'));
    } else if (method === 'POST' && 'uploads' in query) {
      const id = String(uploads.size + 1);
      uploads.set(id, new Map());
      const [bucket] = name.split('/');
      response.type('application/xml');
      response.send(
        xml(
          `<InitiateMultipartUploadResult><Bucket>${bucket}</Bucket><Key>${name}</Key><UploadId>${id}</UploadId></InitiateMultipartUploadResult>`,
        ),
      );
    } else if (method === 'PUT' && upload !== undefined) {
      const bytes = bodyOf(request.body);
      uploads.get(upload)?.set(Number(query.partNumber), bytes);
      response.set('ETag', tagOf(bytes)).end();
    } else if (method === 'POST' && upload !== undefined) {
      const parts = [...(uploads.get(upload) ?? [])].sort(([a], [b]) => a - b);
      objects.set(name, Buffer.concat(parts.map(([, bytes]) => bytes)));
      response.type('application/xml');
      response.send(
        xml(`<CompleteMultipartUploadResult><ETag>x</ETag></CompleteMultipartUploadResult>`),
      );
    } else if (method === 'PUT') {
      const bytes = bodyOf(request.body);
      objects.set(name, bytes);
      response.set('ETag', tagOf(bytes)).end();
    } else {
      const bytes = objects.get(name);
      if (bytes) response.type('application/octet-stream').send(bytes);
      else
        response
          .status(404)
          .type('application/xml')
          .send(xml('<Error><Code>NoSuchKey</Code></Error>'));
    }
  });
  const server = app.listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
  const { port } = server.address() as AddressInfo;
  Object.assign(process.env, {
    AWS_ENDPOINT_URL_S3: `http://127.0.0.1:${port}`,
    AWS_ACCESS_KEY_ID: 'harbour',
    AWS_SECRET_ACCESS_KEY: 'slack-water',
  });
  return {
    objects,
    close: () => new Promise((closed) => server.close(() => closed())),
  };
}
