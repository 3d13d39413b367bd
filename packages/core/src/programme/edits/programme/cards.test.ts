import { newStrand } from '../../defaults.ts';
import { cuesInOrder, strandsInOrder } from '../../order.ts';
import { at25, countingIds, programmeWithCues } from '../../samples.ts';
import { plainText } from '../../../text/lines.ts';
import { rollLook } from '../../passage.ts';
import { cardsOf, linesThatFit, makeCards, type CardPlan } from './cards.ts';
import { done } from '../done.samples.ts';

const names = Array.from({ length: 23 }, (_, at) => `Abel Thrupp the ${at + 1}th`);
const plan: CardPlan = {
  lines: names,
  most: 10,
  from: at25(100),
  stays: { by: 'reading' },
  fade: 0,
};
const programme = programmeWithCues([['Slack water', 0, 50]]);
const sizes = (over: Partial<CardPlan> = {}) =>
  cardsOf(programme, { ...plan, ...over }).map(({ lines }) => lines.length);
const ends = (over: Partial<CardPlan>) =>
  cardsOf(programme, { ...plan, ...over }).map(({ end }) => end);

test('a list is shared out evenly, no card with more than it may have', () => {
  expect(sizes()).toEqual([8, 8, 7]);
  expect(sizes({ most: 23 })).toEqual([23]);
  expect(sizes({ lines: ['', ' '] })).toEqual([]);
});

test('cards stay as long as reading needs, follow each other, and begin where they are wanted', () => {
  const cards = cardsOf(programme, plan);
  expect(cards[0]?.start).toBe(at25(100));
  cards.forEach(({ start }, at) => at > 0 && expect(start).toBe(cards[at - 1]?.end));
  const { charactersASecond, shortestStay } = programme.facts.profile;
  const length = (at: number) => (cards[at]?.end ?? 0) - (cards[at]?.start ?? 0);
  const characters = cards[0]?.lines.map(({ text }) => text).join('\n').length ?? 0;
  expect(length(0)).toBe(at25(Math.ceil((characters / charactersASecond) * 25)));
  const [short] = cardsOf(programme, { ...plan, lines: ['Fin'] });
  expect((short?.end ?? 0) - (short?.start ?? 0)).toBeGreaterThanOrEqual(shortestStay);
});

test('or share a time, to the frame, or stay from one instant to the next', () => {
  expect(ends({ stays: { by: 'shares', frames: 100 } })).toEqual([133, 167, 200].map(at25));
  const instants = [50, 150, 175].map(at25);
  const [first, second, third] = ends({ stays: { by: 'instants', instants } });
  expect([first, second]).toEqual([at25(150), at25(175)]);
  expect(third).toBeGreaterThan(at25(175));
});

test('they are on a strand of cards in one step, all of one size, or the first larger and the last smaller', () => {
  const dressed = { ...plan, most: 5, framed: true, fade: 6, behind: '#0d0e12' };
  const after = done(programme, makeCards(programme, dressed, countingIds()));
  const strand = strandsInOrder(after).find(({ kind }) => kind === 'card');
  const cues = cuesInOrder(after, strand?.id ?? '');
  expect(plainText(cues[0]?.text ?? []).split('\n')).toEqual(names.slice(0, 5));
  const size = strand?.style.size ?? 0;
  expect(cues.map(({ style }) => style.size)).toEqual([
    Math.round(size * 1.25),
    ...Array<undefined>(3),
    Math.round(size * 0.85),
  ]);
  expect(cues[1]?.style).toEqual({ fade: 6, behind: '#0d0e12' });
  const alike = done(programme, makeCards(programme, { ...dressed, framed: false }, countingIds()));
  const all = Object.values(alike.cues).filter(({ strand: on }) => on !== 's');
  expect(all.map(({ style }) => style.size)).toEqual(Array<undefined>(5).fill(undefined));
  // Others at the same time are on another strand; after them there is room.
  const twice = done(after, makeCards(after, plan, countingIds('more')));
  expect(strandsInOrder(twice).filter(({ kind }) => kind === 'card')).toHaveLength(2);
  const later = { ...plan, from: at25(1400) };
  const third = done(after, makeCards(after, later, countingIds('late')));
  expect(strandsInOrder(third).filter(({ kind }) => kind === 'card')).toHaveLength(1);
  expect(makeCards(programme, { ...plan, lines: [] }, countingIds()).changes).toEqual([]);
});

