/** What is wrong, or may be, with a passage that travels. */
import type { Passage } from '../programme/passage.ts';
import type { Cue, Facts, Programme } from '../programme/programme.ts';
import { crowdedIn } from '../scene/rollItems.ts';
import type { TextShaper } from '../scene/shaper.ts';
import { laidCrawl } from '../scene/travelling.ts';
import { figuresOf, wordsIn, type TravelFigures } from '../scene/travelFigures.ts';
import { unstarred } from '../text/emphasis.ts';
import { toSeconds } from '../time/ticks.ts';
import { noFont, type Finding } from './finding.ts';

const round = (value: number): number => Number(value.toFixed(2));

/** Findings of a cue that puts a passage on the programme. */
export function travellingFindings(
  { facts }: Programme,
  cue: Cue,
  passage: Passage,
  shaper: TextShaper,
): Finding[] {
  const at = { at: cue.start, cue: cue.id };
  if (wordsIn(passage, facts.frame) === 0)
    return [
      { ...at, kind: 'empty', severity: 'wrong', message: `“${passage.title}” has no text yet` },
    ];
  const figures = figuresOf(facts, passage, cue, shaper);
  const { needed, travel } = figures;
  const seconds = facts.frameRate.den / facts.frameRate.num;
  const found: Finding[] = [];
  if (needed > travel.frames)
    found.push({
      ...at,
      kind: 'cut off',
      severity: 'wrong',
      figure: round(needed * seconds),
      limit: round(toSeconds(cue.end) - toSeconds(cue.start)),
      unit: 's',
      message: `“${passage.title}” is cut off before its end`,
    });
  if (travel.speed > figures.readable) found.push({ ...at, ...tooFast(passage, figures, facts) });
  found.push(...roomFindings(passage, facts, shaper).map((each) => ({ ...at, ...each })));
  return found;
}

/** What is wrong with a finding's passage, wherever on the programme that is. */
type OfPassage = Omit<Finding, 'at' | 'cue'>;

/** Text of a passage for which there is no room, or no letters. */
export function roomFindings(passage: Passage, { frame }: Facts, shaper: TextShaper): OfPassage[] {
  const found: OfPassage[] = [];
  if (passage.kind === 'crawl') {
    const { missing } = laidCrawl(passage, frame, shaper);
    return missing.length > 0 ? [noFont(missing)] : found;
  }
  const { out, farthest, into, missing } = crowdedIn(passage, frame, shaper);
  if (farthest)
    found.push({
      kind: 'out of frame',
      severity: 'wrong',
      figure: out,
      limit: 0,
      unit: 'px',
      message: `“${passage.title}” leaves the frame at “${unstarred(farthest.text)}”`,
    });
  if (into[0])
    found.push({
      kind: 'overlap',
      severity: 'wrong',
      figure: into.length,
      limit: 0,
      unit: into.length === 1 ? 'line' : 'lines',
      message: `“${passage.title}” has overlapping texts, such as “${unstarred(into[0].text)}”`,
    });
  return missing.length > 0 ? [...found, noFont(missing)] : found;
}

/** That a passage goes by faster than it can be read. */
function tooFast(
  { kind, title }: Passage,
  { inSight, longest, charactersASecond }: TravelFigures,
  { profile }: Facts,
): OfPassage {
  const common = { kind: 'too fast', severity: 'wrong' } as const;
  if (kind === 'crawl' || !longest)
    return {
      ...common,
      figure: round(charactersASecond),
      limit: profile.charactersASecond,
      unit: 'characters a second',
      message: `“${title}” is too fast to read`,
    };
  return {
    ...common,
    figure: round(inSight),
    limit: round(longest.needs),
    unit: 's',
    message: `“${title}” is too fast to read “${longest.of.text}”`,
  };
}
