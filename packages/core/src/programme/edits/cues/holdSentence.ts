/** Holding cues until the sentence that they are a part of has ended, so that it builds up on screen. */
import { aOrMany, plural } from '../../../text/plural.ts';
import { plainText } from '../../../text/lines.ts';
import { cuesInOrder } from '../../order.ts';
import type { Id, Programme } from '../../programme.ts';
import { update, type Edit } from '../../record/change.ts';

/** A sentence ends with a full stop or the like, and whatever closes after it. */
const ENDS = /[.!?…。！？][\p{Pe}\p{Pf}"'’”]*$/u;

/**
 * Has each cue last until the cue ends with which its sentence ends; one whose sentence has no end in its strand lasts
 * until the last cue of the strand does. Its strand must let cues overlap.
 */
export function holdSentence(programme: Programme, ids: readonly Id[]): Edit {
  const cues = ids.flatMap((id) => programme.cues[id] ?? []);
  const name = `Hold ${aOrMany(cues.length, 'cue')} until the sentence ends`;
  const free = cues.filter(({ strand }) => programme.strands[strand]?.overlapAllowed);
  const changes = free.flatMap((cue) => {
    const row = cuesInOrder(programme, cue.strand);
    const from = row.findIndex(({ id }) => id === cue.id);
    const last =
      row.slice(from).find(({ text }) => ENDS.test(plainText(text).trim())) ?? row.at(-1);
    return last && last.end > cue.end ? update('cue', cue, { end: last.end }) : [];
  });
  const held = cues.length - free.length;
  return {
    name,
    changes,
    ...(held > 0 && {
      note: `${plural(held, 'cue is', 'cues are')} on a strand whose cues may not overlap. Let them overlap in the table of strands.`,
    }),
  };
}
