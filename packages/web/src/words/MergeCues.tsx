/** Shows which cues would become one with those after them, before it is done. */
import { NumberInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import { merged, mergeCues } from '@cadence/core/programme/edits/mergeCues.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { make } from '../desk/desk.ts';
import { plural } from '../kit/format.ts';
import { currentStrand, openNow } from '../desk/store.ts';
import { WindowFoot } from '../kit/WindowFoot.tsx';
import classes from '../kit/windows.module.css';
import { BeforeAfter } from '../kit/BeforeAfter.tsx';
import { useChosen } from '../kit/useChosen.tsx';

export default function MergeCues({ close }: { close: () => void }) {
  const { programme, ids, choice } = useChosen();
  const [gap, setGap] = useState(0.5);
  const strand = currentStrand(programme);
  const all = useMemo(
    () => merged(programme, strand, fromSeconds(gap), ids),
    [programme, strand, gap, ids],
  );
  const before = all.reduce((sum, { cues }) => sum + cues.length, 0);
  const take = () => {
    make(mergeCues(openNow().programme, strand, fromSeconds(gap), ids));
    close();
  };
  return (
    <div className={classes.form}>
      <div className={classes.choices}>
        <NumberInput
          size="xs"
          w={170}
          label="Longest pause within a cue"
          suffix=" s"
          min={0}
          max={5}
          step={0.1}
          decimalScale={2}
          value={gap}
          onChange={(value) => typeof value === 'number' && setGap(value)}
        />
      </div>
      <p role="status">
        {all.length === 0
          ? 'No cue can be put together with the next: the pauses, the lines or the sentences part them.'
          : `${plural(before, 'cue')} would become ${all.length}. Sentences that stand long enough are left alone.`}
      </p>
      {choice}
      <BeforeAfter
        all={all.map(({ cues, text }) => ({
          key: cues[0]?.id ?? '',
          before: cues.map((cue) => plainText(cue.text)),
          after: [plainText(text)],
        }))}
      />
      <WindowFoot close={close} take={take} off={all.length === 0}>
        Merge {plural(before, 'cue')}
      </WindowFoot>
    </div>
  );
}
