/** Writing TTML as an IMSC 1.1 Text Profile document (W3C, "TTML Profiles for Internet Media Subtitles and Captions 1.1"). */
import { isBlank, isRightToLeft, plainText, type Span } from '../../text/lines.ts';
import { subtract } from '../../time/ticks.ts';
import { Losses, type Caption, type CaptionPlace, type Written } from '../captions.ts';
import { writeClock } from '../clock.ts';
import { writePercent } from '../percent.ts';
import { aroundWords } from '../markup.ts';
import { escapeXml, fitsXml } from '../xml.ts';

/** Where text stands when nothing is said. */
const USUAL: CaptionPlace = { across: 'centre', down: 'bottom' };
const aligns = { left: 'start', centre: 'center', right: 'end' } as const;
const displays = { top: 'before', middle: 'center', bottom: 'after' } as const;

/** A stretch of a side of the frame, in shares of it: where it begins, and how long it is. */
type Side = readonly [from: number, long: number];
const SAFE: Side = [0.1, 0.8];

/** The stretch within which text is set by its beginning, its middle or its end, which is at a place. */
function sideAt(by: 'begin' | 'middle' | 'end', at: number, wide?: number): Side {
  const most = { begin: 1 - at, middle: 2 * Math.min(at, 1 - at), end: at }[by];
  const long = wide ?? Math.max(0, most);
  return [{ begin: at, middle: at - long / 2, end: at - long }[by], long];
}

const by = {
  ...({ left: 'begin', centre: 'middle', right: 'end' } as const),
  ...({ top: 'begin', middle: 'middle', bottom: 'end' } as const),
};

/** The region in which text stands, as its attributes. */
function regionOf({ across, down, at, width }: CaptionPlace): string {
  const [x, wide] = at
    ? sideAt(by[across], at.x, width)
    : width === undefined
      ? SAFE
      : sideAt(by[across], { left: 0.1, centre: 0.5, right: 0.9 }[across], width);
  const [y, high] = at ? sideAt(by[down], at.y) : SAFE;
  const pair = (one: number, other: number) => `"${writePercent(one)} ${writePercent(other)}"`;
  return `tts:origin=${pair(x, y)} tts:extent=${pair(wide, high)} tts:displayAlign="${displays[down]}" tts:textAlign="${aligns[across]}"`;
}

/** A name for each region of a file: by where its text stands, and numbered where there are several such. */
function namedRegions(places: readonly CaptionPlace[]): ReadonlyMap<string, string> {
  const names = new Map<string, string>();
  const used = new Map<string, number>();
  for (const place of places) {
    const region = regionOf(place);
    if (names.has(region)) continue;
    const name = `${place.down}-${place.across}`;
    const count = (used.get(name) ?? 0) + 1;
    used.set(name, count);
    names.set(region, count > 1 ? `${name}-${count}` : name);
  }
  return names;
}

/**
 * Writes captions as TTML, to the thousandth of a second. Manners, colours, speakers, places, ids and the
 * times of words are held. White, which is what text is when nothing is said, cues without text, ids and
 * letters that XML cannot have, and styles beside the times of words cannot be held and are counted.
 */
