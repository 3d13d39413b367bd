/** Shows what cues would become when they are cut anew by the times of their words, before it is done. */
import { NumberInput, SegmentedControl, Switch } from '@mantine/core';
import { useMemo, useState } from 'react';
import { cutCues, cutInto, type Cut } from '@cadence/core/programme/edits/cutCues.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { make, newId } from '../desk/desk.ts';
import { plural } from '../kit/format.ts';
import { currentStrand, openNow } from '../desk/store.ts';
import { WindowFoot } from '../kit/WindowFoot.tsx';
import classes from '../kit/windows.module.css';
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
  const take = () => {
    make(cutCues(openNow().programme, strand, ids, cut, newId));
    close();
  };
  return (
    <div className={classes.form}>
      <div className={classes.choices}>
        <SegmentedControl
          size="xs"
          aria-label="Cut by"
          data={[
            { value: 'sense', label: 'By sense and pauses' },
            { value: 'words', label: 'So many words a cue' },
          ]}
          value={by}
          onChange={(value) => setBy(value as Cut['by'])}
        />
        {by === 'words' && (
          <>
            <NumberInput
              size="xs"
              w={120}
              label="Words a cue"
              min={1}
              max={20}
              value={count}
              onChange={(value) => typeof value === 'number' && value >= 1 && setCount(value)}
            />
            <NumberInput
              size="xs"
              w={190}
              label="Stay until the next within"
              suffix=" s"
              min={0}
              max={5}
              step={0.1}
              decimalScale={2}
              value={hold}
              onChange={(value) => typeof value === 'number' && setHold(value)}
            />
          </>
        )}
      </div>
      {by === 'words' && (
        <Switch
          size="xs"
          label="Words stay until their sentence ends, and go together"
          checked={build}
          onChange={(event) => setBuild(event.currentTarget.checked)}
        />
      )}
      <p role="status">
        {!timed
          ? 'No word here has its time yet. Weave them first, with Z.'
          : all.length === 0
            ? 'Nothing would be cut: each cue fits as it is.'
            : `${plural(all.length, 'cue')} would become ${String(parts)}.`}
      </p>
      {choice}
      <BeforeAfter
        all={all.map(({ cue, parts: made }) => ({
          key: cue.id,
          before: [plainText(cue.text)],
          after: made.map(({ text }) => plainText(text)),
        }))}
      />
      <WindowFoot close={close} take={take} off={all.length === 0}>
        Cut into {plural(parts, 'cue')}
      </WindowFoot>
    </div>
  );
}
