/** Pulls the starts of all cues to beats, bar lines or marks, after showing what would move. */
import { SegmentedControl } from '@mantine/core';
import { useCallback, useMemo, useState } from 'react';
import { startsToNearest, wordsToNearest } from '@cadence/core/programme/edits/cues/snapEdges.ts';
import { heardBeats } from '@cadence/core/programme/heard.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { countFrames, frames } from '@cadence/core/time/frameRate.ts';
import { add, subtract } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { currentCues, currentStrand, useShown } from '../../desk/store.ts';
import { FigureField } from '../../kit/FigureField.tsx';
import { EditWindow } from '../../kit/EditWindow.tsx';
import { PreviewTable } from '../../kit/PreviewTable.tsx';
import { INSTANTS, instantsOf, type InstantsOf } from '@cadence/core/rows/instants.ts';

export default function PullStarts({ close }: { close: () => void }) {
  const programme = useShown((shown) => shown);
  const { frameRate, startTimecode } = programme.facts;
  const [to, setTo] = useState<InstantsOf>(heardBeats(programme).length > 0 ? 'beats' : 'marks');
  const [of, setOf] = useState<'cues' | 'words'>('cues');
  const [reach, setReach] = useState(5);
  const pullsIn = useCallback(
    (now: Programme) => {
      const instants = instantsOf(now, to);
      const within = frames(reach, now.facts.frameRate);
      const ids = currentCues(now).map(({ id }) => id);
      return of === 'words'
        ? wordsToNearest(now, ids, instants, within)
        : startsToNearest(now, currentStrand(now), instants, within);
    },
    [to, of, reach],
  );
  const pulls = useMemo(() => pullsIn(programme), [pullsIn, programme]);
  const what = of === 'words' ? 'word' : 'start';
  const timed = currentCues(programme).some(({ words }) => words.length > 0);
  return (
    <EditWindow
      close={close}
      choices={
        <>
          <SegmentedControl
            aria-label="Target"
            data={[...INSTANTS]}
            value={to}
            onChange={(value) => setTo(value as InstantsOf)}
          />
          <FigureField
            width={170}
            label="Maximum distance, frames"
            bounds={[1, 250]}
            value={reach}
            change={setReach}
          />
        </>
      }
      more={
        <SegmentedControl
          size="xs"
          aria-label="Starts of"
          data={[
            { value: 'cues', label: 'Cues' },
            { value: 'words', label: 'Words' },
          ]}
          value={of}
          onChange={(value) => setOf(value as 'cues' | 'words')}
        />
      }
      says={
        of === 'words' && !timed
          ? 'The words have no times yet. Weave them first (Z).'
          : `${plural(pulls.pulls.length, what)} would move. ${plural(pulls.tooFar, of === 'words' ? 'word' : 'cue')} too far from a target.`
      }
      edit={(now) => pullsIn(now).edit}
      off={pulls.pulls.length === 0}
      does={`Pull ${plural(pulls.pulls.length, what)}`}
    >
      <PreviewTable
        head={[of === 'words' ? 'Word' : 'Cue', 'Starts', 'Moves']}
        all={pulls.pulls}
        cells={(pull) => {
          const by = countFrames(subtract(pull.to, pull.from), frameRate);
          return (
            <>
              <td>
                {(pull.word ?? plainText(programme.cues[pull.cue]?.text ?? [])) || '(no text yet)'}
              </td>
              <td>{formatTimecode(add(pull.from, startTimecode), frameRate)}</td>
              <td>
                {by > 0 ? '+' : '−'}
                {plural(Math.abs(by), 'frame')}
              </td>
            </>
          );
        }}
      />
    </EditWindow>
  );
}
