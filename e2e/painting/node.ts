/** Draws the samples on Node and prints their digests. */
import { createHash } from 'node:crypto';
import { createCanvas, Path2D as NodePath } from '@napi-rs/canvas';
import { nodeShelf } from '@cadence/node/fonts.ts';
import { drawSamples } from './samples.ts';

const drawn = await drawSamples(
  nodeShelf(),
  (data) => new NodePath(data) as unknown as Path2D,
  (width, height) =>
    createCanvas(width, height).getContext('2d') as unknown as CanvasRenderingContext2D,
);
const digests = drawn.map(({ name, pixels }) => [
  name,
  createHash('sha256').update(new Uint8Array(pixels)).digest('hex'),
]);
process.stdout.write(JSON.stringify(Object.fromEntries(digests)));
