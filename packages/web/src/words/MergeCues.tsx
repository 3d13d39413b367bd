/** Shows which cues would become one with those after them, before it is done. */
import { useMemo, useState } from 'react';
import { merged, mergeCues } from '@cadence/core/programme/edits/cues/mergeCues.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { currentStrand } from '../desk/store.ts';
import { FigureField } from '../kit/FigureField.tsx';
import { EditWindow } from '../kit/EditWindow.tsx';
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
  return (
    <EditWindow
      close={close}
      choices={
        <FigureField
          width={170}
          label="Longest pause within a cue"
          suffix=" s"
          bounds={[0, 5]}
          step={0.1}
          value={gap}
          change={setGap}
        />
      }
      says={
        all.length === 0
          ? 'No cues to merge: pauses, line lengths or sentence ends separate them.'
          : `${plural(before, 'cue')} would become ${all.length}. Complete sentences stay.`
      }
      edit={(now) => mergeCues(now, strand, fromSeconds(gap), ids)}
      off={all.length === 0}
      does={`Merge ${plural(before, 'cue')}`}
    >
      {choice}
      <BeforeAfter
        all={all.map(({ cues, text }) => ({
          before: cues.map((cue) => plainText(cue.text)),
          after: [plainText(text)],
        }))}
      />
    </EditWindow>
  );
}
