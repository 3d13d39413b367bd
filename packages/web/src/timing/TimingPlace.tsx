/** Timing: the sound in rows, the cues under it, and the picture beside it. */
import { Button, SegmentedControl, Select, Tooltip } from '@mantine/core';
import { IconVolume, IconVolumeOff } from '@tabler/icons-react';
import type { MouseEvent } from 'react';
import { act, hold } from '../desk/actions.ts';
import {
  currentCues,
  currentPieces,
  openNow,
  useApp,
  useAppDispatch,
  useShown,
} from '../desk/store.ts';
import { setStyle } from '@cadence/core/programme/edits/text/reword.ts';
import { TAPS, type TapFor } from '@cadence/core/programme/edits/words/taps.ts';
import { looked, ROW_SPANS } from '../desk/view.ts';
import type { HandsProps } from '../picture/Hands.tsx';
import { PictureView } from '../picture/PictureView.tsx';
import { Transport } from '../picture/Transport.tsx';
import { StrandMenu } from '../strands/StrandMenu.tsx';
import { CuePanel } from './panels/CuePanel.tsx';
import { HandPanel } from './panels/HandPanel.tsx';
import { TimesMenu } from './TimesMenu.tsx';
import { Rows } from './rows/Rows.tsx';
import { SnapMenu } from './rows/SnapMenu.tsx';
import { HANDS, NAMES, type Hand } from '@cadence/core/rows/things.ts';
import { showWindow } from '../desk/windows.ts';

/**
 * After a choice above them by pointer the keys are for the rows again, not for the choice.
 *
 * At once: a key may come before the next frame. A label is clicked by pointer, and then clicks
 * its input itself; by keyboard the input alone is clicked.
 */
const toRows = (() => {
  let byPointer = false;
  return ({ target }: MouseEvent): void => {
    const isInput = target instanceof HTMLInputElement;
    if (isInput && byPointer)
      document.querySelector<HTMLElement>('[data-keys]')?.focus({ preventScroll: true });
    byPointer = !isInput;
  };
})();

/** What is put by hand on the picture is put for the cue alone. */
const placing: HandsProps['change'] = ({ id }, part) => setStyle(openNow().programme, [id], part);

export default function TimingPlace() {
  const { secondsARow, hand, scrub, tapFor } = useApp((state) => state.view);
  const dispatch = useAppDispatch();
  const selection = useApp((state) => state.view.selection);
  const cue = useShown((programme) => programme.cues[selection.at(-1) ?? '']);
  return (
    <main className="place">
      <section className="page" aria-label="Rows">
        <div className="bar">
          <span className="quiet">Seconds a row</span>
          <SegmentedControl
            aria-label="Seconds a row"
            data={ROW_SPANS.map(String)}
            value={String(secondsARow)}
            onChange={(value) => act.setRow(Number(value))}
            onClick={toRows}
          />
          <SnapMenu />
          <Tooltip label="Sound while dragging (O)">
            <Button
              aria-label="Sound while dragging"
              aria-pressed={scrub}
              onClick={act.toggleScrub}
            >
              {scrub ? <IconVolume size={16} /> : <IconVolumeOff size={16} />}
            </Button>
          </Tooltip>
          <StrandMenu />
          <span className="spring" />
          <span className="quiet">Tap ; for</span>
          <Select
            size="xs"
            w={92}
            aria-label="Tap for"
            data={[...TAPS]}
            value={tapFor}
            allowDeselect={false}
            onChange={(value) => value && dispatch(looked({ tapFor: value as TapFor }))}
          />
        </div>
        <div className="bar">
          <span className="quiet">In hand</span>
          <SegmentedControl
            aria-label="In hand"
            data={HANDS.map((value) => ({ value, label: NAMES[value].many }))}
            value={hand}
            onChange={(value) => hold.setHand(value as Hand)}
            onClick={toRows}
          />
          <span className="spring" />
          {hand === 'cues' ? <CueActions /> : <MarkActions />}
        </div>
        <Rows />
      </section>
      <aside className="side">
        <PictureView hands={{ cue, change: placing }} />
        <Transport />
        {hand === 'cues' ? <CuePanel /> : <HandPanel hand={hand} />}
      </aside>
    </main>
  );
}

function CueActions() {
  const cues = useShown((programme) => currentCues(programme).length);
  const pieces = useShown((programme) => currentPieces(programme).length);
  return (
    <>
      <Button onClick={() => showWindow('weave')}>Weave</Button>
      <TimesMenu />
      <Button onClick={act.addCue}>New cue</Button>
      {pieces > 0 && (
        <Button variant={cues === 0 ? 'filled' : 'default'} onClick={act.makeCues}>
          {cues === 0 ? 'Make cues from pieces' : 'Make cues'}
        </Button>
      )}
    </>
  );
}

const MarkActions = () => (
  <>
    <Button onClick={() => showWindow('makeMarks')}>Make marks</Button>
    <Button onClick={() => showWindow('marks')}>Table of marks</Button>
  </>
);
