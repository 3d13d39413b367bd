/** Pulls the starts of all cues to beats, bar lines or marks, after showing what would move. */
import { NumberInput, SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import { startsToNearest, wordsToNearest } from '@cadence/core/programme/edits/snapEdges.ts';
import { heardBeats } from '@cadence/core/programme/heard.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { countFrames, frames } from '@cadence/core/time/frameRate.ts';
import { add, subtract } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { make } from '../desk/desk.ts';
import { plural } from '../kit/format.ts';
import { currentCues, currentStrand, openNow, useShown } from '../desk/store.ts';
import { WindowFoot } from '../kit/WindowFoot.tsx';
import classes from '../kit/windows.module.css';
import { INSTANTS, instantsOf, type InstantsOf } from '../desk/instants.ts';

export default function PullStarts({ close }: { close: () => void }) {
  const programme = useShown((shown) => shown);
  const { frameRate, startTimecode } = programme.facts;
  const [to, setTo] = useState<InstantsOf>(heardBeats(programme).length > 0 ? 'beats' : 'marks');
  const [of, setOf] = useState<'cues' | 'words'>('cues');
  const [reach, setReach] = useState(5);
  const pulls = useMemo(() => {
    const instants = instantsOf(programme, to);
    const within = frames(reach, frameRate);
    const ids = currentCues(programme).map(({ id }) => id);
    return of === 'words'
      ? wordsToNearest(programme, ids, instants, within)
      : startsToNearest(programme, currentStrand(programme), instants, within);
  }, [programme, to, of, reach, frameRate]);
  const what = of === 'words' ? 'word' : 'start';
  const timed = currentCues(programme).some(({ words }) => words.length > 0);
  const take = () => {
    if (openNow().programme === programme) make(pulls.edit);
    close();
  };
  return (
    <div className={classes.form}>
      <div className={classes.choices}>
        <SegmentedControl
          aria-label="To what"
          data={[...INSTANTS]}
          value={to}
          onChange={(value) => setTo(value as InstantsOf)}
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
      <SegmentedControl
        size="xs"
        aria-label="Whose starts"
        data={[
          { value: 'cues', label: 'Starts of cues' },
          { value: 'words', label: 'Starts of words' },
        ]}
        value={of}
        onChange={(value) => setOf(value as 'cues' | 'words')}
      />
      <p className="quiet" role="status">
        {of === 'words' && !timed
          ? 'No word has its time yet. Weave them first, with Z.'
          : `${plural(pulls.pulls.length, what)} would move; ${plural(pulls.tooFar, of === 'words' ? 'word' : 'cue')} too far from any.`}
      </p>
      {pulls.pulls.length > 0 && (
        <div className={classes.preview}>
          <table>
            <thead>
              <tr>
                <th>{of === 'words' ? 'Word' : 'Cue'}</th>
                <th>Starts</th>
                <th>Moves</th>
              </tr>
            </thead>
            <tbody>
              {pulls.pulls.slice(0, 200).map((pull, row) => {
                const by = countFrames(subtract(pull.to, pull.from), frameRate);
                return (
                  <tr key={row}>
                    <td>
                      {(pull.word ?? plainText(programme.cues[pull.cue]?.text ?? [])) ||
                        '(no text yet)'}
                    </td>
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
        Pull {plural(pulls.pulls.length, what)}
      </WindowFoot>
    </div>
  );
}
