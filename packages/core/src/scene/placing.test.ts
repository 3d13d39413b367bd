import { subtitleStyle } from '../programme/defaults.ts';
import { linesOf, plainText } from '../text/lines.ts';
import { layOut, placeOfBox, turnOf } from './layout.ts';
import {
  brokenTo,
  drawnTo,
  guidesOf,
  movedBy,
  pointOn,
  seenBox,
  sizedTo,
  turnedTo,
  type TextInHand,
} from './placing.ts';
import { squareShaper } from './samples.ts';

const { shaper } = squareShaper();
const frame = { width: 1000, height: 500 };
/** Each letter is 10 pixels wide, and a line 25 high. */
const inHand = (text: string, part: object = {}): TextInHand => {
  const plain = { size: 20, margin: 50, lineSpacing: 1, outlineWidth: 0 };
  const style = { ...subtitleStyle(frame.height), ...plain, ...part };
  const lines = linesOf(text);
  return { text: lines, style, frame, layout: layOut(lines, style, frame, shaper), shaper };
};
const again = (hand: TextInHand, part: object) =>
  inHand(plainText(hand.text), { ...hand.style, ...part });

describe('a text in hand', () => {
  it('is moved by whole pixels of the side that it is set by, and stays there', () => {
    const hand = inHand('Slack water', { across: 'left', down: 'top' });
    const moved = again(hand, movedBy(hand, { x: 33.3, y: -12.6 }));
    expect(moved.layout.box).toEqual({ x: 83, y: 37, w: 110, h: 25 });
    const longer = inHand('Slack water again', moved.style);
    expect(longer.layout.box).toMatchObject({ x: 83, y: 37, w: 170 });
  });

  it.each([
    ['centre', 'bottom'],
    ['right', 'top'],
    ['left', 'middle'],
  ])('is sized by a corner, set %s and %s, and the opposite corner stays', (across, down) => {
    for (const turn of [0, 30, -110]) {
      const hand = inHand('Slack\nwater', { across, down, turn });
      for (const corner of [
        { x: 1, y: 1 },
        { x: 0, y: 0 },
        { x: 1, y: 0 },
      ]) {
        const opposite = { x: 1 - corner.x, y: 1 - corner.y };
        const [from, stays] = [pointOn(hand, corner), pointOn(hand, opposite)];
        const to = { x: stays.x + 2 * (from.x - stays.x), y: stays.y + 2 * (from.y - stays.y) };
        const sized = again(hand, sizedTo(hand, corner, to));
        expect(sized.layout.style.size).toBe(40);
        const after = pointOn(sized, opposite);
        // Boxes stand on whole pixels.
        expect(Math.hypot(after.x - stays.x, after.y - stays.y)).toBeLessThan(1);
      }
    }
  });

  it('is no longer fitted to a width once it is sized', () => {
    const hand = inHand('Slack water', { fitWidth: 0.05 });
    expect(hand.layout.box.w).toBeCloseTo(50);
    const far = { x: hand.layout.box.x + 200, y: hand.layout.box.y + hand.layout.box.h };
    const sized = again(hand, sizedTo(hand, { x: 1, y: 1 }, far));
    expect(sized.layout.box.w).toBeGreaterThan(150);
  });

  it('is broken at a width by its side, between words, and whole again where there is room', () => {
    const hand = inHand('The tide turns at the sluice', { across: 'left', down: 'top' });
    const { box } = hand.layout;
    const broken = again(hand, brokenTo(hand, 1, { x: box.x + 150, y: box.y }));
    expect(broken.layout.set.map(({ from, line }) => [from, line[0]?.text])).toEqual([
      [0, 'The tide turns'],
      [15, 'at the sluice'],
    ]);
    expect(broken.layout.box).toMatchObject({ x: box.x, y: box.y, h: 45 });
    const back = brokenTo(broken, 1, { x: box.x + 400, y: box.y });
    expect(back.breakAt).toBeNull();
    const left = again(hand, brokenTo(hand, 0, { x: box.x + 100, y: box.y }));
    expect(left.layout.box.x + left.layout.box.w).toBe(box.x + box.w);
  });

  it('keeps a word whole that is wider than the width', () => {
    const hand = inHand('Skerrymoor ferry', { breakAt: 0.03 });
    expect(hand.layout.set.map(({ line }) => line[0]?.text)).toEqual(['Skerrymoor', 'ferry']);
  });

  it('is turned to where the hand is, in steps of 15 degrees where it comes near one', () => {
    const hand = inHand('Slack');
    const middle = pointOn(hand, { x: 0.5, y: 0.5 });
    const to = (degrees: number) => {
      const turn = (degrees * Math.PI) / 180;
      return { x: middle.x + 90 * Math.sin(turn), y: middle.y - 90 * Math.cos(turn) };
    };
    expect(turnedTo(hand, to(28))).toEqual({ turn: 30 });
    expect(turnedTo(hand, to(28), true)).toEqual({ turn: 28 });
    expect(turnedTo(hand, to(-52))).toEqual({ turn: -52 });
    expect(turnedTo(hand, to(180))).toEqual({ turn: 180 });
    expect(turnOf(hand.layout.box, { ...hand.style, turn: 0 })).toBeUndefined();
  });

  it('that is turned runs out of the frame as it is seen', () => {
    const wide = inHand('A line that is as long as it is', { down: 'top', margin: 10 });
    expect(wide.layout.outOfFrame).toBe(0);
    const upright = inHand('A line that is as long as it is', { ...wide.style, turn: 90 });
    expect(upright.layout.outOfFrame).toBe(Math.round(155 - 10 - 12.5));
    expect(seenBox(upright.layout).h).toBeCloseTo(310);
  });
});

describe('guides', () => {
  it('are the middle, the thirds, the safe areas and other texts', () => {
    const other = { x: 200, y: 40, w: 100, h: 30 };
    const { across, down } = guidesOf({ width: 1200, height: 600 }, [0.05], [other]);
    expect(across).toEqual([600, 400, 800, 60, 1140, 200, 250, 300]);
    expect(down).toEqual([300, 200, 400, 30, 570, 40, 55, 70]);
  });

  it('draw a box by the edge or middle that is nearest, within reach', () => {
    const lines = { across: [500], down: [100, 104] };
    const box = { x: 396, y: 101, w: 100, h: 40 };
    expect(drawnTo(box, lines, 5)).toEqual({
      by: { x: 4, y: -1 },
      across: 500,
      down: 100,
    });
    expect(drawnTo(box, lines, 0.5)).toMatchObject({ by: { x: 0, y: 0 }, across: undefined });
  });
});

it('says in shares of the frame where the side stands that a box is set by', () => {
  const box = { x: 100, y: 100, w: 200, h: 50 };
  const at = (across: 'left' | 'centre' | 'right', down: 'top' | 'middle' | 'bottom') =>
    Object.values(placeOfBox(box, { across, down }, frame));
  expect(at('left', 'top')).toEqual([0.1, 0.2]);
  expect(at('centre', 'middle')).toEqual([0.2, 0.25]);
  expect(at('right', 'bottom')).toEqual([0.3, 0.3]);
});
