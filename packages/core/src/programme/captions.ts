/** Cues as captions, for files that leave, and captions as cues, for files that come in. */
import type { Caption } from '../formats/captions.ts';
import { frames, nearestFrame } from '../time/frameRate.ts';
import { add, later, ZERO } from '../time/ticks.ts';
import { isBlank } from '../text/lines.ts';
import { create, remove, type Edit } from './change.ts';
import { cuesInOrder } from './order.ts';
import type { Cue, Id, Programme } from './programme.ts';

/** The cues of a strand as captions, by start. Empty cues are left out. */
export function captionsOf(programme: Programme, strand: Id): Caption[] {
  return cuesInOrder(programme, strand)
    .filter((cue) => !isBlank(cue.text))
    .map((cue): Caption => {
      const style = { ...programme.strands[strand]?.style, ...cue.style };
      const { across = 'centre', down = 'bottom' } = style;
      const usual = across === 'centre' && down === 'bottom';
      return {
        start: cue.start,
        end: cue.end,
        text: cue.text,
        ...(cue.words.length > 0 && { words: cue.words }),
        ...(!usual && { place: { across, down } }),
      };
    });
}

/**
 * Puts captions on a strand in place of the cues there, at the nearest frames, none overlapping the
 * one before it. The note says how many had to be cut short.
 */
export function cuesFromCaptions(
  programme: Programme,
  strand: Id,
  captions: readonly Caption[],
  newId: () => Id,
): Edit {
  const rate = programme.facts.frameRate;
  const frame = frames(1, rate);
  let free = ZERO;
  let cut = 0;
  const made = [...captions]
    .sort((a, b) => a.start - b.start)
    .map((caption): Cue => {
      const wanted = nearestFrame(caption.start, rate);
      const start = later(wanted, free);
      const end = later(nearestFrame(caption.end, rate), add(start, frame));
      if (start > wanted) cut++;
      free = end;
      const words = (caption.words ?? []).map((word) => ({
        text: word.text,
        start: word.start,
        end: word.end ?? word.start,
        source: 'heard' as const,
      }));
      return {
        id: newId(),
        strand,
        start,
        end,
        text: caption.text,
        style: caption.place ?? {},
        words,
      };
    });
  return {
    name: `Bring in ${made.length} cues`,
    changes: [
      ...cuesInOrder(programme, strand).map((cue) => remove('cue', cue)),
      ...made.map((cue) => create('cue', cue)),
    ],
    ...(cut > 0 && { note: `${cut} cues overlapped the one before and now start later.` }),
  };
}
