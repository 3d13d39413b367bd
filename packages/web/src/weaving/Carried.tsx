/** What carrying over came to: before it is done, and whenever its list is opened again. */
import { Button } from '@mantine/core';
import type { Conforming } from '@cadence/core/programme/edits/words/conformCues.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { openNow } from '../desk/store.ts';
import type { WindowProps } from '../desk/windows.ts';
import classes from '../kit/windows.module.css';
import { NotAsTheyWere } from './NotAsTheyWere.tsx';

/** What the last carrying over came to. */
let last: (ToldProps & { readonly of: Id }) | undefined;

/** Keeps what a carrying over came to, to be read again. */
export function keepCarried(told: ToldProps): void {
  last = { ...told, of: openNow().id };
}

/** The list of the last carrying over of this programme, opened again. */
export default function Carried({ close }: WindowProps) {
  const { id } = openNow();
  return (
    <div className={classes.form}>
      {last?.of === id ? (
        <Told programme={last.programme} told={last.told} />
      ) : (
        <p role="status">
          Nothing was carried over since this window was opened. Cues that were cut short are among
          the findings.
        </p>
      )}
      <div className={classes.foot}>
        <span className="spring" />
        <Button onClick={close}>Close</Button>
      </div>
    </div>
  );
}

export interface ToldProps {
  readonly programme: Programme;
  readonly told: Conforming;
}

export function Told({ programme, told }: ToldProps) {
  const { kept, notAsTheyWere, marksAtCuts, corrections } = told;
  const { frameRate, startTimecode } = programme.facts;
  return (
    <>
      <p role="status">
        <b>{plural(kept, 'cue')} unchanged</b>
        {notAsTheyWere.length > 0 && `, ${String(notAsTheyWere.length)} changed`}
        {marksAtCuts > 0 && `, ${plural(marksAtCuts, 'mark')} moved to the cuts`}
        {corrections > 0 && `, ${plural(corrections, 'correction')} of pieces, beats and hits kept`}
        .
      </p>
      <NotAsTheyWere
        all={notAsTheyWere.map(({ cue, why }) => ({
          at: formatTimecode(add(cue.start, startTimecode), frameRate),
          text: plainText(cue.text),
          why,
        }))}
      />
    </>
  );
}
