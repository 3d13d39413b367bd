/** Findings that are about the same thing, as one; and kinds of which all can be mended at once. */
import { plural } from '../text/plural.ts';
import { nameEverywhere, type Finding, type FindingKind } from './finding.ts';
import { mendingOf } from './mending.ts';

/** A finding, and all places where the same is found. */
export interface Grouped {
  /** The first of them. */
  readonly finding: Finding;
  readonly places: readonly Finding[];
}

/** Findings by the first place of each; those about one word, name or letter stand once. */
export function grouped(findings: readonly Finding[]): Grouped[] {
  const groups = new Map<string, { finding: Finding; places: Finding[] }>();
  findings.forEach((finding, at) => {
    const key = finding.subject === undefined ? `${at}` : nameEverywhere(finding);
    const group = groups.get(key);
    if (group) group.places.push(finding);
    else groups.set(key, { finding, places: [finding] });
  });
  return [...groups.values()];
}

/** What several findings of a kind that can be mended are called, as one and as many. */
const NAMES: Readonly<Partial<Record<FindingKind, readonly [one: string, many: string]>>> = {
  'long line': ['long line', 'long lines'],
  'too many lines': ['cue with too many lines', 'cues with too many lines'],
  'doubled word': ['doubled word', 'doubled words'],
  spaces: ['cue with wrong spaces', 'cues with wrong spaces'],
  'unmatched mark': ['unmatched mark', 'unmatched marks'],
  'missing glyph': ['missing letter', 'missing letters'],
  flashes: ['cue that flashes too often', 'cues that flash too often'],
  'cut short': ['cue that was cut short', 'cues that were cut short'],
  name: ['name', 'names'],
};

/** Findings of one kind that can all be mended at once, and what they are called: "12 long lines". */
export interface MendableKind {
  readonly says: string;
  readonly findings: readonly Finding[];
}

/** The kinds of which two findings or more can be mended, the most first. */
export function mendableKinds(findings: readonly Finding[]): MendableKind[] {
  const kinds = new Map<FindingKind, Finding[]>();
  for (const finding of findings)
    if (mendingOf(finding) !== undefined)
      kinds.set(finding.kind, [...(kinds.get(finding.kind) ?? []), finding]);
  return [...kinds]
    .filter(([, all]) => all.length > 1)
    .sort(([, a], [, b]) => b.length - a.length)
    .map(([kind, all]) => ({
      says: plural(all.length, ...(NAMES[kind] ?? ['finding', 'findings'])),
      findings: all,
    }));
}
