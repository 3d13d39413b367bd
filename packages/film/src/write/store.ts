/** Where the parts of a film that is being written are kept. */
import type { Source, StreamTargetChunk } from 'mediabunny';

/** A file that is being written, at any of its places. */
export type Sink = WritableStream<StreamTargetChunk>;

export interface PartStore {
  has(name: string): Promise<boolean>;
  /** Keeps a part whole, or not at all; what fills it closes the sink. */
  put(name: string, fill: (sink: Sink) => Promise<void>): Promise<void>;
  /** A part, for reading bit by bit; rejects where it is not there. */
  source(name: string): Promise<Source>;
  /** A part whole. */
  bytes(name: string): Promise<Uint8Array>;
}

/** Writes pieces one after the other, and closes the sink. */
export async function writeAll(sink: Sink, pieces: AsyncIterable<Uint8Array>): Promise<void> {
  const writer = sink.getWriter();
  try {
    let position = 0;
    for await (const data of pieces) {
      await writer.write({ type: 'write', data: data as Uint8Array<ArrayBuffer>, position });
      position += data.length;
    }
    await writer.close();
  } catch (error) {
    await writer.abort(error).catch(() => undefined);
    throw error;
  }
}
