/** Italics, bold and underlining of stretches of text, and who says it. */
import {
  plainText,
  respan,
  slice,
  type Line,
  type SpanStyle,
  type Span,
} from '../../../text/lines.ts';
import { update, type Edit } from '../../record/change.ts';
import type { Cue, Id, Programme } from '../../programme.ts';

/** A stretch of the plain text of a cue, in UTF-16 units; all of it where nothing is said. */
export interface TextPlace {
  readonly cue: Id;
  readonly from?: number;
  readonly to?: number;
}

export type Emphasis = 'italic' | 'bold' | 'underline';

const names: Readonly<Record<Emphasis, readonly [on: string, off: string]>> = {
  italic: ['Set in italics', 'Set upright'],
  bold: ['Set in bold', 'Set in regular weight'],
  underline: ['Underline', 'Remove underline'],
};

/** Gives a span a style, or takes it away where it is undefined. */
const withManner =
  (field: keyof SpanStyle, value: SpanStyle[keyof SpanStyle]) =>
  ({ [field]: _old, ...span }: Span): Span =>
    value === undefined ? (span as Span) : ({ ...span, [field]: value } as Span);

const known = (programme: Programme, places: readonly TextPlace[]): (TextPlace & { of: Cue })[] =>
  places.flatMap((place) => {
    const of = programme.cues[place.cue];
    return of ? [{ ...place, of }] : [];
  });

const changed = (
  { of, from = 0, to = plainText(of.text).length }: TextPlace & { of: Cue },
  change: (span: Span) => Span,
): Line[] => respan(of.text, from, to, change);

/** Turns an emphasis on or off in stretches of text: on, unless all of it has it already. */
export function emphasise(
  programme: Programme,
  places: readonly TextPlace[],
  emphasis: Emphasis,
): Edit {
  const all = known(programme, places);
  const on = !all.every(({ of, from = 0, to = Infinity }) =>
    slice(of.text, from, to)
      .flat()
      .every((span) => span[emphasis] === true),
  );
  const change = withManner(emphasis, on ? true : undefined);
  return {
    name: names[emphasis][on ? 0 : 1],
    changes: all.flatMap((place) => update('cue', place.of, { text: changed(place, change) })),
  };
}

/** Says who speaks in cues; an empty name takes the speaker away. */
export function setSpeaker(programme: Programme, ids: readonly Id[], name: string): Edit {
  const change = withManner('speaker', name.trim() === '' ? undefined : name.trim());
  const all = known(
    programme,
    ids.map((cue) => ({ cue })),
  );
  return {
    name: name.trim() === '' ? 'Remove the speaker' : `Set speaker ${name.trim()}`,
    changes: all.flatMap((place) => update('cue', place.of, { text: changed(place, change) })),
  };
}

/** The speakers that cues name, in order of their first words. */
export const speakersIn = (cues: readonly Cue[]): string[] => [
  ...new Set(cues.flatMap(({ text }) => text.flat().flatMap(({ speaker }) => speaker ?? []))),
];

/** The comments of cues that become one, all of them; nothing where there are none. */
export function joinedComments(cues: readonly Cue[]): Pick<Cue, 'comment'> {
  const comments = cues.flatMap(({ comment }) => comment ?? []);
  return comments.length > 0 ? { comment: comments.join('\n') } : {};
}

/** Notes something on a cue for oneself; an empty comment is none. */
export function setComment(programme: Programme, id: Id, comment: string): Edit {
  const cue = programme.cues[id];
  const text = comment.trim() === '' ? null : comment.trim();
  return {
    name: text === null ? 'Remove a comment' : 'Comment on a cue',
    changes: cue ? update('cue', cue, { comment: text }) : [],
  };
}
