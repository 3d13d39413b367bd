/** Handover: proof on the left, what is written on the right. */
import { Button } from '@mantine/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { IconAlertTriangle, IconCheck, IconCircleX } from '@tabler/icons-react';
import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Finding } from '@cadence/core/check/finding.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { currentCues, useAppDispatch, useOpen } from '../desk/store.ts';
import { selected } from '../desk/view.ts';
import { player } from '../playback/player.ts';
import { PictureView } from '../picture/PictureView.tsx';
import { FindingMenu } from '../proof/FindingMenu.tsx';
import { figureOf, mendingOf } from '@cadence/core/check/mending.ts';
import { grouped } from '@cadence/core/check/grouping.ts';
import { FixAll } from '../proof/FixAll.tsx';
import { mendGroup } from '../proof/mending.ts';
import { SpeedChart } from '../proof/SpeedChart.tsx';
import { useFindings } from '../proof/useFindings.ts';
import { Write } from './Write.tsx';
import classes from './HandoverPlace.module.css';

const NONE: readonly Finding[] = [];

export default function HandoverPlace() {
  const found = useFindings();
  const findings = found ?? NONE;
  const groups = useMemo(() => grouped(findings), [findings]);
  const programme = useOpen((open) => open.programme);
  const { facts, cues } = programme;
  const [at, setAt] = useState(-1);
  /** How often findings were stepped through by key: the focus goes along, so that Enter mends. */
  const [stepped, setStepped] = useState(0);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: groups.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 39,
    overscan: 8,
  });
  const wrong = findings.filter((finding) => finding.severity === 'wrong').length;

  const go = (place: number) => {
    const finding = groups[place]?.finding;
    if (!finding) return;
    setAt(place);
    dispatch(selected([finding.cue]));
    player.pause();
    player.seek(finding.at);
    rows.scrollToIndex(place);
  };
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement &&
        event.target.closest('input, textarea, [role=dialog]');
      if (typing || event.key.toLowerCase() !== 'f' || event.ctrlKey || event.metaKey) return;
      go((at + (event.shiftKey ? -1 : 1) + groups.length) % Math.max(1, groups.length));
      setStepped((steps) => steps + 1);
    };
    document.addEventListener('keydown', key);
    return () => document.removeEventListener('keydown', key);
  });

  const focusRow = useEffectEvent(() =>
    scroller.current?.querySelector<HTMLElement>(`li[data-index="${at}"] button`)?.focus(),
  );
  useEffect(() => {
    // The row is there once it was scrolled to.
    const frame = requestAnimationFrame(() => stepped > 0 && focusRow());
    return () => cancelAnimationFrame(frame);
  }, [stepped]);

  return (
    <main className="place">
      <section className="page" aria-label="Proof">
        <div className="bar">
          <h2>Proof</h2>
          <span className="quiet">
            {found === null
              ? 'Reading …'
              : findings.length === 0
                ? 'No findings. Ready to write.'
                : `${plural(findings.length, 'finding')}, ${wrong === 0 ? 'no errors' : plural(wrong, 'error')}`}
          </span>
          <span className="spring" />
          {findings.length > 0 && (
            <Button onClick={() => go((at + 1) % groups.length)}>
              Next finding <kbd className="key">F</kbd>
            </Button>
          )}
        </div>
        <FixAll findings={findings} />
        <div ref={scroller} className={classes.findings}>
          {found?.length === 0 && (
            <div className="empty">
              <IconCheck size={30} color="var(--woad)" />
              <p>
                {currentCues(programme).length > 0
                  ? 'Every cue can be read in its time and fits the frame.'
                  : 'There are no cues yet.'}
              </p>
            </div>
          )}
          <ol style={{ height: rows.getTotalSize() }}>
            {rows.getVirtualItems().map((item) => {
              const group = groups[item.index];
              if (!group) return null;
              const { finding, places } = group;
              const text = plainText(cues[finding.cue]?.text ?? []).replace(/\n/g, ' ');
              return (
                <li
                  key={item.key}
                  data-index={item.index}
                  className={item.index === at ? classes.on : ''}
                  style={{ transform: `translateY(${item.start}px)` }}
                >
                  {finding.severity === 'wrong' ? (
                    <IconCircleX size={19} stroke={1.7} color="var(--alarm)" aria-label="Error" />
                  ) : (
                    <IconAlertTriangle
                      size={19}
                      stroke={1.7}
                      color="var(--weld-text)"
                      aria-label="Warning"
                    />
                  )}
                  <span className={classes.time}>
                    {formatTimecode(add(finding.at, facts.startTimecode), facts.frameRate)}
                  </span>
                  <span className={classes.what} title={finding.message}>
                    {finding.message}
                    {text && (
                      <>
                        : <b>{text}</b>
                      </>
                    )}
                  </span>
                  <span className="quiet">
                    {places.length > 1 ? plural(places.length, 'place') : figureOf(finding)}
                  </span>
                  <span className={classes.doing}>
                    {mendingOf(finding) !== undefined && (
                      <Button
                        onClick={() => {
                          mendGroup(group);
                          // The next one takes its place.
                          setAt(item.index - 1);
                        }}
                      >
                        {mendingOf(finding)}
                      </Button>
                    )}
                    <FindingMenu finding={finding} />
                    <Button
                      onClick={() => {
                        go(item.index);
                        void navigate(
                          `../${cues[finding.cue]?.passage ? 'travel' : finding.kind === 'empty' ? 'words' : 'timing'}`,
                        );
                      }}
                    >
                      {cues[finding.cue]?.passage ? 'Go to passage' : 'Go to cue'}
                    </Button>
                  </span>
                </li>
              );
            })}
          </ol>
        </div>
        <div className={classes.below}>
          <div className={classes.chart}>
            <h3>Characters a second, along the programme</h3>
            <SpeedChart
              pick={(id) => {
                dispatch(selected([id]));
                const cue = cues[id];
                if (cue) player.seek(cue.start);
              }}
            />
          </div>
          <div className={classes.picture}>
            <PictureView />
          </div>
        </div>
      </section>
      <aside className="side" aria-label="Write">
        <Write wrong={wrong} />
      </aside>
    </main>
  );
}
