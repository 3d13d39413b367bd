/** The shelf of fonts in the browser, and what drawing needs. Loaded with the first text. */
import type { Programme } from '@cadence/core/programme/programme.ts';
import { strandsInOrder } from '@cadence/core/programme/order.ts';
import { FontShelf } from '@cadence/paint/fontShelf.ts';
import { materialUrl } from '../app/api.ts';

async function bytesOf(url: string): Promise<Uint8Array> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`A font could not be loaded (${response.status}).`);
  return new Uint8Array(await response.arrayBuffer());
}

export const shelf = new FontShelf((path) => bytesOf(`/fonts/${path}`));

export const makePath = (data: string): Path2D => new Path2D(data);

const ownFonts = new Map<string, Promise<void>>();

/** Puts the fonts that belong to the programme on the shelf. A font that is gone is passed over. */
export async function loadOwnFonts(programme: Programme): Promise<void> {
  const fonts = Object.values(programme.materials).filter((material) => material.kind === 'font');
  await Promise.all(
    fonts.map(({ hash, family }) => {
      let loading = ownFonts.get(hash);
      if (!loading) {
        loading = bytesOf(materialUrl(hash))
          .then((bytes) => shelf.add(hash, bytes, family ?? 'Unnamed'))
          .catch(() => undefined);
        ownFonts.set(hash, loading);
      }
      return loading;
    }),
  );
}

/** Makes sure that every text of the programme can be shaped. */
export async function prepareAll(programme: Programme): Promise<void> {
  await loadOwnFonts(programme);
  const byFamily = new Map<string, Programme['cues'][string]['text'][number][]>();
  const cues = Object.values(programme.cues);
  for (const strand of strandsInOrder(programme)) byFamily.set(strand.style.family, []);
  for (const cue of cues) {
    const family = cue.style.family ?? programme.strands[cue.strand]?.style.family ?? '';
    const lines = byFamily.get(family) ?? [];
    lines.push(...cue.text);
    byFamily.set(family, lines);
  }
  for (const [family, lines] of byFamily) await shelf.prepare(family, lines);
}
