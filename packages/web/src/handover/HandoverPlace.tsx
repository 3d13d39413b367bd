/** Handover: proof on the left, what is written on the right. */
import { Button } from '@mantine/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { IconAlertTriangle, IconCheck, IconCircleX } from '@tabler/icons-react';
import { Suspense, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { lazyPart, patiently } from '../app/patiently.ts';
import { useNavigate } from 'react-router';
import type { Finding } from '@cadence/core/check/finding.ts';
import { findingsOf } from '@cadence/core/check/findings.ts';
import { fitLines } from '@cadence/core/programme/edits/fitLines.ts';
import { setText } from '@cadence/core/programme/edits/reword.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';
import { make, newId } from '../app/edit.ts';
import { say, wordsOf } from '../app/say.ts';
import { plural } from '../app/format.ts';
import { currentCues, openNow, useAppDispatch, useOpen } from '../app/store.ts';
import { selected } from '../app/view.ts';
import { player } from '../playback/player.ts';
import { PictureView } from '../picture/PictureView.tsx';
import { Write } from './Write.tsx';
import classes from './HandoverPlace.module.css';

const SpeedChart = lazyPart(() => import('../words/SpeedChart.tsx'));

/** Findings, measured anew when the programme rests; with the frame and the fonts once those are there. */
function useFindings(): readonly Finding[] {
  const programme = useDeferredValue(useOpen((open) => open.programme));
  const [shelf, setShelf] = useState<FontShelf | undefined>();
  useEffect(() => {
    let stale = false;
    void patiently(() => import('../picture/studio.ts'))
      .then(async ({ prepareAll, shelf: loaded }) => {
        await prepareAll(programme);
        if (!stale) setShelf(loaded);
      })
      .catch((error: unknown) => say.problem(`Text was not measured: ${wordsOf(error)}`));
    return () => {
      stale = true;
    };
  }, [programme]);
  return useMemo(() => findingsOf(programme, shelf), [programme, shelf]);
}

export default function HandoverPlace() {
  const findings = useFindings();
  const programme = useOpen((open) => open.programme);
  const { facts, cues } = programme;
  const [at, setAt] = useState(-1);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: findings.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 39,
    overscan: 8,
  });
  const wrong = findings.filter((finding) => finding.severity === 'wrong').length;

  const go = (place: number) => {
    const finding = findings[place];
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
      go((at + (event.shiftKey ? -1 : 1) + findings.length) % Math.max(1, findings.length));
    };
    document.addEventListener('keydown', key);
    return () => document.removeEventListener('keydown', key);
  });

  return (
    <main className="place">
      <section className="page" aria-label="Proof">
        <div className="bar">
          <h2>Proof</h2>
          <span className="quiet">
            {findings.length === 0
              ? 'Nothing found. It can leave.'
              : `${plural(findings.length, 'finding')}, ${wrong === 0 ? 'none that must be mended' : `${wrong} to be mended`}`}
          </span>
          <span className="spring" />
          {findings.length > 0 && (
            <Button onClick={() => go((at + 1) % findings.length)}>
              Next finding <kbd className="key">F</kbd>
            </Button>
          )}
        </div>
        <div ref={scroller} className={classes.findings}>
          {findings.length === 0 && (
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
              const finding = findings[item.index];
              if (!finding) return null;
              const text = plainText(cues[finding.cue]?.text ?? []).replace(/\n/g, ' ');
              return (
                <li
                  key={item.key}
                  className={item.index === at ? classes.on : ''}
                  style={{ transform: `translateY(${item.start}px)` }}
                >
                  {finding.severity === 'wrong' ? (
                    <IconCircleX
                      size={19}
                      stroke={1.7}
                      color="var(--alarm)"
                      aria-label="To be mended"
                    />
                  ) : (
                    <IconAlertTriangle
                      size={19}
                      stroke={1.7}
                      color="var(--weld-text)"
                      aria-label="Doubtful"
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
                  <span className="quiet">{figureOf(finding)}</span>
                  <span className={classes.doing}>
                    {isMendable(finding) && <Button onClick={() => mend(finding)}>Mend it</Button>}
                    <Button
                      onClick={() => {
                        go(item.index);
                        void navigate(`../${finding.kind === 'empty' ? 'words' : 'timing'}`);
                      }}
                    >
                      Go to it
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
            <Suspense fallback={null}>
              <SpeedChart
                pick={(id) => {
                  dispatch(selected([id]));
                  const cue = cues[id];
                  if (cue) player.seek(cue.start);
                }}
              />
            </Suspense>
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

/** What is mended by breaking its lines anew. */
const broken: ReadonlySet<Finding['kind']> = new Set(['long line', 'too many lines']);

const isMendable = ({ kind, mend }: Finding): boolean => mend !== undefined || broken.has(kind);

/** Gives a cue the text that mends it, as an edit of its own. */
function mend({ kind, cue, mend: text }: Finding): void {
  const { programme } = openNow();
  const edit = broken.has(kind)
    ? fitLines(programme, [cue], newId)
    : setText(programme, cue, text ?? '');
  const made = make({ ...edit, name: `Mend: ${kind}` });
  if (!made) say.note('One of its words is wider than a line and cannot be broken.');
}

function figureOf(finding: Finding): string {
  if (finding.figure === undefined) return '';
  const limit = finding.limit ? `, limit ${finding.limit}` : '';
  // Units are kept in the plural; one of something is said as one.
  const unit = finding.figure === 1 ? finding.unit?.replace(/s$/, '') : finding.unit;
  return `${finding.figure} ${unit ?? ''}${limit}`;
}