export function writeTtml(captions: readonly Caption[]): Written {
  const losses = new Losses();
  const named = namedRegions(captions.map(({ place = USUAL }) => place));
  const speakers = [
    ...new Set(captions.flatMap(({ text }) => text.flat().flatMap(({ speaker }) => speaker ?? []))),
  ];
  const agentOf = (name: string) => `speaker-${speakers.indexOf(name) + 1}`;
  const used = new Set<string>();
  const written = captions.filter(({ text }) => !isBlank(text));
  losses.count('empty cue', captions.length - written.length);
  const paragraphs = written.map((caption) => {
    const { start, end, place = USUAL, id, size } = caption;
    losses.countTurn(caption);
    // An id is a name of XML, and there is one of each.
    const name =
      id !== undefined && /^[A-Za-z_][\w.-]*$/.test(id) && !used.has(id) ? id : undefined;
    if (name !== undefined) used.add(name);
    losses.count('id', Number(id !== undefined && name === undefined));
    const attributes = [
      ...(name === undefined ? [] : [`xml:id="${name}"`]),
      `region="${named.get(regionOf(place)) ?? ''}"`,
      `begin="${writeClock(start, '.')}"`,
      `end="${writeClock(end, '.')}"`,
      // In hundredths of the height of the frame.
      ...(size === undefined ? [] : [`tts:fontSize="${Number((size * 100).toFixed(4))}rh"`]),
      // Text runs from left to right where nothing is said.
      ...(isRightToLeft(plainText(caption.text)) ? ['tts:direction="rtl"'] : []),
    ];
    const spans = caption.text.map((line) => line.map((span) => writeSpan(span, agentOf)).join(''));
    const styled = caption.text
      .flat()
      .some(({ text: _, ...spanStyle }) => Object.keys(spanStyle).length > 0);
    const white = caption.text.flat().some(({ colour }) => colour === '#ffffff');
    losses.count('colour', Number(white));
    losses.count('letter', Number(!fitsXml(plainText(caption.text))));
    const words = caption.words ?? [];
    losses.count('style beside word times', Number(words.length > 0 && styled));
    const body = words.length > 0 ? stamped(caption) : spans.join('<br/>');
    return `      <p ${attributes.join(' ')}>${body}</p>`;
  });
  const regions = [...named].map(([region, name]) => `      <region xml:id="${name}" ${region}/>`);
  const agents = speakers.map(
    (name) =>
      `      <ttm:agent xml:id="${agentOf(name)}" type="person"><ttm:name type="full">${escapeXml(name)}</ttm:name></ttm:agent>`,
  );
  const text = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<tt xmlns="http://www.w3.org/ns/ttml" xmlns:ttp="http://www.w3.org/ns/ttml#parameter" xmlns:tts="http://www.w3.org/ns/ttml#styling" xmlns:ttm="http://www.w3.org/ns/ttml#metadata" ttp:contentProfiles="http://www.w3.org/ns/ttml/profile/imsc1.1/text" ttp:timeBase="media" xml:lang="" xml:space="preserve">',
    '  <head>',
    ...(agents.length > 0 ? ['    <metadata>', ...agents, '    </metadata>'] : []),
    '    <layout>',
    ...regions,
    '    </layout>',
    '  </head>',
    '  <body>',
    '    <div>',
    ...paragraphs,
    '    </div>',
    '  </body>',
    '</tt>',
    '',
  ].join('\n');
  return { text, lost: losses.list() };
}

function writeSpan(span: Span, agentOf: (name: string) => string): string {
  const attributes = [
    ...(span.italic ? ['tts:fontStyle="italic"'] : []),
    ...(span.bold ? ['tts:fontWeight="bold"'] : []),
    ...(span.underline ? ['tts:textDecoration="underline"'] : []),
    ...(span.colour ? [`tts:color="${span.colour}"`] : []),
    ...(span.speaker ? [`ttm:agent="${agentOf(span.speaker)}"`] : []),
  ];
  const base = escapeXml(span.text);
  const text = span.ruby
    ? `<span tts:ruby="container"><span tts:ruby="base">${base}</span><span tts:ruby="text">${escapeXml(span.ruby)}</span></span>`
    : base;
  return attributes.length > 0 ? `<span ${attributes.join(' ')}>${text}</span>` : text;
}

/** The text with each timed word in a span that begins with it, counted from the start of the cue. */
function stamped(caption: Caption): string {
  const written = (text: string) => escapeXml(text).replace(/\n/g, '<br/>');
  return aroundWords(caption, written, (text, { start }) => {
    const since = writeClock(subtract(start, caption.start), '.');
    return `<span begin="${since}">${written(text)}</span>`;
  });
}
