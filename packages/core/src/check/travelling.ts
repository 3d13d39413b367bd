/** What is wrong, or may be, with a passage that travels. */
import type { Passage } from '../programme/passage.ts';
import type { Cue, Facts, Programme } from '../programme/programme.ts';
import type { TextShaper } from '../scene/shaper.ts';
import { figuresOf, wordsIn, type TravelFigures } from '../scene/travelFigures.ts';
import { toSeconds } from '../time/ticks.ts';
import type { Finding } from './finding.ts';

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
      message: `“${passage.title}” is cut off before it is through`,
    });
  if (travel.speed > figures.readable) found.push({ ...at, ...tooFast(passage, figures, facts) });
  return found;
}

/** That a passage goes by faster than it can be read. */
function tooFast(
  { kind, title }: Passage,
  { inSight, longest, charactersASecond }: TravelFigures,
  { profile }: Facts,
): Omit<Finding, 'at' | 'cue'> {
  const common = { kind: 'too fast', severity: 'wrong' } as const;
  if (kind === 'crawl' || !longest)
    return {
      ...common,
      figure: round(charactersASecond),
      limit: profile.charactersASecond,
      unit: 'characters a second',
      message: `“${title}” goes by too fast to be read`,
    };
  return {
    ...common,
    figure: round(inSight),
    limit: round(longest.needs),
    unit: 's',
    message: `“${title}” is too fast to read “${longest.of.text}”`,
  };
}
