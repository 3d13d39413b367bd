/** Reads files of words, and works out what they would change, away from the page. */
import { expose } from 'comlink';
import type { Caption } from '@cadence/core/formats/captions.ts';
import type { FeedItem } from '@cadence/core/formats/feed/read.ts';
import type { SheetFile } from '@cadence/core/formats/sheet/fromFile.ts';
import type { FormatName } from '@cadence/core/formats/names.ts';
import { WRITERS, type WrittenFile } from '@cadence/core/formats/writers.ts';
import type { FileKind, ReadFile } from '@cadence/core/formats/readFile.ts';
import type { Lost, Target, Warning } from '@cadence/core/formats/captions.ts';
import type { Choice, Contents, Plan, Travelling } from '@cadence/core/programme/bringing.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { tooLarge } from '@cadence/core/programme/record/limits.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import type { FrameRate } from '@cadence/core/time/frameRate.ts';
import type { Range } from '@cadence/core/time/range.ts';

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
  /** What travels that it can become. */
  readonly travelling: Travelling | null;
}

/** A plan as the page is given it: the edit's name, and its changes as JSON, some thousand a part. */
export interface Planned extends Omit<Plan, 'edit'> {
  readonly name: string;
  readonly parts: readonly string[];
  readonly note: string;
}

const TOLD = 100;
const MOST_COMPARED = 400;

/** What reads is loaded with the first file: writing, in Handover, does without. */
const reading = () => import('@cadence/core/formats/readFile.ts');
const formats = () => import('@cadence/core/formats/formats.ts');
const bringing = () => import('@cadence/core/programme/bringing.ts');

/** Files that were read and wait for what the editor chooses, by the name of their window. */
const held = new Map<string, ReadFile>();
const newId = () => crypto.randomUUID();

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
  const [{ readFile }, { contentsOf, countsIn, travellingIn }] = await Promise.all([
    reading(),
    bringing(),
  ]);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const found = await readFile(bytes, name, {
    frameRate,
    onProgress,
    ...(encoding !== undefined && { encoding }),
  });
  held.set(window, found);
  const { captions, warnings, sheet, format } = found;
  return {
    format,
    ...(found.encoding !== undefined && { encoding: found.encoding }),
    contents: contentsOf(found),
    counts: countsIn(found),
    warnings: warnings.slice(0, TOLD),
    warningCount: warnings.length,
    ...(sheet?.separator !== undefined && { separator: sheet.separator }),
    timedWords: captions.filter(({ words = [] }) => words.length > 0).length,
    travelling: travellingIn(found),
  };
}

/**
 * What a choice would make of the programme.
 *
 * @param stretches  of time that a script is shared out over
 * @throws where it is more than can be kept
 */
async function plan(
  window: string,
  programme: Programme,
  strand: Id,
  stretches: readonly Range[],
  choice: Choice,
): Promise<Planned> {
  const file = held.get(window);
  if (!file) throw new Error('The file is no longer open. Bring it in again.');
  const { planOf } = await bringing();
  const { edit, compared, ...rest } = planOf(programme, strand, file, choice, stretches, newId);
  return {
    ...rest,
    ...inParts(edit),
    ...(compared && { compared: compared.slice(0, MOST_COMPARED) }),
  };
}

/** The number of changes that the page reads at once. */
const A_PART = 2000;

/** @throws where it is more than can be kept */
function inParts(edit: Edit): Pick<Planned, 'name' | 'parts' | 'note'> {
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
  Object.fromEntries(
    Object.entries(WRITERS).map(([name, write]) => [name, write(captions, target).lost]),
  );

/** A file of captions; and whether, read again, its words are those that were written. */
async function write(
  name: FormatName,
  captions: readonly Caption[],
  target: Target,
): Promise<WrittenFile & { equal: boolean | null }> {
  const { content, lost } = WRITERS[name](captions, target);
  const { formatNamed } = await formats();
  if (!formatNamed(name)?.read) return { content, lost, equal: null };
  const { readFile } = await reading();
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
  const { sheetFromFile } = await import('@cadence/core/formats/sheet/fromFile.ts');
  const found = await sheetFromFile(new Uint8Array(await file.arrayBuffer()), name);
  return { ...found, warnings: found.warnings.slice(0, TOLD) };
};

/** The items of a feed. */
const feed = async (file: Blob, name: string): Promise<readonly FeedItem[]> => {
  const { readFile } = await reading();
  const found = await readFile(new Uint8Array(await file.arrayBuffer()), name);
  if (!found.items) throw new Error('This is not an RSS or Atom feed.');
  return found.items;
};

const words = { read, plan, forget, losses, write, sheet, feed };
export type Words = typeof words;
expose(words);
