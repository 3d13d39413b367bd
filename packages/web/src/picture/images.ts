/** Still pictures of the programme, decoded once. */
import type { Material } from '@cadence/core/programme/programme.ts';
import { materialUrl } from '../sync/api.ts';

const known = new Map<string, HTMLImageElement>();
const watching = new Set<() => void>();

/** Calls back whenever a picture has come, for what has to be drawn anew. */
export function whenImages(come: () => void): () => void {
  watching.add(come);
  return () => watching.delete(come);
}

/** The picture of a material; undefined until it is decoded. */
export function imageOf(material: Material | undefined): HTMLImageElement | undefined {
  if (!material) return undefined;
  let image = known.get(material.hash);
  if (!image) {
    image = new Image();
    image.onload = () => {
      watching.forEach((come) => {
        come();
      });
    };
    image.src = materialUrl(material.hash);
    known.set(material.hash, image);
  }
  return image.complete && image.naturalWidth > 0 ? image : undefined;
}
