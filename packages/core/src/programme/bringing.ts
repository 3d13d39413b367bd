/** What a file of words would become in a programme: the plan that is seen before it is taken. */
import type { ReadFile } from '../formats/readFile.ts';
import { scriptOf } from '../formats/sheet/blocks.ts';
import { asSung, type AsSung } from '../formats/sheet/songSheet.ts';
import { linesOf, plainText, type Line } from '../text/lines.ts';
import type { Range } from '../time/range.ts';
import { earlier, fromSeconds, later, ZERO, type Ticks } from '../time/ticks.ts';
import { addCaptions, cuesFromCaptions, matchCaptions } from './captions.ts';
import type { Edit } from './record/change.ts';
import { cutToFit } from './edits/text/fitLines.ts';
import { addMarks } from './edits/found/marks.ts';
import { heardPieces } from './heard.ts';
import { cuesInOrder } from './order.ts';
import type { Id, Programme, TravellingKind } from './programme.ts';
import { retimed, type Retiming } from './woven/retimed.ts';
import { cuesFromScript, rereadScript, type Reread } from './woven/script.ts';
import { plural } from '../text/plural.ts';

/** What a file may be brought in as. */
export type Contents = 'cues' | 'script' | 'marks';

/** Where it goes on a strand, or how a script finds its times. */
export type Place = 'replace' | 'add' | 'match' | 'speech' | 'spread' | 'again';

export interface Choice {
  readonly contents: Contents;
  readonly place: Place;
  readonly retiming: Retiming;
  /** Whether lines of a script that are too long for a cue become several. */
  readonly cut: boolean;
  /** Whether lyrics come in as they are sung: repeats written out, names of parts left out. */
  readonly asSung: boolean;
}

/** What a choice would make of a programme. */
export interface Plan {
  readonly edit: Edit;
  readonly count: number;
  /** From when to when; null where there are no times. */
  readonly range: Range | null;
  /** The first lines, as they would stand in the programme. */
  readonly sample: readonly { readonly at: Ticks | null; readonly text: string }[];
  /** Line by line, where a script is read again. */
  readonly compared?: readonly Reread[];
  /** What coming in as it is sung changes in a script; undefined where that is nothing. */
  readonly sung?: Omit<AsSung, 'blocks'>;
}

/** The number of lines that are shown. */
const SHOWN = 10;

/** The script of a file: the blocks of a sheet, or the titles of a feed. */
const scriptIn = ({ sheet, items }: ReadFile, sung?: AsSung): Line[][] =>
  sheet ? scriptOf((sung ?? sheet).blocks) : (items ?? []).map(({ title }) => linesOf(title));

/** A script as it is sung; undefined where it is written like that. */
function sungIn({ sheet }: ReadFile): AsSung | undefined {
  const sung = sheet && asSung(sheet.blocks);
  return sung && sung.again + sung.names > 0 ? sung : undefined;
}

/** How many cues, lines of a script and marks are in a file. */
export function countsIn(file: ReadFile): Readonly<Record<Contents, number>> {
  return {
    cues: file.captions.length,
    script: scriptIn(file).length,
    marks: file.markers?.length ?? 0,
  };
}

/** All that a file may be brought in as, the likeliest first. */
export function contentsOf(file: ReadFile): Contents[] {
  const counts = countsIn(file);
  return (Object.keys(counts) as Contents[]).filter((each) => counts[each] > 0);
}

/** A list is a roll where so much of it is rows of roles and names. */
const ROWS_SHARE = 0.5;

/** What a file can become that travels, and whether it is most likely that; null where it has no text to travel. */
export function travellingIn({ sheet, items }: ReadFile): Travelling | null {
  if (items) return { kind: 'crawl', isLikely: true };
  if (!sheet) return null;
  const rows = sheet.blocks.filter(({ kind }) => kind === 'row').length;
  const lines = sheet.blocks.filter(({ kind }) => kind === 'line').length;
  return { kind: 'roll', isLikely: rows > 1 && rows >= ROWS_SHARE * (rows + lines) };
}

/** What travels that a file can become. */
export interface Travelling {
  readonly kind: TravellingKind;
  readonly isLikely: boolean;
}

const PLACES: Readonly<Record<Contents, readonly Place[]>> = {
  cues: ['replace', 'add', 'match'],
  script: ['again', 'speech', 'spread'],
  marks: ['replace'],
};

