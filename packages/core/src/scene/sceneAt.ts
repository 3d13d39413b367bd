/** What is on screen at an instant, as a list of things to draw. */
import { cuesInOrder, strandsInOrder } from '../programme/order.ts';
import type { Cue, Id, Programme } from '../programme/programme.ts';
import { textOfSaid } from '../programme/saidAt.ts';
import { isBlank, plainText, respan, type Line } from '../text/lines.ts';
import { contains, firstEndingAfter } from '../time/range.ts';
import type { Ticks } from '../time/ticks.ts';
import { layOut, styleOf, type Box, type TextLayout } from './layout.ts';
import type { TextShaper } from './shaper.ts';

interface Item {
  readonly box: Box;
  /** From 0, unseen, to 1. */
  readonly opacity: number;
}

export type DrawingItem =
  | (Item & { readonly kind: 'backdrop'; readonly colour: string })
  | (Item & { readonly kind: 'picture'; readonly material: Id; readonly at: Ticks })
  | (Item & {
      readonly kind: 'text';
      readonly text: string;
      readonly cue: Id;
      readonly layout: TextLayout;
    });

/** Drawn in order, the first one at the back. Lengths are in pixels of the programme's frame. */
export interface DrawingList {
  readonly width: number;
  readonly height: number;
  readonly items: readonly DrawingItem[];
}

/**
 * The drawing list of `programme` at `time`. A cue is seen from its start up to, but not at, its end.
 *
 * @param time   from the start of the programme, in ticks
 * @param light  the colour of the word that is being said; as the others where nothing is said
 */
export function sceneAt(
  programme: Programme,
  time: Ticks,
  shaper: TextShaper,
  light?: string,
): DrawingList {
  const { frame, backdrop, picture } = programme.facts;
  const whole = { x: 0, y: 0, w: frame.width, h: frame.height };
  const items: DrawingItem[] = [
    { kind: 'backdrop', colour: backdrop.colour, box: whole, opacity: 1 },
  ];
  const film = picture === null ? undefined : programme.materials[picture];
  if (film?.picture && time < film.length)
    items.push({
      kind: 'picture',
      material: film.id,
      at: time,
      box: fit(film.picture, frame),
      opacity: 1,
    });
  for (const strand of strandsInOrder(programme)) {
    const row = cuesInOrder(programme, strand.id);
    for (let at = firstEndingAfter(row, time); at < row.length; at++) {
      const cue = row[at];
      if (!cue || !contains(cue, time)) break;
      if (isBlank(cue.text)) continue;
      const text = light === undefined ? cue.text : lit(cue, time, light);
      const layout = layOut(text, styleOf(programme, cue), frame, shaper);
      items.push({
        kind: 'text',
        text: plainText(cue.text),
        cue: cue.id,
        box: layout.box,
        opacity: 1,
        layout,
      });
    }
  }
  return { width: frame.width, height: frame.height, items };
}

/** The text of a cue with the word in another colour that is being said. */
function lit(cue: Cue, time: Ticks, colour: string): readonly Line[] {
  const word = cue.words.find((each) => contains(each, time));
  const place = word && textOfSaid({ cue, word }, time);
  return place ? respan(cue.text, place.from, place.to, (span) => ({ ...span, colour })) : cue.text;
}

/** The largest box of the picture's shape inside the frame, centred. */
function fit(
  picture: { width: number; height: number },
  frame: { width: number; height: number },
): Box {
  const scale = Math.min(frame.width / picture.width, frame.height / picture.height);
  const [w, h] = [Math.round(picture.width * scale), Math.round(picture.height * scale)];
  return { x: Math.round((frame.width - w) / 2), y: Math.round((frame.height - h) / 2), w, h };
}
