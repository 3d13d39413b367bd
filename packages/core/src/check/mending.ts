/** What one press does about a finding. */
import { fitLines } from '../programme/edits/text/fitLines.ts';
import { sequence } from '../programme/edits/sequence.ts';
import {
  carriedOver,
  differences,
  replaceText,
  type Replacement,
} from '../programme/edits/text/replaceText.ts';
import { setStyle } from '../programme/edits/text/reword.ts';
import type { Id, Programme } from '../programme/programme.ts';
import type { Edit } from '../programme/record/change.ts';
import { plainText } from '../text/lines.ts';
import type { Finding } from './finding.ts';
import { calmFlashes } from './flashes.ts';

/** Mended by breaking the lines of the cue anew. */
const BROKEN: ReadonlySet<Finding['kind']> = new Set(['long line', 'too many lines']);

/** What mending a finding is called on a button; undefined where no way to mend it is known. */
export function mendingOf({ kind, mend, font }: Finding): string | undefined {
  if (font !== undefined) return `Set in ${font}`;
  return mend !== undefined || BROKEN.has(kind) || kind === 'flashes' ? 'Fix' : undefined;
}

const CHANGED = 'The text has changed there since; it is read again.';

/** What a finding would have in the place of a stretch of its cue, in the text as it is now. */
function carriedTo(programme: Programme, { cue, foundIn }: Finding, all: readonly Replacement[]) {
  const now = plainText(programme.cues[cue]?.text ?? []);
  return carriedOver(all, foundIn ?? now, now);
}

/** What would change in the text as it is now, for a finding whose text is known. */
function rewritten(programme: Programme, finding: Finding): Replacement[] {
  const { cue, mend: text } = finding;
  if (text === undefined) return [];
  const was = finding.foundIn ?? plainText(programme.cues[cue]?.text ?? []);
  return carriedTo(programme, finding, differences(cue, was, text));
}

/** The edit that mends a finding; it has no change, and a note, where that cannot be done. */
export function mend(programme: Programme, finding: Finding, newId: () => Id): Edit {
  const { kind, cue, font } = finding;
  const name = `Fix: ${kind}`;
  if (font !== undefined) return { ...setStyle(programme, [cue], { family: font }), name };
  const flashing = kind === 'flashes' ? programme.cues[cue] : undefined;
  if (flashing) return calmFlashes(programme, flashing);
  if (!BROKEN.has(kind)) {
    const edit = replaceText(programme, rewritten(programme, finding), name);
    const stale = finding.mend !== undefined && edit.changes.length === 0;
    return stale ? { ...edit, note: CHANGED } : edit;
  }
  const { changes, note } = fitLines(programme, [cue], newId);
  const why =
    changes.length === 0 ? 'One of its words is wider than a line and cannot be broken.' : note;
  return { name, changes, ...(why !== undefined && { note: why }) };
}

/**
 * The edit that mends many findings of one kind. Of a cue with several, all are mended, unless they overlap.
 *
 * @param says  what they are called: "12 long lines"
 */
export function mendAll(
  programme: Programme,
  findings: readonly Finding[],
  says: string,
  newId: () => Id,
): Edit {
  const name = `Fix ${says}`;
  const broken = findings.filter(({ kind }) => BROKEN.has(kind)).map(({ cue }) => cue);
  const fonts = new Map<string, Id[]>();
  for (const { cue, font } of findings)
    if (font !== undefined) fonts.set(font, [...(fonts.get(font) ?? []), cue]);
  const texts = findings.flatMap((finding) =>
    finding.font !== undefined || BROKEN.has(finding.kind) ? [] : rewritten(programme, finding),
  );
  const edit = sequence(programme, [
    (now) => replaceText(now, texts),
    ...[...fonts].map(
      ([family, cues]) =>
        (now: Programme) =>
          setStyle(now, [...new Set(cues)], { family }),
    ),
    ...findings
      .filter(({ kind }) => kind === 'flashes')
      .map(({ cue }) => (now: Programme) => {
        const flashing = now.cues[cue];
        return flashing ? calmFlashes(now, flashing) : { name, changes: [] };
      }),
    (now) =>
      broken.length > 0 ? fitLines(now, [...new Set(broken)], newId) : { name, changes: [] },
  ]);
  return { ...edit, name };
}

/** The edit that puts another word in the place of a finding; none where the finding has no place in the text. */
export function writeInstead(programme: Programme, finding: Finding, by: string): Edit {
  const { cue, place } = finding;
  const name = `Write “${by}”`;
  if (!place) return { name, changes: [] };
  const edit = replaceText(programme, carriedTo(programme, finding, [{ cue, ...place, by }]), name);
  return edit.changes.length === 0 ? { ...edit, note: CHANGED } : edit;
}

/** The figure of a finding with its unit and the limit: "23.5 characters a second, limit 17". */
export function figureOf({ figure, limit, unit = '' }: Finding): string {
  if (figure === undefined) return '';
  // Units are kept in the plural; one of something is said as one.
  const said = figure === 1 ? unit.replace(/s$/, '') : unit;
  return `${figure} ${said}${limit ? `, limit ${limit}` : ''}`;
}
