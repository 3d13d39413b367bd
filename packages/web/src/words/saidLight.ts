/** Lights the word that is said where it stands in a text of the page, without touching the text. */
import { saidAt, textOfSaid } from '@cadence/core/programme/woven/saidAt.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { currentStrand, store } from '../desk/store.ts';

/** By this name the style sheet knows it. */
const NAME = 'said-word';

/** A word that is said: in which cue, and where in its plain text. */
export interface Said {
  readonly cue: Id;
  readonly from: number;
  readonly to: number;
}

/** The word that is said at a time, if one is. */
export function saidNow(time: Ticks): Said | undefined {
  const programme = store.getState().open?.programme;
  const said = programme && saidAt(programme, currentStrand(programme), time);
  const place = said && textOfSaid(said, time);
  return place && { cue: said.cue.id, ...place };
}

/** Lights a range of the page, or none. */
export function light(range: Range | undefined): void {
  if (!('highlights' in CSS)) return;
  if (range) CSS.highlights.set(NAME, new Highlight(range));
  else CSS.highlights.delete(NAME);
}

/** The same for a stretch of the text of an element with one text in it. */
export function lightIn(element: Element | null | undefined, said: Said | undefined): void {
  const text = element?.firstChild;
  if (!said || !(text instanceof Text) || said.to > text.length) {
    light(undefined);
    return;
  }
  const range = document.createRange();
  range.setStart(text, said.from);
  range.setEnd(text, said.to);
  light(range);
}
