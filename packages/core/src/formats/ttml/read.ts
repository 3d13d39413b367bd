/**
 * Reading TTML 2, and with it IMSC 1.1 text and EBU-TT-D (EBU Tech 3380): timing in nested containers, styles
 * by reference, inheritance and region, agents as speakers.
 */
import { isBlank, isRightToLeft, plainText, type Line, type SpanStyle } from '../../text/lines.ts';
import { add, earlier, later, ZERO, type Ticks } from '../../time/ticks.ts';
import {
  endBeforeStart,
  endWithout,
  Unreadable,
  withEnds,
  type Caption,
  type CaptionPlace,
  type Captions,
  type OnProgress,
  type CaptionWord,
  type Warning,
} from '../captions.ts';
import { readColour, SpanWriter } from '../markup.ts';
import { allOf, attributeOf, elementsOf, readXml, textIn, type XmlElement } from '../xml.ts';
import { readTime, timeBaseOf, type TimeBase } from './time.ts';
import { readPercent } from '../percent.ts';
import { collapseSpaces, singleSpaced, trimSpaces } from '../../text/spaces.ts';

/** After everything: what has no end of its own and stands in nothing that has one. */
const NEVER = Number.MAX_SAFE_INTEGER as Ticks;

type Look = Readonly<Record<string, string>>;

interface Document {
  readonly base: TimeBase;
  readonly styles: ReadonlyMap<string, Look>;
  readonly regions: ReadonlyMap<string, Look>;
  readonly agents: ReadonlyMap<string, string>;
  readonly warnings: Warning[];
}

/** What an element stands in. */
interface Around {
  readonly begin: Ticks;
  readonly end: Ticks;
  readonly look: Look;
  readonly region: string | undefined;
  readonly speaker: string | undefined;
  readonly keepsSpace: boolean;
}

/** A stretch of text, when it is shown and how. */
interface Part {
  readonly text: string;
  readonly begin: Ticks;
  readonly end: Ticks;
  readonly spanStyle: SpanStyle;
  /** Whether a span of its own says when it begins. */
  readonly timed: boolean;
}

/**
 * Reads the text of a TTML file.
 *
 * @param frameRate  frames a second of times in frames, where the file names no rate
 * @throws Unreadable where it is no TTML, or holds no text with times
 */
export function readTtml(source: string, frameRate?: number, onProgress?: OnProgress): Captions {
  const { root, warnings } = readXml(source, onProgress);
  if (root.name !== 'tt')
    throw new Unreadable('This XML is not TTML: its first element is not tt.');
  const document: Document = {
    base: timeBaseOf(root, frameRate),
    styles: stylesIn(root),
    regions: regionsIn(root),
    agents: agentsIn(root),
    warnings,
  };
  const captions: Caption[] = [];
  const around: Around = {
    begin: ZERO,
    end: NEVER,
    look: {},
    region: undefined,
    speaker: undefined,
    keepsSpace: attributeOf(root, 'space') === 'preserve',
  };
  for (const body of elementsOf(root, 'body')) walk(body, around, ZERO, document, captions);
  if (captions.length === 0)
    throw new Unreadable('No text with times was found in this TTML file.');
  const title = allOf(root, 'title')[0];
  const language = attributeOf(root, 'lang');
  const metadata = {
    ...(title && { title: textIn(title).trim() }),
    ...(language && { language }),
  };
  return {
    captions: withEnds(captions).sort((a, b) => a.start - b.start),
    warnings,
    ...(Object.keys(metadata).length > 0 && { metadata }),
  };
}

const idOf = (element: XmlElement): string => attributeOf(element, 'id') ?? '';
const references = (text: string | undefined): string[] =>
  (text ?? '').split(/\s+/).filter((each) => each !== '');

/** The attributes of an element, those of the namespace of styles among them. */
const looksOn = (element: XmlElement): Look =>
  Object.fromEntries(element.attributes.map(({ name, value }) => [name, value.trim()]));

/** Styles by id, each with what it refers to laid under it. */
function stylesIn(root: XmlElement): Map<string, Look> {
  const elements = new Map(
    allOf(root, 'styling')
      .flatMap((styling) => elementsOf(styling, 'style'))
      .map((style) => [idOf(style), style]),
  );
  const done = new Map<string, Look>();
  const resolve = (id: string, below: readonly string[]): Look => {
    const known = done.get(id);
    const element = elements.get(id);
    if (known || !element || below.includes(id)) return known ?? {};
    const under = references(attributeOf(element, 'style')).map((each) =>
      resolve(each, [...below, id]),
    );
    const look = Object.assign({}, ...under, looksOn(element)) as Look;
    done.set(id, look);
    return look;
  };
  for (const id of elements.keys()) resolve(id, []);
  return done;
}

