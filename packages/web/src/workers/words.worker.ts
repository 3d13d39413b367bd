/** Reads files of words, and works out what they would change, away from the page. */
import { expose } from 'comlink';
import type { Caption } from '@cadence/core/formats/captions.ts';
import { FORMATS, type Format, type WrittenFile } from '@cadence/core/formats/formats.ts';
import type { FeedItem } from '@cadence/core/formats/feed/read.ts';
import { sheetFromFile, type SheetFile } from '@cadence/core/formats/sheet/fromFile.ts';
import { readFile, type FileKind, type ReadFile } from '@cadence/core/formats/readFile.ts';
import { scriptOf } from '@cadence/core/formats/sheet/blocks.ts';
import type { Lost, Target, Warning } from '@cadence/core/formats/captions.ts';
import { addCaptions, cuesFromCaptions, matchCaptions } from '@cadence/core/programme/captions.ts';
import type { Edit } from '@cadence/core/programme/change.ts';
import { cutToFit } from '@cadence/core/programme/edits/fitLines.ts';
import { addMarks } from '@cadence/core/programme/edits/marks.ts';
import { tooLarge } from '@cadence/core/programme/limits.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { retimed, type Retiming } from '@cadence/core/programme/retimed.ts';
import { cuesFromScript, rereadScript, type Reread } from '@cadence/core/programme/script.ts';
import { linesOf, plainText, type Line } from '@cadence/core/text/lines.ts';
import type { FrameRate } from '@cadence/core/time/frameRate.ts';
import type { Range } from '@cadence/core/time/range.ts';
import { fromSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';

/** What a file may be brought in as. */
export type Contents = 'cues' | 'script' | 'marks';

export interface Understood {
  readonly format: FileKind;
  readonly encoding?: string;
  /** All that it may be brought in as, the likeliest first. */
  readonly contents: readonly Contents[];
  /** How many there are of each. */
  readonly counts: Readonly<Partial<Record<Contents, number>>>;
  readonly warnings: readonly Warning[];
  readonly warningCount: number;
  readonly separator?: string;
  /** Cues whose words have times. */
  readonly timedWords: number;
}

export interface Choice {
  readonly contents: Contents;
  readonly place: 'replace' | 'add' | 'match' | 'speech' | 'spread' | 'again';
  readonly retiming: Retiming;
  /** Whether lines of a script that are too long for a cue become several. */
  readonly cut: boolean;
}

export interface Planned {
  /** The edit: its name, and its changes as JSON, some thousand a part. */
  readonly name: string;
  readonly parts: readonly string[];
  readonly count: number;
  /** From when to when; null where there are no times. */
  readonly range: Range | null;
  /** The first lines, as they would stand in the programme. */
  readonly sample: readonly { readonly at: Ticks | null; readonly text: string }[];
  readonly note: string;
  /** Line by line, where a script is read again. */
  readonly compared?: readonly Reread[];
}

const SHOWN = 10;
const TOLD = 100;
const MOST_COMPARED = 400;

/** Files that were read and wait for what the editor chooses, by the name of their window. */
const held = new Map<string, ReadFile>();
const newId = () => crypto.randomUUID();

const scriptIn = ({ sheet, items }: ReadFile): Line[][] =>
  sheet ? scriptOf(sheet.blocks) : (items ?? []).map(({ title }) => linesOf(title));

const textOf = (lines: readonly Line[]): string => plainText(lines).replace(/\n/g, ' / ');

interface Asked {
  readonly encoding?: string;
  readonly frameRate: FrameRate;
}

async function read(
  window: string,
  file: Blob,
  name: string,
  { encoding, frameRate }: Asked,
  onProgress: (share: number) => void,
): Promise<Understood> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const found = await readFile(bytes, name, {
    frameRate,
    onProgress,
    ...(encoding !== undefined && { encoding }),
  });
  held.set(window, found);
  const { captions, markers = [], warnings, sheet, format } = found;
  const all: Record<Contents, number> = {
    cues: captions.length,
    script: scriptIn(found).length,
    marks: markers.length,
  };
  return {
    format,
    ...(found.encoding !== undefined && { encoding: found.encoding }),
    contents: (Object.keys(all) as Contents[]).filter((each) => all[each] > 0),
    counts: all,
    warnings: warnings.slice(0, TOLD),
    warningCount: warnings.length,
    ...(sheet?.separator !== undefined && { separator: sheet.separator }),
    timedWords: captions.filter(({ words = [] }) => words.length > 0).length,
  };
}