/** Where something may go on a strand, the likeliest first: it depends on whether there are cues, and speech. */
export function placesFor(
  contents: Contents,
  { hasCues, hasSpeech }: { readonly hasCues: boolean; readonly hasSpeech: boolean },
): Place[] {
  return PLACES[contents].filter(
    (place) =>
      (hasCues || !['add', 'match', 'again'].includes(place)) && (hasSpeech || place !== 'speech'),
  );
}

/** Stretches of time that a script is shared out over: the speech, or the whole length. */
export function stretchesFor(programme: Programme, place: Place): readonly Range[] {
  const speech = heardPieces(programme).map(({ start, end }) => ({ start, end }));
  return place === 'speech' && speech.length > 0
    ? speech
    : [{ start: ZERO, end: programme.facts.length }];
}

/** A script of which this part is on the strand already is the same one, changed. */
const LIKE = 0.3;

/** Whether a script that was read again is another one than what is on the strand. */
export const isOtherScript = (compared: readonly Reread[]): boolean =>
  compared.filter(({ kind }) => kind === 'same').length < LIKE * compared.length;

const textOf = (lines: readonly Line[]): string => plainText(lines).replace(/\n/g, ' / ');

/**
 * What a choice would make of a programme.
 *
 * @param stretches  of time that a script is shared out over, see {@link stretchesFor}
 * @throws NoStretch where the retiming cannot be
 */
export function planOf(
  programme: Programme,
  strand: Id,
  file: ReadFile,
  { contents, place, retiming, cut, asSung: isSung }: Choice,
  stretches: readonly Range[],
  newId: () => Id,
): Plan {
  if (contents === 'marks') {
    const marks = (file.markers ?? []).map(({ start, text }) => ({
      at: fromSeconds(start),
      name: text,
      purpose: 'place' as const,
    }));
    return {
      edit: addMarks(programme, marks, newId),
      count: marks.length,
      range: null,
      sample: marks.slice(0, SHOWN).map(({ at, name }) => ({ at, text: name })),
    };
  }
  if (contents === 'script') {
    const sung = sungIn(file);
    const script = scriptIn(file, isSung ? sung : undefined);
    const lines = cut ? cutToFit(script, programme.facts.profile) : script;
    const again = place === 'again' ? rereadScript(programme, strand, lines, newId) : undefined;
    return {
      edit: again?.edit ?? cuesFromScript(programme, strand, lines, stretches, newId),
      count: lines.length,
      range: null,
      sample: lines.slice(0, SHOWN).map((line) => ({ at: null, text: textOf(line) })),
      ...(again && { compared: again.compared }),
      ...(sung && { sung: { again: sung.again, names: sung.names } }),
    };
  }
  const { captions, leftOut } = retimed(file.captions, retiming);
  const edit =
    place === 'add'
      ? addCaptions(programme, strand, captions, newId)
      : place === 'match'
        ? matchCaptions(programme, strand, captions)
        : cuesFromCaptions(programme, strand, captions, newId);
  const early =
    leftOut > 0
      ? [
          `${plural(leftOut, 'cue')} would end before the programme and ${leftOut === 1 ? 'is' : 'are'} left out.`,
        ]
      : [];
  const note = [...early, ...(edit.note === undefined ? [] : [edit.note])].join(' ');
  const first = captions[0]?.start ?? ZERO;
  return {
    edit: { ...edit, ...(note !== '' && { note }) },
    count: captions.length,
    range: {
      start: captions.reduce<Ticks>((least, { start }) => earlier(least, start), first),
      end: captions.reduce<Ticks>((most, { end }) => later(most, end), ZERO),
    },
    sample: captions.slice(0, SHOWN).map(({ start, text }) => ({ at: start, text: textOf(text) })),
  };
}

/**
 * What is likeliest to be wanted of a file: the plan that the window shows first. Undefined where nothing in it could
 * become cues or marks.
 */
export function likeliestPlan(
  programme: Programme,
  strand: Id,
  file: ReadFile,
  newId: () => Id,
): { readonly choice: Choice; readonly plan: Plan } | undefined {
  const [contents] = contentsOf(file);
  if (contents === undefined) return undefined;
  const hasCues = cuesInOrder(programme, strand).length > 0;
  const hasSpeech = heardPieces(programme).length > 0;
  for (const place of placesFor(contents, { hasCues, hasSpeech })) {
    const choice: Choice = { contents, place, retiming: {}, cut: true, asSung: true };
    const plan = planOf(programme, strand, file, choice, stretchesFor(programme, place), newId);
    if (place !== 'again' || !isOtherScript(plan.compared ?? [])) return { choice, plan };
  }
  return undefined;
}
