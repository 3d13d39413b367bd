/** Edits of every kind from plain numbers, for property tests. */
import { ANY_LANGUAGE } from '../../text/language/syllables.ts';
import { add, ticks, type Ticks } from '../../time/ticks.ts';
import type { Edit } from '../record/change.ts';
import { cuesInOrder } from '../order.ts';
import { linesOf } from '../../text/lines.ts';
import { rewrite } from '../manuscript.ts';
import type { Programme } from '../programme.ts';
import { broughtAlong } from '../woven/broughtAlong.ts';
import { wholeSound } from '../heard.ts';
import { at25, sampleMaterial } from '../samples.ts';
import { addCue } from './cues/addCue.ts';
import { closeGaps } from './cues/closeGaps.ts';
import { joinCues } from './cues/joinCues.ts';
import { moveCues } from './cues/moveCues.ts';
import { moveSeam } from './cues/moveSeam.ts';
import { acceptHits, addHit, removeHits } from './found/hits.ts';
import { addMarks, moveMarks, removeMarks } from './found/marks.ts';
import { addPiece, cuesFromPieces, trimPiece } from './found/pieces.ts';
import {
  doublePulse,
  halvePulse,
  moveBeat,
  pinBar,
  redrawBeats,
  shiftBars,
} from './found/pulse.ts';
import { deleteCues, setStyle, setText } from './text/reword.ts';
import { startsToNearest } from './cues/snapEdges.ts';
import { ontoInstants } from './cues/ontoInstants.ts';
import { splitCue } from './cues/splitCue.ts';
import { addStrand, cuesToStrand, removeStrand } from './programme/strands.ts';
import { stretchCues } from './cues/stretchCues.ts';
import { tapCues, tapWords } from './words/tapped.ts';
import { trimCue } from './cues/trimCue.ts';
import { trimToVoice } from './cues/trimToVoice.ts';