function regionsIn(root: XmlElement): Map<string, Look> {
  const styles = stylesIn(root);
  const layouts = allOf(root, 'layout').flatMap((layout) => elementsOf(layout, 'region'));
  return new Map(
    layouts.map((region) => [
      idOf(region),
      Object.assign(
        {},
        ...references(attributeOf(region, 'style')).map((id) => styles.get(id) ?? {}),
        ...elementsOf(region, 'style').map(looksOn),
        looksOn(region),
      ) as Look,
    ]),
  );
}

/** The names of those who speak, by id. */
const agentsIn = (root: XmlElement): Map<string, string> =>
  new Map(
    allOf(root, 'agent').map((agent) => {
      const name = allOf(agent, 'name')[0];
      return [idOf(agent), name ? textIn(name).trim() : idOf(agent)];
    }),
  );

/** What is said on an element, laid over what it stands in; `from` is where its own times count from. */
function within(
  element: XmlElement,
  around: Around,
  from: Ticks,
  { base, styles, agents, warnings }: Document,
): Around {
  const time = (name: string): Ticks | undefined => {
    const value = attributeOf(element, name);
    if (value === undefined) return undefined;
    const read = readTime(value, base);
    if (read === undefined)
      warnings.push({
        kind: 'time',
        line: element.line,
        message: `The time "${value.slice(0, 40)}" cannot be read. It was ignored.`,
      });
    return read;
  };
  const [begin, end, length] = [time('begin'), time('end'), time('dur')];
  const starts = add(from, begin ?? ZERO);
  const ends = [
    around.end,
    ...(end === undefined ? [] : [add(from, end)]),
    ...(length === undefined ? [] : [add(starts, length)]),
  ].reduce(earlier);
  const referred = references(attributeOf(element, 'style')).map((id) => styles.get(id) ?? {});
  const space = attributeOf(element, 'space');
  const agent = references(attributeOf(element, 'agent'))[0];
  return {
    begin: starts,
    end: ends,
    look: Object.assign({}, around.look, ...referred, looksOn(element)) as Look,
    region: attributeOf(element, 'region') ?? around.region,
    speaker: agent === undefined ? around.speaker : (agents.get(agent) ?? agent),
    keepsSpace: space === undefined ? around.keepsSpace : space === 'preserve',
  };
}

/** Walks a container, in parallel or one part after the other. Returns when it ends. */
function walk(
  element: XmlElement,
  around: Around,
  from: Ticks,
  document: Document,
  captions: Caption[],
): Ticks {
  const here = within(element, around, from, document);
  if (element.name === 'p') {
    takeParagraph(element, here, document, captions);
    return here.end;
  }
  const inTurn = attributeOf(element, 'timeContainer') === 'seq';
  let next = here.begin;
  let last = here.begin;
  for (const child of elementsOf(element)) {
    if (!['body', 'div', 'p'].includes(child.name)) continue;
    const end = walk(child, here, inTurn ? next : here.begin, document, captions);
    if (inTurn) next = end;
    last = later(last, end);
  }
  return here.end < NEVER ? here.end : last;
}

