/** Draws the samples where it is loaded: in a window or in a worker. */
import { FontShelf } from '@cadence/paint/fontShelf.ts';
import { BlobSource } from 'mediabunny';
import { openFilm } from '@cadence/film/frames.ts';
import { surfaces } from '../../packages/web/src/workers/stageFiles.ts';
import { drawFilms, drawSamples, type Drawn } from './samples.ts';

const canvas = (width: number, height: number): CanvasRenderingContext2D =>
  new OffscreenCanvas(width, height).getContext('2d', {
    willReadFrequently: true,
  }) as unknown as CanvasRenderingContext2D;

export async function drawHere(): Promise<Drawn[]> {
  const shelf = new FontShelf(async (path) => {
    const response = await fetch(`/fonts/${path}`);
    return new Uint8Array(await response.arrayBuffer());
  });
  const films = drawFilms(async (name) => {
    const film = await fetch(`/painting/films/${name}`);
    return openFilm(new BlobSource(await film.blob()), surfaces);
  }, canvas);
  const texts = await drawSamples(shelf, (data) => new Path2D(data), canvas);
  return [...texts, ...(await films)];
}
