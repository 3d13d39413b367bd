/** The sample films, and programmes that show them, for tests. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { ALL_FORMATS, BufferSource, EncodedPacketSink, Input } from 'mediabunny';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { programmeWithCues, sampleMaterial } from '@cadence/core/programme/samples.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';

export const samplesFolder = fileURLToPath(new URL('../samples/', import.meta.url));

/** Of the sample films, in pixels. */
export const SIZE = { width: 128, height: 64 } as const;

/** A programme at 25 frames a second that shows a sample film, with one word over its colours. */
export function programmeOf(film: string, seconds: number): Programme {
  const bytes = readFileSync(`${samplesFolder}${film}`);
  const base = programmeWithCues([['tide', 25, 50]]);
  const [cue] = Object.values(base.cues);
  const strand = Object.values(base.strands)[0];
  if (!cue || !strand) throw new Error('There is no cue.');
  const style = { ...strand.style, size: 12, margin: 4, outlineWidth: 1 };
  return {
    ...base,
    facts: {
      ...base.facts,
      frame: SIZE,
      length: fromSeconds(seconds),
      picture: 'm',
    },
    materials: {
      m: {
        ...sampleMaterial('m'),
        name: film,
        kind: 'film',
        hash: createHash('sha256').update(bytes).digest('hex'),
        bytes: bytes.length,
        length: fromSeconds(seconds),
        sound: null,
        picture: { ...SIZE, frameRate: base.facts.frameRate, codec: 'avc', shown: true },
      },
    },
    strands: { [strand.id]: { ...strand, style } },
  };
}

type Drawn = { readonly width: number; readonly height: number } & {
  getContext(kind: '2d'): OffscreenCanvasRenderingContext2D;
};

/**
 * The number that is drawn into a frame of a sample film, and how its patches are coloured.
 *
 * @param turned  whether the frame was turned by three quarters, clockwise
 */
export function readFrame(picture: CanvasImageSource | undefined, turned = false) {
  const canvas = picture as unknown as Drawn;
  const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height);
  const at = (x: number, y: number): number[] => {
    const [across, down] = turned ? [y, canvas.height - 1 - x] : [x, y];
    const place = 4 * (down * canvas.width + across);
    return [...data.subarray(place, place + 3)];
  };
  let number = 0;
  for (let bit = 0; bit < 8; bit++)
    if ((at(16 * bit + 8, 8)[1] as number) > 128) number += 1 << bit;
  return { number, patches: [16, 48, 80, 112].map((x) => at(x, 40)) };
}

/**
 * The time and content of every encoded frame of a film. Its bytes differ by when it was written, which containers say to
 * the second.
 */
export async function framesIn(bytes: Uint8Array): Promise<string[]> {
  const input = new Input({ source: new BufferSource(bytes), formats: ALL_FORMATS });
  const track = await input.getPrimaryVideoTrack();
  const frames: string[] = [];
  if (track)
    for await (const { timestamp, data } of new EncodedPacketSink(track).packets())
      frames.push(`${timestamp} ${createHash('sha256').update(data).digest('hex')}`);
  input.dispose();
  return frames;
}