/**
 * What a choice would make of the programme.
 *
 * @param stretches  of time that a script is shared out over
 */
function plan(
  window: string,
  programme: Programme,
  strand: Id,
  stretches: readonly Range[],
  { contents, place, retiming, cut }: Choice,
): Planned {
  const file = held.get(window);
  if (!file) throw new Error('The file has been put away. Bring it in again.');
  if (contents === 'marks') {
    const marks = (file.markers ?? []).map(({ start, text }) => ({
      at: fromSeconds(start),
      name: text,
      purpose: 'place' as const,
    }));
    return {
      ...planned(addMarks(programme, marks, newId)),
      count: marks.length,
      range: null,
      sample: marks.slice(0, SHOWN).map(({ at, name }) => ({ at, text: name })),
    };
  }
  if (contents === 'script') {
    const script = scriptIn(file);
    const lines = cut ? cutToFit(script, programme.facts.profile) : script;
    const again = place === 'again' ? rereadScript(programme, strand, lines, newId) : undefined;
    const edit = again?.edit ?? cuesFromScript(programme, strand, lines, stretches, newId);
    return {
      ...planned(edit),
      count: lines.length,
      range: null,
      sample: lines.slice(0, SHOWN).map((line) => ({ at: null, text: textOf(line) })),
      ...(again && { compared: again.compared.slice(0, MOST_COMPARED) }),
    };
  }
  const { captions, leftOut } = retimed(file.captions, retiming);
  const edit =
    place === 'add'
      ? addCaptions(programme, strand, captions, newId)
      : place === 'match'
        ? matchCaptions(programme, strand, captions)
        : cuesFromCaptions(programme, strand, captions, newId);
  const early = leftOut > 0 ? `${leftOut} would end before the programme begins.` : '';
  const made = planned(edit);
  return {
    ...made,
    note: [early, made.note].filter((part) => part !== '').join(' '),
    count: captions.length,
    range: {
      start: captions.reduce<Ticks>(
        (least, { start }) => (start < least ? start : least),
        captions[0]?.start ?? ZERO,
      ),
      end: captions.reduce<Ticks>((most, { end }) => (end > most ? end : most), ZERO),
    },
    sample: captions.slice(0, SHOWN).map(({ start, text }) => ({ at: start, text: textOf(text) })),
  };
}

/** So many changes are read by the page at once. */
const A_PART = 2000;

/** @throws where it is more than can be kept */
function planned(edit: Edit): Pick<Planned, 'name' | 'parts' | 'note'> {
  const problem = tooLarge(edit);
  if (problem !== undefined) throw new Error(problem);
  const { name, changes, note = '' } = edit;
  const parts: string[] = [];
  for (let at = 0; at < changes.length; at += A_PART)
    parts.push(JSON.stringify(changes.slice(at, at + A_PART)));
  return { name, parts, note };
}

/** What each format could not hold of captions. */
const losses = (captions: readonly Caption[], target: Target): Record<string, readonly Lost[]> =>
  Object.fromEntries(FORMATS.map(({ name, write }) => [name, write(captions, target).lost]));

/** A file of captions; and whether, read again, its words are those that were written. */
async function write(
  name: Format['name'],
  captions: readonly Caption[],
  target: Target,
): Promise<WrittenFile & { equal: boolean | null }> {
  const format = FORMATS.find((each) => each.name === name);
  if (!format) throw new Error(`Nothing is written as ${name}.`);
  const { content, lost } = format.write(captions, target);
  if (!format.read) return { content, lost, equal: null };
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  const back = await readFile(bytes, `read.${name}`, {
    as: name,
    frameRate: target.frameRate,
    ...(target.start !== undefined && { start: target.start }),
  });
  const words = (all: readonly Caption[]) => all.map(({ text }) => plainText(text)).join('\0');
  return { content, lost, equal: words(back.captions) === words(captions) };
}

const forget = (window: string): boolean => held.delete(window);

/** The text of a sheet in a file. */
const sheet = async (file: Blob, name: string): Promise<SheetFile> => {
  const found = await sheetFromFile(new Uint8Array(await file.arrayBuffer()), name);
  return { ...found, warnings: found.warnings.slice(0, TOLD) };
};

/** The items of a feed. */
const feed = async (file: Blob, name: string): Promise<readonly FeedItem[]> => {
  const found = await readFile(new Uint8Array(await file.arrayBuffer()), name);
  if (!found.items) throw new Error('It is no feed: RSS and Atom are.');
  return found.items;
};

const words = { read, plan, forget, losses, write, sheet, feed };
export type Words = typeof words;
expose(words);
