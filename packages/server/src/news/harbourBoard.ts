/**
 * A stand-in for a news service: the notices of a harbour that does not exist, as RSS 2.0.
 *
 * The board turns: every ten minutes the oldest notice goes and another one comes.
 */
import { escapeXml } from '@cadence/core/formats/xml.ts';

/** What the harbour has to say, in turn. */
export const NOTICES: readonly string[] = [
  'High water at Skerrymoor 16:12, slack for eleven minutes',
  'The chain is to be lifted in March, if the river lets us',
  'Found under the jetty: one left boot, size nine, still dry',
  'The bar at the Anchor opens when the ferry is tied up, and not before',
  'Fog on the Orran until ten; the bell is rung every two minutes',
  'Two hundred and forty links counted, one hundred and sixty to find',
  'Dogs that can swim cross free of charge',
  'The Harbour Board has written again; the letter is pinned to the shed',
  'Wanted: grease, any colour, any amount',
  'The heron on post four is not to be fed',
  'Choir practice moved to the winch house, where it is warm',
  'Small craft keep north of the chain between two and three',
  'Lost: a brass oilcan, sentimental value, probably in the mud',
  'The gate at Brae End sticks; lift it and think of something pleasant',
];

/** How many notices are on the board, and how long each stays at the top, in milliseconds. */
const SHOWN = 9;
const TURN = 600_000;

/** The board as it hangs at a time, the newest notice first. @param now  in milliseconds since 1970 */
export function boardAt(now: number): { title: string; at: Date }[] {
  const turn = Math.floor(now / TURN);
  return Array.from({ length: SHOWN }, (_, back) => {
    const place = (((turn - back) % NOTICES.length) + NOTICES.length) % NOTICES.length;
    return { title: NOTICES[place] ?? '', at: new Date((turn - back) * TURN) };
  });
}

/** The board as a feed. */
export function harbourFeed(now: number): string {
  const items = boardAt(now).map(
    ({ title, at }) =>
      `    <item>\n      <title>${escapeXml(title)}</title>\n      <pubDate>${at.toUTCString()}</pubDate>\n    </item>`,
  );
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<rss version="2.0">',
    '  <channel>',
    '    <title>Harbour Board</title>',
    '    <description>Notices of Skerrymoor</description>',
    ...items,
    '  </channel>',
    '</rss>',
    '',
  ].join('\n');
}
