/** Edits of every kind from plain numbers, for property tests. */
import { ticks, type Ticks } from '../../time/ticks.ts';
import type { Edit } from '../change.ts';
import { cuesInOrder } from '../order.ts';
import type { Programme } from '../programme.ts';
import { at25 } from '../samples.ts';
import { addCue } from './addCue.ts';
import { closeGaps } from './closeGaps.ts';
import { joinCues } from './joinCues.ts';
import { moveCues } from './moveCues.ts';
import { moveSeam } from './moveSeam.ts';
import { cuesFromPieces } from './pieces.ts';
import { deleteCues, setStyle, setText } from './reword.ts';
import { splitCue } from './splitCue.ts';
import { trimCue } from './trimCue.ts';

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
  switch ((kind ?? 0) % 11) {
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
    default:
      return cuesFromPieces(programme, 's', newId);
  }
}
