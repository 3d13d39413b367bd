/** A film as pictures: a PNG for each frame, in one ZIP with a small file that says how they go together. */
import { makeZip } from 'client-zip';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { nameRate } from '@cadence/core/time/frameRate.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { frameCount, partsOf, type FilmOrder, type Part, type StillsOrder } from './order.ts';
import { CannotWrite, drawn, drawnFrames, type Drawn, type Easel } from './easel.ts';
import { writeAll, type PartStore, type Sink } from './store.ts';

/** Bytes that say how long a picture is in a part. */
const LENGTH = 4;

/** Writes the pictures of a part one after the other, each after its length. */
export async function writePictures(
  programme: Programme,
  order: FilmOrder,
  part: Part,
  easel: Easel,
  sink: Sink,
  told: Drawn = () => undefined,
): Promise<void> {
  async function* pictures(): AsyncGenerator<Uint8Array> {
    for await (const { frame, canvas } of drawnFrames(programme, order, part, easel)) {
      const png = await easel.surfaces.png(canvas);
      const length = new Uint8Array(LENGTH);
      new DataView(length.buffer).setUint32(0, png.length);
      yield length;
      yield png;
      told(frame, canvas);
    }
  }
  await writeAll(sink, pictures());
}

/** The pictures of a part, in order. */
function* picturesIn(bytes: Uint8Array): Generator<Uint8Array> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 0; at < bytes.length;) {
    const end = at + LENGTH + view.getUint32(at);
    if (end > bytes.length) throw new CannotWrite('A part of the film is damaged.');
    yield bytes.subarray(at + LENGTH, end);
    at = end;
  }
}

/** What the pictures are, for who lays them over another film. */
function sequenceNote({ facts }: Programme, order: FilmOrder): string {
  const { range, rate, width, height } = order;
  return [
    `Frames a second: ${nameRate(rate)} (${rate.num}/${rate.den})`,
    `First frame at: ${formatTimecode(add(facts.startTimecode, range.start), facts.frameRate)}`,
    `Frames: ${frameCount(order)}`,
    `Size: ${width} × ${height} pixels`,
    'Opacity: straight, not premultiplied',
    '',
  ].join('\n');
}

/**
 * Joins the pictures of all parts into a ZIP, which compresses nothing.
 *
 * @param report  told how many frames are in it so far
 */
export async function joinPictures(
  programme: Programme,
  order: FilmOrder,
  store: PartStore,
  sink: Sink,
  report: (frames: number) => void = () => undefined,
): Promise<void> {
  async function* files() {
    yield { name: 'sequence.txt', input: sequenceNote(programme, order) };
    const digits = Math.max(5, String(frameCount(order)).length);
    for (const part of partsOf(order)) {
      let frame = part.from;
      for (const input of picturesIn(await store.bytes(part.name)))
        yield { name: `frame-${String(frame++).padStart(digits, '0')}.png`, input };
      report(part.to);
    }
  }
  await writeAll(sink, zipped(files()));
}

interface ZippedFile {
  readonly name: string;
  readonly input: string | Uint8Array;
}

/** A ZIP, piece by piece, which compresses nothing. */
async function* zipped(files: AsyncIterable<ZippedFile>): AsyncGenerator<Uint8Array> {
  const zip = makeZip(
    files as AsyncIterable<{ name: string; input: Uint8Array<ArrayBuffer> }>,
  ).getReader();
  for (let piece = await zip.read(); !piece.done; piece = await zip.read()) yield piece.value;
}

/**
 * Writes still pictures: one as PNG, several as a ZIP of them.
 *
 * @param told  called after each, with its place
 */
export async function writeStills(
  programme: Programme,
  order: StillsOrder,
  easel: Easel,
  sink: Sink,
  told: Drawn = () => undefined,
): Promise<void> {
  const { stills } = order;
  await easel.stage.fonts(programme);
  async function* files(): AsyncGenerator<ZippedFile & { readonly input: Uint8Array }> {
    let place = 0;
    for await (const canvas of drawn(
      programme,
      order,
      stills.map(({ at }) => at),
      easel,
    )) {
      yield {
        name: `${stills[place]?.name ?? place}.png`,
        input: await easel.surfaces.png(canvas),
      };
      told(place++, canvas);
    }
  }
  async function* alone(): AsyncGenerator<Uint8Array> {
    for await (const { input } of files()) yield input;
  }
  await writeAll(sink, stills.length === 1 ? alone() : zipped(files()));
}