test('the opening one is no larger than its lines fit, and no smaller than the others', () => {
  const { style } = newStrand('card', 'k', programme.facts.frame.height);
  const most = linesThatFit(programme.facts, style);
  for (const count of [most, most - 1, 2]) {
    const lines = Array.from({ length: 2 * count }, (_, at) => `Name ${at}`);
    const after = done(
      programme,
      makeCards(programme, { ...plan, lines, most: count, framed: true }, countingIds()),
    );
    const [strand] = strandsInOrder(after).filter(({ kind }) => kind === 'card');
    const size = cuesInOrder(after, strand?.id ?? '')[0]?.style.size ?? style.size;
    expect(size).toBeGreaterThanOrEqual(style.size);
    if (count === 2) expect(size).toBe(Math.round(style.size * 1.25));
    const { height } = programme.facts.frame;
    expect(count * size * style.lineSpacing).toBeLessThanOrEqual(height - 2 * style.margin);
  }
});

test('a line that is too wide is broken by sense and stays on one card; the opening size fits it too', () => {
  // Ten pixels a letter in the usual size, on lines of 400.
  const room = { longestLine: 400, measure: (text: string) => 10 * text.length };
  const lines = [
    'The bar at the Anchor opens when the ferry is tied up, and not before',
    'Found under the jetty: one left boot',
    'Fog on the Orran until ten; the bell is rung every two minutes',
  ];
  const cards = cardsOf(programme, { ...plan, lines, room, most: 4 });
  expect(cards.map((card) => card.lines.length)).toEqual([4, 2]);
  const texts = cards.flatMap((card) => card.lines.map(({ text }) => text));
  for (const text of texts) expect(text.length).toBeLessThanOrEqual(40);
  expect(texts.join(' ')).toBe(lines.join(' '));
  const after = done(
    programme,
    makeCards(programme, { ...plan, lines, room, most: 4, framed: true }, countingIds()),
  );
  const strand = strandsInOrder(after).find(({ kind }) => kind === 'card');
  const [first] = cuesInOrder(after, strand?.id ?? '');
  const widest = Math.max(...(cards[0]?.lines ?? []).map(({ text }) => 10 * text.length));
  const ratio = (first?.style.size ?? 0) / (strand?.style.size ?? 1);
  expect(ratio * widest).toBeLessThanOrEqual(400);
  expect(ratio).toBeGreaterThan(1);
});

test('as many lines fit as are high enough together', () => {
  const style = { ...programme.strands.s?.style, size: 50, lineSpacing: 1.2, margin: 60 };
  expect(linesThatFit(programme.facts, style as never)).toBe(16);
});

test('roles stand before their names in the colour of roles, and all names of a role on one card', () => {
  const lines = ['Deck\tAbel Thrupp', '\tBryony Sallow', 'Bell\tCass Ferrier', 'Winch\tUna Thrale'];
  const after = done(programme, makeCards(programme, { ...plan, lines, most: 2 }, countingIds()));
  const cues = Object.values(after.cues)
    .filter(({ strand }) => strand !== 's')
    .sort((a, b) => a.start - b.start);
  expect(cues.map(({ text }) => plainText(text))).toEqual([
    'Deck\u2003Abel Thrupp\nBryony Sallow',
    'Bell\u2003Cass Ferrier\nWinch\u2003Una Thrale',
  ]);
  const { roleColour } = rollLook(programme.facts.frame.height);
  expect(cues[0]?.text[0]).toEqual([
    { text: 'Deck', colour: roleColour },
    { text: '\u2003Abel Thrupp' },
  ]);
  // Broken, the role keeps its colour and the rest has none.
  const room = { longestLine: 100, measure: (text: string) => 10 * text.length };
  const [card] = cardsOf(programme, {
    ...plan,
    room,
    lines: ['The winch house: Abel', 'Bell: Una'],
    most: 9,
  });
  expect(card?.lines.map(({ text, role }) => text.slice(0, role))).toEqual([
    'The winch',
    'house',
    'Bell',
  ]);
});
