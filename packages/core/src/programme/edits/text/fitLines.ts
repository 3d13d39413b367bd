/** Text broken into lines anew, and cues cut in two where it does not fit. */
import { breakLines, splitToFit, type Limits, type Stretch } from '../../../text/breakLines.ts';
import { languageOfText, type TextLanguage } from '../../../text/language/languageOfText.ts';
import { plainLine, plainText, slice, tidyLine, type Line } from '../../../text/lines.ts';
import type { Edit } from '../../record/change.ts';
import { languageOfStrand } from '../../languageOfStrand.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import { partCue } from '../cues/partCue.ts';
import { aOrMany, plural } from '../../../text/plural.ts';

/** The lines of a cue as one, with a space where a line ended. */
const inOneLine = (text: readonly Line[]): Line =>
  tidyLine(text.flatMap((line, at) => [...(at > 0 ? [{ text: ' ' }] : []), ...line]));

const cut = (line: Line, stretches: readonly Stretch[]): Line[] =>
  stretches.map(({ from, to }) => slice([line], from, to)[0] ?? []);

/** What the lines of a cue must fit: those of a profile, or of a frame. */
export type Room = (cue: Cue) => Limits;

/** The lines of the programme's profile, in characters. */
export const roomOfProfile =
  ({ facts: { profile } }: Programme): Room =>
  () => ({ lines: profile.lines, longestLine: profile.longestLine });

/** The text of each cue that a cue is to become; one where it fits as it stands or broken anew. */
export interface Fitted {
  readonly cue: Cue;
  readonly parts: readonly (readonly Line[])[];
}

/** Text broken anew, in as many parts as it needs to fit. */
export function inParts(text: readonly Line[], limits: Limits): Line[][] {
  const one = inOneLine(text);
  return splitToFit(plainLine(one), limits).map((stretches) => cut(one, stretches));
}

/** Whether every line of a text fits, and there are not too many. */
export function fitsAsItStands(text: readonly Line[], limits: Limits): boolean {
  const standing = text.map(plainLine).filter((line) => line.trim() !== '');
  return (
    standing.length <= limits.lines &&
    standing.every((line) => breakLines(line, { ...limits, lines: 1 }))
  );
}

/** Texts, such as the paragraphs of a script, cut into as many as they need to fit. */
export function cutToFit(texts: readonly (readonly Line[])[], limits: Limits): (readonly Line[])[] {
  const language = limits.language ?? languageOfText(texts.map(plainText).join('\n'));
  const own = { ...limits, language };
  return texts.flatMap((text) => (fitsAsItStands(text, own) ? [text] : inParts(text, own)));
}

/** What cues become when each is to fit its lines: those that fit already are left out. */
export function fitted(
  programme: Programme,
  ids: readonly Id[],
  room: Room = roomOfProfile(programme),
): Fitted[] {
  const languages = new Map<Id, TextLanguage | undefined>();
  return ids.flatMap((id): Fitted[] => {
    const cue = programme.cues[id];
    if (!cue) return [];
    if (!languages.has(cue.strand))
      languages.set(cue.strand, languageOfStrand(programme, cue.strand));
    const limits = { ...room(cue), language: languages.get(cue.strand) };
    if (fitsAsItStands(cue.text, limits)) return [];
    const parts = inParts(cue.text, limits);
    // A word that cannot be broken stays as it is.
    const isNew = parts.length > 1 || plainText(parts[0] ?? []) !== plainText(cue.text);
    return parts.length > 0 && isNew ? [{ cue, parts }] : [];
  });
}

/**
 * Breaks the text of cues into lines that fit, and cuts a cue in several where they do not: at the times of
 * its words where those are known, else by reading weight, at whole frames. A cue that is too short for a
 * frame each keeps all the parts.
 */
export function fitLines(
  programme: Programme,
  ids: readonly Id[],
  newId: () => Id,
  room: Room = roomOfProfile(programme),
): Edit {
  const all = fitted(programme, ids, room);
  const more = all.reduce((sum, { parts }) => sum + parts.length - 1, 0);
  return {
    name: `Fit the lines of ${aOrMany(all.length, 'cue')}`,
    changes: all.flatMap((each) => partCue(programme, each.cue, each.parts, newId)),
    ...(more > 0 && {
      note: `${plural(more, 'cue was', 'cues were')} added by splitting.`,
    }),
  };
}
