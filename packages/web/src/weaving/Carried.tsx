/** What carrying over came to: before it is done, and whenever its list is opened again. */
import type { Conforming } from '@cadence/core/programme/edits/words/conformCues.ts';
import type { NotAsItWas } from '@cadence/core/programme/woven/broughtAlong.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { openNow } from '../desk/store.ts';
import type { WindowProps } from '../desk/windows.ts';
import { remember, remembered } from '../desk/remembered.ts';
import { CloseFoot } from '../kit/WindowFoot.tsx';
import classes from '../kit/windows.module.css';
import { NotAsTheyWere } from './NotAsTheyWere.tsx';

/** What a carrying over came to, as it is read. */
interface ToldProps extends Pick<Conforming, 'kept' | 'marksAtCuts' | 'corrections'> {
  readonly changed: readonly {
    /** When the cue started, as timecode of the programme. */
    readonly at: string;
    readonly text: string;
    readonly why: NotAsItWas['why'];
  }[];
}

/** The last one of this browser, and the programme that it was in. */
interface Last extends ToldProps {
  readonly of: Id;
}

const LAST = 'cadence-carried';

/** @param programme  as it was before */
export function toldOf(programme: Programme, told: Conforming): ToldProps {
  const { frameRate, startTimecode } = programme.facts;
  return {
    kept: told.kept,
    marksAtCuts: told.marksAtCuts,
    corrections: told.corrections,
    changed: told.notAsTheyWere.map(({ cue, why }) => ({
      at: formatTimecode(add(cue.start, startTimecode), frameRate),
      text: plainText(cue.text),
      why,
    })),
  };
}

/** Keeps what a carrying over came to, to be read again. */
export function keepCarried(programme: Programme, told: Conforming): void {
  const last: Last = { ...toldOf(programme, told), of: openNow().id };
  remember(LAST, last);
}

/** The list of the last carrying over of this programme, opened again. */
export default function Carried({ close }: WindowProps) {
  const { id } = openNow();
  const last = remembered<Last>(LAST);
  return (
    <div className={classes.form}>
      {last?.of === id ? (
        <Told {...last} />
      ) : (
        <p role="status">
          There is no list: no cues of this programme were carried over in this browser. Cues that
          were cut short are among the findings.
        </p>
      )}
      <CloseFoot close={close} />
    </div>
  );
}

export const Told = ({ kept, changed, marksAtCuts, corrections }: ToldProps) => (
  <>
    <p role="status">
      <b>{plural(kept, 'cue')} unchanged</b>
      {changed.length > 0 && `, ${String(changed.length)} changed`}
      {marksAtCuts > 0 && `, ${plural(marksAtCuts, 'mark')} moved to the cuts`}
      {corrections > 0 && `, ${plural(corrections, 'correction')} of pieces, beats and hits kept`}.
    </p>
    <NotAsTheyWere all={changed} />
  </>
);
