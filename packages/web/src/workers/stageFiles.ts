/** The files of a stage in the browser: in a window and in a worker alike. */
import type { Material } from '@cadence/core/programme/programme.ts';
import type { Files, Surfaces } from '@cadence/paint/stage.ts';
import { materialUrl } from '../sync/api.ts';

export const surfaces: Surfaces = {
  Pixels: ImageData,
  make: (width, height) => new OffscreenCanvas(width, height),
  fromPixels(pixels, width, height) {
    const surface = new OffscreenCanvas(width, height);
    surface.getContext('2d')?.putImageData(new ImageData(pixels, width, height), 0, 0);
    return surface;
  },
  async png(surface) {
    const blob = await surface.convertToBlob({ type: 'image/png' });
    return new Uint8Array(await blob.arrayBuffer());
  },
};

async function fetched(url: string, what: string): Promise<Response> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`${what} could not be loaded (${response.status}).`);
  return response;
}

const bytesOf = async (url: string): Promise<Uint8Array> =>
  new Uint8Array(await (await fetched(url, 'A font')).arrayBuffer());

const named = ({ name }: Material): string => `“${name}”`;

export const stageFiles: Files = {
  face: (path) => bytesOf(`/fonts/${path}`),
  font: ({ hash }) => bytesOf(materialUrl(hash)),
  async image(material) {
    const response = await fetched(materialUrl(material.hash), named(material));
    return createImageBitmap(await response.blob());
  },
  async film({ hash }) {
    // Only programmes with a film need it.
    const [{ UrlSource }, { openFilm }] = await Promise.all([
      import('mediabunny'),
      import('@cadence/film/frames.ts'),
    ]);
    return openFilm(new UrlSource(materialUrl(hash)), surfaces);
  },
  makeCanvas: surfaces.make,
  makePath: (data) => new Path2D(data),
};
