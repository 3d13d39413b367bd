/** What is wrong, or may be, with a programme before it leaves. */
import { readingOf } from '../pace/reading.ts';
import { cuesInOrder, strandsShown } from '../programme/order.ts';
import type { Cue, Programme, StrandKind } from '../programme/programme.ts';
import { layoutOf } from '../scene/stacking.ts';
import { styleOf } from '../programme/patterns.ts';
import type { TextShaper } from '../scene/shaper.ts';
import { isBlank, plainText } from '../text/lines.ts';
import { wordsOf } from '../text/words.ts';
import type { Speller } from '../text/language/spelling.ts';
import { frames, frameLength, countFrames } from '../time/frameRate.ts';
import { add, toSeconds, type Ticks } from '../time/ticks.ts';
import { flashFindings } from './flashes.ts';
import { noFont, notPassedOver, type Finding, type FindingKind } from './finding.ts';
import { travellingFindings } from './travelling.ts';
import { proofread } from './proofread.ts';

const round = (value: number, digits = 1): number => Number(value.toFixed(digits));

/**
 * Every finding that the editor has not passed over, by time.
 *
 * @param shaper   measures text against the frame; without one, only reading and times are checked
 * @param speller  knows words; without one, no spelling is checked
 */
export const findingsOf = (
  programme: Programme,
  shaper?: TextShaper,
  speller?: Speller,
): Finding[] =>
  inOrder(programme, [
    ...measured(programme, shaper),
    ...flashFindings(programme),
    ...proofread(programme, speller),
  ]);

/** Findings by time, without those that the editor passed over. */
export const inOrder = (programme: Programme, findings: readonly Finding[]): Finding[] =>
  notPassedOver(findings, programme.facts.passedOver).sort((a, b) => a.at - b.at);

/** What is measured: times, reading, and the frame where there is a shaper. */
export const measured = (programme: Programme, shaper?: TextShaper): Finding[] =>
  strandsShown(programme).flatMap((strand) => {
    const row = cuesInOrder(programme, strand.id);
    const excused = excusedIn(strand.kind, row);
    return row.flatMap((cue, place) => [
      ...timing(programme, cue, row[place + 1], strand.overlapAllowed),
      ...(cue.passage
        ? []
        : written(programme, cue, row[place + 1]).filter(({ kind }) => !excused.has(kind))),
      ...(shaper ? fittingOf(programme, cue, shaper) : []),
    ]);
  });

/** A strand goes by single words where so many of its cues have one. */
const SINGLE_SHARE = 0.8;
const FLEETING: ReadonlySet<FindingKind> = new Set(['too short', 'too fast']);
const LINES: ReadonlySet<FindingKind> = new Set(['long line', 'too many lines']);
const NOTHING: ReadonlySet<FindingKind> = new Set();

/**
 * What is no fault on a strand: single words that come as they are said are short, and a card has as many lines as fit
 * its frame.
 */
function excusedIn(kind: StrandKind, row: readonly Cue[]): ReadonlySet<FindingKind> {
  if (kind === 'card') return LINES;
  const written = row.filter(({ text }) => !isBlank(text));
  const single = written.filter(({ text }) => wordsOf(plainText(text)).length === 1).length;
  return single > 1 && single >= SINGLE_SHARE * written.length ? FLEETING : NOTHING;
}

/** What is found in the text of a cue by itself. */
const written = (programme: Programme, cue: Cue, next: Cue | undefined): Finding[] =>
  isBlank(cue.text)
    ? [
        {
          kind: 'empty',
          severity: 'wrong',
          at: cue.start,
          cue: cue.id,
          message: 'Empty cue',
        },
      ]
    : reading(programme, cue, next);