/** Colours of TTML: names, `#rrggbb`, `#rrggbbaa` and `rgb()`, as `#rrggbb`. */
function colourOf(text: string): string | undefined {
  const numbers = /^rgba?\((\d{1,3}),\s*(\d{1,3}),\s*(\d{1,3})/.exec(text);
  const hex = (value: string | undefined) =>
    Math.min(255, Number(value)).toString(16).padStart(2, '0');
  if (numbers) return `#${hex(numbers[1])}${hex(numbers[2])}${hex(numbers[3])}`;
  return readColour(/^#[0-9a-f]{8}$/i.test(text) ? text.slice(0, 7) : text);
}

function mannerOf({ look, speaker }: Around): SpanStyle {
  const colour = look.color === undefined ? undefined : colourOf(look.color);
  // White is what text is when nothing is said.
  return {
    ...(/italic|oblique/.test(look.fontStyle ?? '') && { italic: true }),
    ...(look.fontWeight === 'bold' && { bold: true }),
    ...(/(?:^|\s)underline/.test(look.textDecoration ?? '') && { underline: true }),
    ...(colour !== undefined && colour !== '#ffffff' && { colour }),
    ...(speaker !== undefined && { speaker }),
  };
}

function partsOf(element: XmlElement, here: Around, document: Document, timed: boolean): Part[] {
  const { begin, end } = here;
  const spanStyle = mannerOf(here);
  return element.children.flatMap((child): Part[] => {
    if (typeof child === 'string') {
      const text = here.keepsSpace ? child : collapseSpaces(child);
      return [{ text, begin, end, spanStyle, timed }];
    }
    if (child.name === 'br') return [{ text: '\n', begin, end, spanStyle, timed }];
    if (child.name !== 'span') return [];
    if (attributeOf(child, 'ruby') === 'container') return rubyOf(child, here, document, timed);
    const own = within(child, here, here.begin, document);
    const says = timed || ['begin', 'end', 'dur'].some((name) => attributeOf(child, name));
    return partsOf(child, own, document, says);
  });
}

/** Texts that have small ones over them, each with its own; all with all where they do not go in pairs. */
function rubyOf(container: XmlElement, here: Around, document: Document, timed: boolean): Part[] {
  const own = within(container, here, here.begin, document);
  const ofKind = (element: XmlElement, kind: string): XmlElement[] =>
    elementsOf(element).flatMap((child) =>
      attributeOf(child, 'ruby') === kind ? [child] : ofKind(child, kind),
    );
  const bases = ofKind(container, 'base');
  const small = ofKind(container, 'text').map((element) => trimSpaces(textOf(element)));
  return bases.flatMap((base, at) => {
    const ruby = bases.length === small.length ? (small[at] ?? '') : small.join('');
    const parts = partsOf(base, within(base, own, own.begin, document), document, timed);
    return ruby === ''
      ? parts
      : parts.map((part) => ({ ...part, spanStyle: { ...part.spanStyle, ruby } }));
  });
}

const textOf = ({ children }: XmlElement): string =>
  children.map((child) => (typeof child === 'string' ? child : textOf(child))).join('');

/** Lines that run from right to left, as Unicode says it: a mark before those that begin otherwise. */
const runningLeft = (lines: readonly Line[]): Line[] =>
  lines.map((line) => {
    const [first] = line;
    if (!first || isRightToLeft(plainText([line]))) return line;
    return [{ ...first, text: `\u200f${first.text}` }, ...line.slice(1)];
  });

function captionPlace(here: Around, { regions }: Document): CaptionPlace | undefined {
  const region = regions.get(here.region ?? '') ?? {};
  const look: Look = { ...region, ...here.look };
  const rightToLeft = look.direction === 'rtl';
  const sides: Readonly<Record<string, CaptionPlace['across']>> = {
    left: 'left',
    right: 'right',
    start: rightToLeft ? 'right' : 'left',
    end: rightToLeft ? 'left' : 'right',
  };
  const across = sides[look.textAlign ?? ''] ?? 'centre';
  const pair = (text: string | undefined) => (text ?? '').split(/\s+/).map(readPercent);
  const [[left, top], [width, height]] = [pair(region.origin), pair(region.extent)];
  const align = region.displayAlign ?? 'before';
  if (top === undefined || height === undefined)
    return across === 'centre' ? undefined : { across, down: 'bottom' };
  const level = levels[align] ?? 'bottom';
  const y = top + height * { top: 0, middle: 0.5, bottom: 1 }[level];
  const down: CaptionPlace['down'] = y < 0.34 ? 'top' : y < 0.67 ? 'middle' : 'bottom';
  const coarse = across === 'centre' && down === 'bottom' ? undefined : { across, down };
  if (left === undefined || width === undefined) return coarse;
  const x = left + width * { left: 0, centre: 0.5, right: 1 }[across];
  const isWithin = (share: number) => share > 0.001 && share < 0.999;
  // What is set by the edge of the frame, or within the usual margins, stands where the strand has its text.
  if (!isWithin(x) || !isWithin(y) || isUsual({ left, top, width, height })) return coarse;
  return { across, down: level, at: { x: near(x), y: near(y) } };
}

const levels: Readonly<Record<string, CaptionPlace['down']>> = {
  before: 'top',
  center: 'middle',
  after: 'bottom',
};

/** Without what adding percentages leaves behind the point. */
const near = (share: number): number => Number(share.toFixed(6));

/** The region that is a tenth of the frame within it on all sides. */
const isUsual = (box: Readonly<Record<'left' | 'top' | 'width' | 'height', number>>): boolean =>
  [box.left - 0.1, box.top - 0.1, box.width - 0.8, box.height - 0.8].every(
    (off) => Math.abs(off) < 0.001,
  );

const linesOfParts = (parts: readonly Part[]): Line[] => {
  const writer = new SpanWriter();
  for (const { text, spanStyle } of parts) {
    writer.open('part', spanStyle);
    writer.text(text);
    writer.close('part');
  }
  return writer.lines();
};

/** Lines without the spaces that stand only between tags. */
function trimmed(lines: readonly Line[], keepsSpace: boolean): Line[] {
  if (keepsSpace) return [...lines];
  return lines.map((line) => {
    const spans = [...line];
    const [first] = spans;
    if (first) spans[0] = { ...first, text: first.text.replace(/^ +/, '') };
    const last = spans.at(-1);
    if (last) spans[spans.length - 1] = { ...last, text: last.text.replace(/ +$/, '') };
    return spans.filter(({ text }) => text !== '');
  });
}

function takeParagraph(
  element: XmlElement,
  here: Around,
  document: Document,
  captions: Caption[],
): void {
  const parts = partsOf(element, here, document, false);
  const all = trimmed(linesOfParts(parts), here.keepsSpace);
  if (isBlank(all)) return;
  const timed = parts.filter((part) => part.timed && trimSpaces(part.text) !== '');
  const untimed = parts.some((part) => !part.timed && trimSpaces(part.text) !== '');
  const without = !['begin', 'end', 'dur'].some((name) => attributeOf(element, name));
  if (timed.length === 0 && without && here.begin === ZERO && here.end === NEVER) {
    document.warnings.push({
      kind: 'text without time',
      line: element.line,
      message: 'This text has no time. It was put at the start.',
      cues: [captions.length],
    });
  }
  const id = idOf(element);
  const place = captionPlace(here, document);
  const high = /^(\d+(?:\.\d+)?)rh$/.exec(attributeOf(element, 'fontSize') ?? '')?.[1];
  const more = {
    ...(id !== '' && { id }),
    ...(place && { place }),
    ...(high !== undefined && { size: Number(high) / 100 }),
  };
  const { direction = document.regions.get(here.region ?? '')?.direction } = here.look;
  const put = (begin: Ticks, until: Ticks, said: Line[], words?: CaptionWord[]) => {
    const text = direction === 'rtl' ? runningLeft(said) : said;
    const given = until === NEVER ? endWithout(begin, undefined) : until;
    if (until === NEVER)
      document.warnings.push({
        kind: 'no end',
        line: element.line,
        message: 'This text has no end. It is shown for 3 seconds.',
        cues: [captions.length],
      });
    if (given < begin) document.warnings.push(endBeforeStart(element.line, captions.length));
    captions.push({ start: begin, end: given, text, ...more, ...(words && { words }) });
  };
  if (timed.length === 0) {
    put(here.begin, here.end, all);
    return;
  }
  // One after the other, each staying to the end: these are the times of words.
  const lasts = timed.every(({ end }) => end === here.end);
  const rising = timed.every(({ begin }, at) => begin >= (timed[at - 1]?.begin ?? ZERO));
  const first = without ? (timed[0]?.begin ?? here.begin) : here.begin;
  if (lasts && rising) {
    const words = timed.map(({ text, begin }, at) => ({
      text: singleSpaced(text),
      start: begin,
      end: timed[at + 1]?.begin ?? here.end,
    }));
    put(untimed ? here.begin : first, here.end, all, words);
    return;
  }
  // Each stretch of time has the text that is shown in it.
  const instants = [...new Set(parts.flatMap(({ begin, end }) => [begin, end]))].sort(
    (a, b) => a - b,
  );
  instants.slice(0, -1).forEach((begin, at) => {
    const shown = parts.filter((part) => part.begin <= begin && part.end > begin);
    const text = trimmed(linesOfParts(shown), here.keepsSpace);
    if (!isBlank(text)) put(begin, instants[at + 1] as Ticks, text);
  });
}
