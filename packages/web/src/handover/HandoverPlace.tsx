/** Handover: proof on the left, what is written on the right. */
import { Button, Checkbox } from '@mantine/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { IconAlertTriangle, IconCheck, IconCircleX } from '@tabler/icons-react';
import { Suspense, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { lazyPart, patiently } from '../app/patiently.ts';
import { useNavigate } from 'react-router';
import { FORMATS, type Format } from '@cadence/core/formats/formats.ts';
import { findingsOf, type Finding } from '@cadence/core/check/findings.ts';
import { captionsOf } from '@cadence/core/programme/captions.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';
import { fileUrl } from '../app/api.ts';
import { say, wordsOf } from '../app/say.ts';
import { formatBytes, plural } from '../app/format.ts';
import { currentCues, currentStrand, openNow, useAppDispatch, useOpen } from '../app/store.ts';
import { selected } from '../app/view.ts';
import { player } from '../playback/player.ts';
import { PictureView } from '../picture/PictureView.tsx';
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
                  <Button
                    onClick={() => {
                      go(item.index);
                      void navigate(`../${finding.kind === 'empty' ? 'words' : 'timing'}`);
                    }}
                  >
                    Go to it
                  </Button>
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

function figureOf(finding: Finding): string {
  if (finding.figure === undefined) return '';
  const limit = finding.limit ? `, limit ${finding.limit}` : '';
  // Units are kept in the plural; one of something is said as one.
  const unit = finding.figure === 1 ? finding.unit?.replace(/s$/, '') : finding.unit;
  return `${finding.figure} ${unit ?? ''}${limit}`;
}

interface WrittenFile {
  readonly name: string;
  readonly note: string;
  readonly url: string;
}

function Write({ wrong }: { wrong: number }) {
  const programme = useOpen((open) => open.programme);
  const id = useOpen((open) => open.id);
  const [chosen, setChosen] = useState<readonly string[]>(['srt', 'vtt']);
  const [written, setWritten] = useState<readonly WrittenFile[]>([]);
  const captions = useMemo(() => captionsOf(programme, currentStrand(programme)), [programme]);
  useEffect(() => () => written.forEach((file) => URL.revokeObjectURL(file.url)), [written]);

  const write = () => {
    const files = FORMATS.filter((format) => chosen.includes(format.name)).map((format) =>
      writeFile(format),
    );
    setWritten(files);
    files.forEach(save);
  };
  return (
    <>
      <h2>Write</h2>
      {FORMATS.map((format) => (
        <FormatCard
          key={format.name}
          format={format}
          captions={captions}
          on={chosen.includes(format.name)}
          toggle={() =>
            setChosen(
              chosen.includes(format.name)
                ? chosen.filter((name) => name !== format.name)
                : [...chosen, format.name],
            )
          }
        />
      ))}
      {wrong > 0 && (
        <p className="quiet">
          {plural(wrong, 'finding')} should be mended first. You can write all the same.
        </p>
      )}
      <div className="bar">
        <Button
          variant="filled"
          disabled={chosen.length === 0 || captions.length === 0}
          onClick={write}
        >
          Write {plural(chosen.length, 'file')}
        </Button>
        <Button component="a" href={fileUrl(id)} download>
          Save the programme as one file
        </Button>
      </div>
      {captions.length === 0 && (
        <p className="quiet">There is no text yet, so there is nothing to write.</p>
      )}
      {written.length > 0 && <h2>Written</h2>}
      {written.map((file) => (
        <div key={file.name} className={`card ${classes.written}`}>
          <IconCheck size={20} color="var(--woad)" />
          <span>
            <b>{file.name}</b>
            <small className="quiet">{file.note}</small>
          </span>
          <Button component="a" href={file.url} download={file.name}>
            Save again
          </Button>
        </div>
      ))}
    </>
  );
}

interface FormatProps {
  readonly format: Format;
  readonly captions: ReturnType<typeof captionsOf>;
  readonly on: boolean;
  readonly toggle: () => void;
}

function FormatCard({ format, captions, on, toggle }: FormatProps) {
  const lost = useMemo(() => format.write(captions).lost, [format, captions]);
  return (
    <label className={`card ${classes.format}`}>
      <Checkbox
        checked={on}
        onChange={toggle}
        color="var(--ink)"
        iconColor="var(--linen)"
        size="xs"
      />
      <span>
        <b>{format.title}</b>
        <small className="quiet">
          {plural(captions.length, 'cue')}.{' '}
          {lost.length === 0
            ? 'Everything in them can be held.'
            : `It cannot hold ${lost.map(({ kind, count }) => `${kind} of ${plural(count, 'cue')}`).join(', ')}.`}
        </small>
      </span>
    </label>
  );
}

/** Writes a file and reads it back; what does not come back equal is said. */
function writeFile(format: Format): WrittenFile {
  const { programme } = openNow();
  const captions = captionsOf(programme, currentStrand(programme));
  const { text } = format.write(captions);
  const back = format.read(text.replace(/\r\n/g, '\n')).captions;
  const equal =
    back.length === captions.length &&
    back.every((caption, at) => plainText(caption.text) === plainText(captions[at]?.text ?? []));
  const blob = new Blob([text], { type: `${format.mediaType};charset=utf-8` });
  return {
    name: `${fileName(programme.facts.title)}.${format.name}`,
    note: `${formatBytes(blob.size)}, ${equal ? 'read back and equal' : 'read back, not quite equal: look it over'}`,
    url: URL.createObjectURL(blob),
  };
}

/** A title as a file name that every system takes. */
function fileName(title: string): string {
  const plain = title
    .replace(/[^\p{L}\p{N} _-]/gu, '')
    .trim()
    .replace(/\s+/g, '-')
    .toLowerCase();
  return plain || 'subtitles';
}

function save(file: WrittenFile): void {
  const link = document.createElement('a');
  link.href = file.url;
  link.download = file.name;
  link.click();
}
