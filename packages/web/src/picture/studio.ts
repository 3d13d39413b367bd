/** The shelf of fonts in the browser, and what drawing needs. Loaded with the first text. */
import type { Passage } from '@cadence/core/programme/passage.ts';
import { setIn } from '@cadence/core/scene/travelFigures.ts';
import type { Cue, Programme } from '@cadence/core/programme/programme.ts';
import type { Line } from '@cadence/core/text/lines.ts';
import { strandsInOrder } from '@cadence/core/programme/order.ts';
import { FontShelf } from '@cadence/paint/fontShelf.ts';
import { materialUrl } from '../sync/api.ts';

async function bytesOf(url: string): Promise<Uint8Array> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`A font could not be loaded (${response.status}).`);
  return new Uint8Array(await response.arrayBuffer());
}

export const shelf = new FontShelf((path) => bytesOf(`/fonts/${path}`));

export const makePath = (data: string): Path2D => new Path2D(data);

const ownFonts = new Map<string, Promise<void>>();

/**
 * Puts the fonts that belong to the programme on the shelf. A font that is gone is passed over.
 *
 * @returns whether any was not there yet
 */
export async function loadOwnFonts({ materials }: Programme): Promise<boolean> {
  const fonts = Object.values(materials).filter(({ kind }) => kind === 'font');
  const fresh = fonts.filter(({ hash }) => !ownFonts.has(hash));
  for (const { hash, family } of fresh)
    ownFonts.set(
      hash,
      bytesOf(materialUrl(hash))
        .then((bytes) => shelf.add(hash, bytes, family ?? 'Unnamed'))
        .catch(() => undefined),
    );
  await Promise.all(fonts.map(({ hash }) => ownFonts.get(hash)));
  return fresh.length > 0;
}

/** Passages for which the shelf has all that they need. */
const preparedPassages = new WeakSet<Passage>();

/**
 * Makes sure that a passage can be shaped.
 *
 * @returns whether a font came to the shelf
 */
export async function preparePassage(programme: Programme, passage: Passage): Promise<boolean> {
  const own = await loadOwnFonts(programme);
  if (!own && preparedPassages.has(passage)) return false;
  const { family, lines } = setIn(passage, programme.facts);
  const fresh = await shelf.prepare(family, lines);
  preparedPassages.add(passage);
  return fresh || own;
}

/**
 * Makes sure that the text of cues can be shaped, and that of every strand to come.
 *
 * @returns whether a font came to the shelf, so that what was measured before has to be measured again
 */
export async function prepareAll(
  programme: Programme,
  cues: readonly Cue[] = Object.values(programme.cues),
): Promise<boolean> {
  let fresh = await loadOwnFonts(programme);
  const byFamily = new Map<string, Line[]>();
  for (const strand of strandsInOrder(programme)) byFamily.set(strand.style.family, []);
  for (const cue of cues) {
    const passage = programme.passages[cue.passage ?? ''];
    if (passage) {
      fresh = (await preparePassage(programme, passage)) || fresh;
      continue;
    }
    const family = cue.style.family ?? programme.strands[cue.strand]?.style.family ?? '';
    const lines = byFamily.get(family) ?? [];
    lines.push(...cue.text);
    byFamily.set(family, lines);
  }
  for (const [family, lines] of byFamily) fresh = (await shelf.prepare(family, lines)) || fresh;
  return fresh;
}