function timing(programme: Programme, cue: Cue, next: Cue | undefined, free: boolean): Finding[] {
  const { length, frameRate, profile } = programme.facts;
  const found: Finding[] = [];
  const at = { at: cue.start, cue: cue.id };
  if (next && next.start < cue.end && !free)
    found.push({
      ...at,
      kind: 'overlap',
      severity: 'wrong',
      figure: countFrames((cue.end - next.start) as Ticks, frameRate),
      limit: 0,
      unit: 'frames',
      message: 'Overlaps the next cue',
    });
  if (cue.end > add(length, frameLength(frameRate)))
    found.push({
      ...at,
      kind: 'beyond the end',
      severity: 'wrong',
      figure: round(toSeconds(cue.end), 2),
      limit: round(toSeconds(length), 2),
      unit: 's',
      message: 'Ends after the programme',
    });
  const gap = next ? next.start - cue.end : 0;
  if (gap > 0 && gap < frames(profile.gapFrames, frameRate))
    found.push({
      ...at,
      kind: 'small gap',
      severity: 'doubtful',
      figure: countFrames(gap as Ticks, frameRate),
      limit: profile.gapFrames,
      unit: 'frames',
      message: 'The gap to the next cue is so short that it flickers',
    });
  return found;
}

function reading(programme: Programme, cue: Cue, next: Cue | undefined): Finding[] {
  const { profile } = programme.facts;
  const figures = readingOf(cue, next?.start);
  const stay = { least: toSeconds(profile.shortestStay), most: toSeconds(profile.longestStay) };
  const rules: [boolean, Omit<Finding, 'at' | 'cue'>][] = [
    [
      figures.charactersASecond > profile.charactersASecond,
      {
        kind: 'too fast',
        severity: 'wrong',
        figure: round(figures.charactersASecond),
        limit: profile.charactersASecond,
        unit: 'characters a second',
        message: 'Too fast to read',
      },
    ],
    [
      figures.onScreen < stay.least - 1e-9,
      {
        kind: 'too short',
        severity: 'doubtful',
        figure: round(figures.onScreen, 2),
        limit: round(stay.least, 2),
        unit: 's',
        message: 'Too short on screen',
      },
    ],
    [
      figures.onScreen > stay.most + 1e-9,
      {
        kind: 'too long',
        severity: 'doubtful',
        figure: round(figures.onScreen, 2),
        limit: round(stay.most, 2),
        unit: 's',
        message: 'Too long on screen',
      },
    ],
    [
      figures.longestLine > profile.longestLine,
      {
        kind: 'long line',
        severity: 'doubtful',
        figure: figures.longestLine,
        limit: profile.longestLine,
        unit: 'characters',
        message: 'Line too long',
      },
    ],
    [
      figures.lines > profile.lines,
      {
        kind: 'too many lines',
        severity: 'doubtful',
        figure: figures.lines,
        limit: profile.lines,
        unit: 'lines',
        message: 'Too many lines',
      },
    ],
  ];
  return rules.flatMap(([broken, rule]) =>
    broken ? [{ ...rule, at: cue.start, cue: cue.id }] : [],
  );
}

/** How the text of a cue fits the frame and the fonts; and its time, where it is a passage that travels. */
export function fittingOf(programme: Programme, cue: Cue, shaper: TextShaper): Finding[] {
  const passage = cue.passage ? programme.passages[cue.passage] : undefined;
  if (passage) return travellingFindings(programme, cue, passage, shaper);
  if (isBlank(cue.text)) return [];
  const layout = layoutOf(programme, cue, shaper);
  const at = { at: cue.start, cue: cue.id };
  const found: Finding[] = [];
  if (layout.outOfFrame > 0)
    found.push({
      ...at,
      kind: 'out of frame',
      severity: 'wrong',
      figure: layout.outOfFrame,
      limit: 0,
      unit: 'px',
      message: 'Text outside the frame',
    });
  const { family } = styleOf(programme, cue);
  if (layout.missing.length > 0) found.push({ ...at, ...noFont(layout.missing) });
  else if (layout.lent.length > 0) {
    const fonts = shaper.familiesWith(plainText(cue.text));
    const [font] = fonts;
    const other =
      fonts.length > 0
        ? `. ${fonts.join(', ')} ${fonts.length === 1 ? 'has' : 'have'} all of it`
        : '';
    found.push({
      ...at,
      kind: 'missing glyph',
      severity: 'doubtful',
      message: `${family} has no ${layout.lent.join(' ')}; ${layout.borrowed.join(' and ')} stands in${other}`,
      subject: layout.lent.join(''),
      ...(font !== undefined && { font }),
    });
  }
  return found;
}
