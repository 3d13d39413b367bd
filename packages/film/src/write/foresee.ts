/** Finds, before anything is written, what would stop it or make it look otherwise than in the picture. */
import { setIn } from '@cadence/core/scene/travelFigures.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { styleOf } from '@cadence/core/programme/patterns.ts';
import { cuesInOrder, strandsShown } from '@cadence/core/programme/order.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import type { Stage } from '@cadence/paint/stage.ts';
import { CannotWrite, refuseWithout } from './easel.ts';
import { asDrawn, frameCount, instantOf, type FilmOrder, type Writing } from './order.ts';

/** At how many instants a film is tried. */
const TRIED = 40;

/** Some instants of what is drawn, the first and the last among them. */
function instantsOf({ kind, order }: Exclude<Writing, { kind: 'sound' }>): Ticks[] {
  if (kind === 'stills') return order.stills.slice(0, TRIED).map(({ at }) => at);
  const last = frameCount(order) - 1;
  const places = Array.from({ length: TRIED }, (_, at) => Math.round((last * at) / (TRIED - 1)));
  return [...new Set(places)].map((frame) => instantOf(order, frame));
}

/** The families in which text is set that is drawn. */
function familiesOf(programme: Programme): Set<string> {
  const families = new Set<string>();
  for (const { id } of strandsShown(programme))
    for (const cue of cuesInOrder(programme, id)) {
      const travels = programme.passages[cue.passage ?? ''];
      const set = travels ? setIn(travels, programme.facts) : styleOf(programme, cue);
      families.add(set.family);
    }
  return families;
}

const drawnOf = (programme: Programme, { kind, order }: Writing): Programme =>
  kind === 'film' ? asDrawn(programme, order as FilmOrder) : programme;

/**
 * Fetches fonts, and tries the pictures that will be drawn.
 *
 * @throws CannotWrite where a font or a picture cannot be had
 */
export async function foresee(whole: Programme, writing: Writing, stage: Stage): Promise<void> {
  if (writing.kind === 'sound') return;
  const programme = drawnOf(whole, writing);
  await stage.fonts(programme);
  for (const family of familiesOf(programme))
    if (!stage.shelf.knows(family))
      throw new CannotWrite(
        `The font “${family}” is not here, so the text would look otherwise. Bring its file in again, or choose another font.`,
      );
  const tried = new Set<string>();
  for (const at of instantsOf(writing)) {
    const list = sceneAt(programme, at, stage.shelf, writing.order.on);
    const items = list.items.filter(
      (item) => (item.kind === 'picture' || item.kind === 'image') && !tried.has(item.material),
    );
    for (const item of items) if ('material' in item) tried.add(item.material);
    refuseWithout(await stage.pictures({ ...list, items }, programme), stage);
  }
}
