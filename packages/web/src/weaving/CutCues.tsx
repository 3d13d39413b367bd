/** Shows what cues would become when they are cut anew by the times of their words, before it is done. */
import { SegmentedControl, Switch } from '@mantine/core';
import { useMemo, useState } from 'react';
import { cutCues, cutInto, type Cut } from '@cadence/core/programme/edits/cues/cutCues.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { newId } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { currentStrand } from '../desk/store.ts';
import { FigureField } from '../kit/FigureField.tsx';
import { EditWindow } from '../kit/EditWindow.tsx';
import { BeforeAfter } from '../kit/BeforeAfter.tsx';
import { useChosen } from '../kit/useChosen.tsx';

export default function CutCues({ close }: { close: () => void }) {
  const { programme, ids, choice } = useChosen();
  const strand = currentStrand(programme);
  const [by, setBy] = useState<Cut['by']>('sense');
  const [count, setCount] = useState(1);
  const [hold, setHold] = useState(0.5);
  const [build, setBuild] = useState(false);
  const cut = useMemo(
    (): Cut => (by === 'sense' ? { by } : { by, count, hold: fromSeconds(hold), build }),
    [by, count, hold, build],
  );
  const all = useMemo(() => cutInto(programme, strand, ids, cut), [programme, strand, ids, cut]);
  const parts = all.reduce((sum, each) => sum + each.parts.length, 0);
  const timed = ids.some((id) => (programme.cues[id]?.words.length ?? 0) > 0);
  return (
    <EditWindow
      close={close}
      choices={
        <>
          <SegmentedControl
            size="xs"
            aria-label="Cut by"
            data={[
              { value: 'sense', label: 'Sense and pauses' },
              { value: 'words', label: 'Word count' },
            ]}
            value={by}
            onChange={(value) => setBy(value as Cut['by'])}
          />
          {by === 'words' && (
            <>
              <FigureField
                width={120}
                label="Words a cue"
                bounds={[1, 20]}
                value={count}
                change={setCount}
              />
              <FigureField
                width={190}
                label="Hold until the next, if within"
                suffix=" s"
                bounds={[0, 5]}
                step={0.1}
                value={hold}
                change={setHold}
              />
            </>
          )}
        </>
      }
      more={
        by === 'words' && (
          <Switch
            size="xs"
            label="Keep words on screen until the sentence ends"
            checked={build}
            onChange={(event) => setBuild(event.currentTarget.checked)}
          />
        )
      }
      says={
        !timed
          ? 'The words here have no times yet. Weave them first (Z).'
          : all.length === 0
            ? 'Nothing to cut: every cue fits.'
            : `${plural(all.length, 'cue')} would become ${String(parts)}.`
      }
      edit={(now) => cutCues(now, strand, ids, cut, newId)}
      off={all.length === 0}
      does={`Cut into ${plural(parts, 'cue')}`}
    >
      {choice}
      <BeforeAfter
        all={all.map(({ cue, parts: made }) => ({
          before: [plainText(cue.text)],
          after: made.map(({ text }) => plainText(text)),
        }))}
      />
    </EditWindow>
  );
}
