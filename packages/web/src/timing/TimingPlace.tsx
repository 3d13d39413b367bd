/** Timing: the sound in rows, the cues under it, and the picture beside it. */
import { Button, SegmentedControl, Switch } from '@mantine/core';
import { piecesInOrder } from '@cadence/core/programme/order.ts';
import { act } from '../app/actions.ts';
import { currentCues, useApp, useShown } from '../app/store.ts';
import { ROW_SPANS } from '../app/view.ts';
import { PictureView } from '../picture/PictureView.tsx';
import { Transport } from '../playback/Transport.tsx';
import { CuePanel } from './CuePanel.tsx';
import { Rows } from './Rows.tsx';

export default function TimingPlace() {
  const secondsARow = useApp((state) => state.view.secondsARow);
  const snap = useApp((state) => state.view.snap);
  const cues = useShown((programme) => currentCues(programme).length);
  const pieces = useShown((programme) => piecesInOrder(programme, programme.facts.sound).length);
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
          />
          <Switch
            size="xs"
            label="Snap to edges"
            checked={snap}
            onChange={act.toggleSnap}
            color="var(--indigo)"
            ml={8}
          />
          <span className="spring" />
          <Button onClick={act.closeGaps}>Close gaps</Button>
          <Button onClick={act.addCue}>New cue</Button>
          {pieces > 0 && (
            <Button variant={cues === 0 ? 'filled' : 'default'} onClick={act.makeCues}>
              Make cues from pieces
            </Button>
          )}
        </div>
        <Rows />
      </section>
      <aside className="side">
        <PictureView />
        <Transport />
        <CuePanel />
      </aside>
    </main>
  );
}
