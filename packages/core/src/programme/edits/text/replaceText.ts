/** Replacing stretches of the text of many cues at once. */
import { diffChars } from 'diff';
import { plainText, replaceIn } from '../../../text/lines.ts';
import { update, type Edit } from '../../record/change.ts';
import type { Id, Programme } from '../../programme.ts';
import { reworded } from '../../woven/reworded.ts';
import { plural } from '../../../text/plural.ts';

/** A stretch of a cue's plain text, in UTF-16 units, and what takes its place. */
export interface Replacement {
  readonly cue: Id;
  readonly from: number;
  readonly to: number;
  readonly by: string;
}

/**
 * Replaces stretches of text; what stays keeps its italics and colours, and what comes takes those of what it
 * replaces. Stretches that run past the text, or over one before, are left out.
 */
export function replaceText(
  programme: Programme,
  replacements: readonly Replacement[],
  name = `Replace in ${plural(replacements.length, 'place')}`,
): Edit {
  const byCue = new Map<Id, Replacement[]>();
  for (const each of replacements) byCue.set(each.cue, [...(byCue.get(each.cue) ?? []), each]);
  const changes = [...byCue].flatMap(([id, all]) => {
    const cue = programme.cues[id];
    if (!cue) return [];
    let text = cue.text;
    let before = Infinity;
    // From the last to the first, so that places stay what they are.
    for (const { from, to, by } of [...all].sort((a, b) => b.from - a.from)) {
      const { length } = plainText(text);
      if (to > before || to > length || from > to) continue;
      before = from;
      text = replaceIn(text, from, to, by);
    }
    return update('cue', cue, reworded(cue, text));
  });
  return { name, changes };
}

/** Where a text differs from the one it becomes, from place to place. */
export function differences(cue: Id, old: string, text: string): Replacement[] {
  const found: Replacement[] = [];
  if (old.length === text.length) {
    for (let at = 0; at < old.length; at++) {
      if (old[at] === text[at]) continue;
      const from = at;
      while (at < old.length && old[at] !== text[at]) at++;
      found.push({ cue, from, to: at, by: text.slice(from, at) });
    }
    return found;
  }
  let at = 0;
  for (const { value, added, removed } of diffChars(old, text)) {
    const last = found.at(-1);
    if (!added && !removed) at += value.length;
    else if (removed) {
      found.push({ cue, from: at, to: at + value.length, by: '' });
      at += value.length;
    } else if (last?.to === at && last.by === '') found[found.length - 1] = { ...last, by: value };
    else found.push({ cue, from: at, to: at, by: value });
  }
  return found;
}

/**
 * Stretches of an old text, as stretches of the text that it has become. Those that have changed since, or stand
 * against what has, are left out.
 */
export function carriedOver(
  replacements: readonly Replacement[],
  old: string,
  now: string,
): Replacement[] {
  const since = old === now ? [] : differences('', old, now);
  return replacements.flatMap((each) => {
    if (since.some(({ from, to }) => from <= each.to && to >= each.from)) return [];
    const moved = since
      .filter(({ to }) => to < each.from)
      .reduce((sum, { from, to, by }) => sum + by.length - (to - from), 0);
    return [{ ...each, from: each.from + moved, to: each.to + moved }];
  });
}

/** A cue and the plain text that it is to have. */
export interface Rewritten {
  readonly cue: Id;
  readonly text: string;
}

/** Gives cues other text, where it differs: what stays and what takes its place keeps italics and colours. */
export function retext(programme: Programme, all: readonly Rewritten[], name: string): Edit {
  const replacements = all.flatMap(({ cue, text }) => {
    const old = programme.cues[cue];
    return old ? differences(cue, plainText(old.text), text) : [];
  });
  return replaceText(programme, replacements, name);
}
