/** What is on screen at an instant, as a list of things to draw. */
import { flashesAt } from '../movement/flashes.ts';
import { fading, type Movement } from '../movement/movement.ts';
import { timeOfCue } from '../programme/cueTime.ts';
import { seenOf } from '../movement/unitState.ts';
import { cuesInOrder, strandsShown } from '../programme/order.ts';
import { movementOf, styleOf } from '../programme/patterns.ts';
import type { Passage } from '../programme/passage.ts';
import type { Backdrop, Cue, Id, Programme } from '../programme/programme.ts';
import { textOfSaid } from '../programme/woven/saidAt.ts';
import { isBlank, plainText, respan, type Line } from '../text/lines.ts';
import { countFrames, frameAt } from '../time/frameRate.ts';
import { contains, firstEndingAfter } from '../time/range.ts';
import type { Ticks } from '../time/ticks.ts';
import { crawlItems } from './crawlItems.ts';
import type { Box, DrawingItem, DrawingList } from './drawing.ts';
import { caretAt } from './caret.ts';
import { slipAt } from './slips.ts';
import { underlinesAt } from './underline.ts';
import { draftOf, partsAt } from './movingText.ts';
import { turnOf } from './layout.ts';
import { layOutCue } from './stacking.ts';
import { boxOfGroup, pushedBy } from './grouped.ts';
import { after, shiftedBy, STRAIGHT, type Transform } from '../movement/matrix.ts';
import { leaning, seenLeaning } from './lean.ts';
import { rollItems, topOfRoll } from './rollItems.ts';
import { platesOf } from './plates.ts';
import type { TextShaper } from './shaper.ts';
import { offsetOf, framesOf, laidRoll, wayOf } from './travelling.ts';

/** Text stands on the programme's own picture, on nothing at all, or on one colour, #rrggbb. */
export type Ground = string;
export const PICTURE = 'picture';
export const NOTHING = 'nothing';

/**
 * The drawing list of `programme` at `time`. A cue is seen from its start up to, but not at, its end.
 *
 * @param time  from the start of the programme, in ticks
 * @param on    what its text stands on
 */
export function sceneAt(
  programme: Programme,
  time: Ticks,
  shaper: TextShaper,
  on: Ground = PICTURE,
): DrawingList {
  const { frame } = programme.facts;
  const whole = { x: 0, y: 0, w: frame.width, h: frame.height };
  const items = groundAt(programme, time, on);
  const over: DrawingItem[] = [];
  for (const strand of strandsShown(programme)) {
    const row = cuesInOrder(programme, strand.id);
    for (let at = firstEndingAfter(row, time); at < row.length; at++) {
      const cue = row[at];
      if (!cue || cue.start > time) break;
      if (!contains(cue, time)) continue;
      const passage = cue.passage ? programme.passages[cue.passage] : undefined;
      if (passage) items.push(...travelling(programme, cue, passage, time, shaper));
      if (isBlank(cue.text)) continue;
      const style = styleOf(programme, cue);
      const text = style.saidColour ? lit(cue, time, style.saidColour) : cue.text;
      if (style.behind) items.push({ kind: 'plate', colour: style.behind, box: whole, opacity: 1 });
      const still = style.behindImage ? programme.materials[style.behindImage] : undefined;
      if (still?.picture) items.push(stillBehind(still.id, still.picture, frame));
      const layout = layOutCue(programme, row, at, shaper, text);
      const movement = movementOf(programme, cue, style.fade ?? 0);
      const since = framesSince(programme, cue, time);
      const parts = movement && partsAt(programme, cue, movement, layout, since, shaper);
      const flashes = movement ? flashing(programme, cue, movement, since, whole) : NO_FLASHES;
      items.push(...flashes.behind);
      const { box } = layout;
      const drawn: DrawingItem[] = [
        ...(parts?.plates ?? platesOf(cue, layout, shaper)),
        {
          ...{ kind: 'text', text: plainText(cue.text), cue: cue.id, box, opacity: 1, layout },
          ...(parts && { units: parts.units }),
        },
      ];
      if (movement) drawn.push(...underlinesAt(programme, cue, movement, layout, since, shaper));
      if (movement?.comesIn?.caret || movement?.comesIn?.slips) {
        const draft = draftOf(programme, cue, movement, layout, shaper);
        const slip = slipAt(cue, draft, layout, since, shaper);
        if (slip) drawn.push(slip.item);
        const caret = caretAt(movement, draft, layout, since, slip);
        if (caret) drawn.push(caret);
      }
      const group = cue.group?.id;
      const about = () => (group ? boxOfGroup(programme, row, group, shaper) : box);
      const turn = layout.style.turn ? turnOf(about(), layout.style) : undefined;
      const by = cue.group ? pushedBy(programme, row, cue, time, shaper) : 0;
      const moved = by === 0 ? turn : after(shiftedBy(0, by), turn ?? STRAIGHT);
      items.push(...(moved ? drawn.map((item) => turned(item, moved)) : drawn));
      over.push(...flashes.frame);
    }
  }
  return { width: frame.width, height: frame.height, items: [...items, ...over] };
}

