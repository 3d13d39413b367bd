/** Pulls the starts of all cues to beats, bar lines or marks, after showing what would move. */
import { NumberInput, SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import { startsToNearest } from '@cadence/core/programme/edits/snapEdges.ts';
import { heardBeats } from '@cadence/core/programme/heard.ts';
import { marksInOrder } from '@cadence/core/programme/order.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { countFrames, frames } from '@cadence/core/time/frameRate.ts';
import { add, subtract } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { make } from '../app/edit.ts';
import { plural } from '../app/format.ts';
import { currentStrand, openNow, useShown } from '../app/store.ts';
import { WindowFoot } from '../app/WindowFoot.tsx';
import classes from '../app/windows.module.css';

type To = 'beats' | 'bars' | 'marks';

export default function PullStarts({ close }: { close: () => void }) {
  const programme = useShown((shown) => shown);
  const { frameRate, startTimecode } = programme.facts;
  const [to, setTo] = useState<To>(heardBeats(programme).length > 0 ? 'beats' : 'marks');
  const [reach, setReach] = useState(5);
  const pulls = useMemo(() => {
    const beats = heardBeats(programme);
    const instants =
      to === 'marks'
        ? marksInOrder(programme).map(({ at }) => at)
        : beats.filter(({ bar }) => to === 'beats' || bar !== null).map(({ at }) => at);
    const strand = currentStrand(programme);
    return startsToNearest(programme, strand, instants, frames(reach, frameRate));
  }, [programme, to, reach, frameRate]);
  const take = () => {
    if (openNow().programme === programme) make(pulls.edit);
    close();
  };
  return (
    <div className={classes.form}>
      <div className={classes.choices}>
        <SegmentedControl
          aria-label="To what"
          data={[
            { value: 'beats', label: 'Beats' },
            { value: 'bars', label: 'Bar lines' },
            { value: 'marks', label: 'Marks' },
          ]}
          value={to}
          onChange={(value) => setTo(value as To)}
        />
        <NumberInput
          size="xs"
          w={170}
          label="At most so far, frames"
          min={1}
          max={250}
          value={reach}
          onChange={(value) => typeof value === 'number' && value >= 1 && setReach(value)}
        />
      </div>
      <p className="quiet" role="status">
        {plural(pulls.pulls.length, 'start')} would move; {plural(pulls.tooFar, 'cue')} too far from
        any.
      </p>
      {pulls.pulls.length > 0 && (
        <div className={classes.preview}>
          <table>
            <thead>
              <tr>
                <th>Cue</th>
                <th>Starts</th>
                <th>Moves</th>
              </tr>
            </thead>
            <tbody>
              {pulls.pulls.slice(0, 200).map((pull) => {
                const by = countFrames(subtract(pull.to, pull.from), frameRate);
                return (
                  <tr key={pull.cue}>
                    <td>{plainText(programme.cues[pull.cue]?.text ?? []) || '(no text yet)'}</td>
                    <td>{formatTimecode(add(pull.from, startTimecode), frameRate)}</td>
                    <td>
                      {by > 0 ? '+' : '−'}
                      {plural(Math.abs(by), 'frame')}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
      <WindowFoot close={close} take={take} off={pulls.pulls.length === 0}>
        Pull {plural(pulls.pulls.length, 'start')}
      </WindowFoot>
    </div>
  );
}