/** Any edit, with arguments taken from a few whole numbers, so that it can hit and miss. */
export function anyEdit(
  programme: Programme,
  newId: () => string,
  [kind, a, b, c]: number[],
): Edit {
  const cues = cuesInOrder(programme, 's');
  const pick = (n: number) => cues[n % Math.max(1, cues.length)]?.id ?? 'none';
  const time = (n: number) => ticks((n * at25(1)) / 3);
  const [x, y, z] = [a ?? 0, b ?? 0, c ?? 0];
  const range = { start: time(x), end: time(x + y) };
  const first = (table: Readonly<Record<string, unknown>>) => {
    const ids = Object.keys(table);
    return ids[x % Math.max(1, ids.length)] ?? 'none';
  };
  switch ((kind ?? 0) % 32) {
    case 0:
      return addCue(programme, 's', range, 'the tide turns at the sluice', newId);
    case 1:
      return moveCues(programme, [pick(x), pick(y)], time(z - 300));
    case 2:
      return trimCue(programme, pick(x), z % 2 ? 'start' : 'end', time(y));
    case 3: {
      const place = x % Math.max(1, cues.length);
      return moveSeam(programme, pick(place), pick(place + 1), time(y));
    }
    case 4: {
      const cue = programme.cues[pick(x)];
      const middle = cue ? (((cue.start + cue.end) / 2) as Ticks) : time(y);
      return splitCue(programme, pick(x), z % 2 ? middle : time(y), newId);
    }
    case 5:
      return joinCues(programme, [pick(x), pick(x + 1)]);
    case 6:
      return deleteCues(programme, [pick(x)]);
    case 7:
      return setText(programme, pick(x), 'and the whole\nboat sighs'.slice(0, y % 24));
    case 8:
      return setStyle(programme, [pick(x)], { size: 40 + (y % 30) });
    case 9:
      return closeGaps(programme, 's', time(y));
    case 10:
      return cuesFromPieces(programme, 's', newId);
    case 11:
      return addMarks(programme, [{ at: time(x), purpose: z % 2 ? 'place' : 'word' }], newId);
    case 12:
      return moveMarks(programme, [first(programme.marks)], time(z - 300));
    case 13:
      return removeMarks(programme, [first(programme.marks)]);
    case 14:
      return redrawBeats(programme, 'm', [time(x), time(x + 9), time(x + 20 + z)], newId);
    case 15:
      return moveBeat(programme, first(programme.beats), time(y));
    case 16:
      return z % 2 ? halvePulse(programme, 'm') : doublePulse(programme, 'm', newId);
    case 17:
      return z % 2
        ? shiftBars(programme, 'm', 1)
        : pinBar(programme, first(programme.beats), z % 4 ? '3/4' : undefined);
    case 18:
      return addHit(programme, 'm', time(x), newId);
    case 19:
      return z % 2
        ? acceptHits(programme, [first(programme.hits)])
        : removeHits(programme, [first(programme.hits)]);
    case 20:
      return addPiece(programme, 'm', { start: time(x), end: time(x + y) }, newId);
    case 21:
      return trimPiece(programme, first(programme.pieces), z % 2 ? 'start' : 'end', time(y));
    case 22:
      return tapCues(programme, 's', pick(x), [
        { at: time(y), until: null },
        { at: time(y + z), until: null },
      ]);
    case 23: {
      const [one, two] = [pick(x), pick(x + 1)].map((id) => programme.cues[id]);
      const said = (cue: typeof one) => ({ cues: cue ? [cue.id] : [], text: cue?.text ?? [] });
      const written = { cues: [], text: linesOf('and the winch') };
      const [joined, cut] = [
        { cues: one && two && one !== two ? [one.id, two.id] : [], text: linesOf('one') },
        [said(one), written],
      ];
      return rewrite(
        programme,
        's',
        { paragraphs: z % 2 ? [joined] : cut, gone: z % 3 ? [] : [pick(x + 2)] },
        newId,
      );
    }
    case 24:
      return stretchCues(
        programme,
        [pick(x), pick(x + 1), pick(x + 2)].slice(0, 1 + (y % 3)),
        z % 2 ? 'start' : 'end',
        time(y + z),
      );
    case 25:
      return trimToVoice(programme, 's', [pick(x), pick(y)], z % 5);
    case 26: {
      const instants = Array.from({ length: y % 40 }, (_, at) => time(x + at * (1 + (z % 9))));
      const each = (['word', 'syllable', 'line', 'cue'] as const)[z % 4] ?? 'word';
      const some = cues.slice(x % 5, (x % 5) + 1 + (z % 3)).map(({ id }) => id);
      return ontoInstants(programme, 's', some, instants, {
        each,
        every: 1 + (y % 2),
        syllables: ANY_LANGUAGE,
      }).edit;
    }
    case 27: {
      const [from, to] = [time(x), time(x + y + 1)];
      const map = [
        { from: time(0), to: from, at: time(z), until: add(from, time(z)), how: 'same' as const },
        {
          from: to,
          to: time(9000),
          at: add(from, time(z)),
          until: time(9000),
          how: 'same' as const,
        },
      ];
      const old = wholeSound(sampleMaterial('m'));
      return {
        name: 'Bring along',
        changes: broughtAlong(programme, old, old, map, newId).changes,
      };
    }
    case 28: {
      const strands = Object.keys(programme.strands);
      const to = strands[x % strands.length] ?? '';
      const ids = Object.keys(programme.cues).slice(y % 7, (y % 7) + 3);
      return cuesToStrand(programme, ids, to, z % 2 ? newId : undefined);
    }
    case 29:
      return z % 4
        ? addStrand(programme, 'lyric', newId())
        : removeStrand(programme, first(programme.strands));
    case 30: {
      const taps = Array.from({ length: 1 + (z % 12) }, (_, at) => ({
        at: time(y + at * (1 + (z % 17))),
        until: at % 3 === 2 ? time(y + at * (1 + (z % 17)) + 2) : null,
      }));
      return tapWords(programme, 's', pick(x), taps, z % 2 ? 'word' : 'line');
    }
    default:
      return startsToNearest(programme, 's', [time(x), time(x + y)], time(z)).edit;
  }
}