/** An item that is turned or pushed with its text; the parts of one that moves, each after it has moved. */
function turned(item: DrawingItem, turn: Transform): DrawingItem {
  const afterwards = (transform: Transform | undefined) =>
    transform ? after(turn, transform) : turn;
  if (item.kind !== 'text' || !item.units)
    return { ...item, transform: afterwards(item.transform) };
  const units = item.units.map((unit) => ({ ...unit, transform: afterwards(unit.transform) }));
  return { ...item, units };
}

type Flashing = Readonly<Record<'behind' | 'frame', readonly DrawingItem[]>>;
const NO_FLASHES: Flashing = { behind: [], frame: [] };

/** The flashes of a cue at a frame of it: those behind its text, and those over all of the frame. */
function flashing(
  programme: Programme,
  cue: Cue,
  movement: Movement,
  frame: number,
  box: Box,
): Flashing {
  if (!movement.stays.some(({ what }) => what === 'flashes')) return NO_FLASHES;
  const all = flashesAt(movement, timeOfCue(programme, cue), frame);
  const items = (where: 'behind' | 'frame') =>
    all.flatMap(({ colour, opacity, over }): DrawingItem[] =>
      over === where ? [{ kind: 'plate', colour, box, opacity }] : [],
    );
  return { behind: items('behind'), frame: items('frame') };
}

/** What is behind all text. */
function groundAt({ facts, materials }: Programme, time: Ticks, on: Ground): DrawingItem[] {
  const { frame, backdrop, picture } = facts;
  if (on === NOTHING) return [];
  const box = { x: 0, y: 0, w: frame.width, h: frame.height };
  const plain = { kind: 'backdrop' as const, box, opacity: 1 };
  if (on !== PICTURE) return [{ ...plain, colour: on }];
  const items: DrawingItem[] = [{ ...plain, colour: backdrop.colour }];
  const behind = backdrop.image ? materials[backdrop.image] : undefined;
  if (behind?.picture) items.push(stillBehind(behind.id, behind.picture, frame, backdrop));
  const film = picture === null ? undefined : materials[picture];
  if (film?.picture && time < film.length)
    items.push({
      kind: 'picture',
      material: film.id,
      at: time,
      box: fit(film.picture, frame),
      opacity: 1,
    });
  return items;
}

const framesSince = ({ facts }: Programme, { start }: Cue, time: Ticks): number =>
  frameAt(time, facts.frameRate) - countFrames(start, facts.frameRate);

/** How visible a band is that fades in and out over a number of frames, from 0 to 1. */
function bandAt(programme: Programme, cue: Cue, time: Ticks, fade: number): number {
  if (fade <= 0) return 1;
  const frames = framesOf(cue, programme.facts);
  return seenOf(fading(fade), framesSince(programme, cue, time), frames);
}

/** What is in sight of a passage while its cue lasts. */
function travelling(
  programme: Programme,
  cue: Cue,
  passage: Passage,
  time: Ticks,
  shaper: TextShaper,
): DrawingItem[] {
  const { materials, facts } = programme;
  const { frame } = facts;
  const offset = offsetOf(programme, cue, passage, time, shaper);
  if (passage.kind === 'crawl') {
    const shown = bandAt(programme, cue, time, passage.look.bandFade ?? 0);
    return crawlItems(passage, cue.id, { offset, shown }, frame, shaper);
  }
  const laid = laidRoll(passage, frame);
  const { behind: colour, behindOpacity: opacity } = laid.look;
  const box = { x: 0, y: 0, w: frame.width, h: frame.height };
  const top = topOfRoll(laid, offset, frame);
  const way = wayOf(passage, frame, shaper);
  const lean = leaning(
    laid.look,
    framesSince(programme, cue, time),
    (offset - way.from) / way.distance,
    frame,
  );
  const seen = lean ? seenLeaning(lean, frame) : { from: 0, to: frame.height };
  const items = rollItems({ roll: passage, cue: cue.id, frame, materials, top, ...seen }, shaper);
  return [
    ...(opacity > 0 ? [{ kind: 'plate' as const, colour, box, opacity }] : []),
    ...(lean ? items.map((item) => ({ ...item, transform: lean })) : items),
  ];
}

/** The text of a cue with the word in another colour that is being said. */
function lit(cue: Cue, time: Ticks, colour: string): readonly Line[] {
  const word = cue.words.find((each) => contains(each, time));
  const place = word && textOfSaid({ cue, word }, time);
  return place ? respan(cue.text, place.from, place.to, (span) => ({ ...span, colour })) : cue.text;
}

/** A still picture behind the text: inside the frame, or over all of it. */
const stillBehind = (
  material: Id,
  picture: { width: number; height: number },
  frame: { width: number; height: number },
  how: Pick<Backdrop, 'fill' | 'across' | 'down'> = {},
): DrawingItem => ({ kind: 'image', material, box: placedBehind(picture, frame, how), opacity: 1 });

function placedBehind(
  picture: { width: number; height: number },
  frame: { width: number; height: number },
  { fill = true, across, down }: Pick<Backdrop, 'fill' | 'across' | 'down'>,
): Box {
  if (!(fill ?? true)) return fit(picture, frame);
  const scale = Math.max(frame.width / picture.width, frame.height / picture.height);
  const [w, h] = [Math.round(picture.width * scale), Math.round(picture.height * scale)];
  const [x, y] = [(frame.width - w) * (across ?? 0.5), (frame.height - h) * (down ?? 0.5)];
  return { x: Math.round(x), y: Math.round(y), w, h };
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
