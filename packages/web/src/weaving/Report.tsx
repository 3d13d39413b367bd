/** How the words are woven: in sum, along the programme, and word by word where it matters. */
import '../kit/chart.ts';
import { Button } from '@mantine/core';
import type { ChartOptions } from 'chart.js';
import { useMemo, useState } from 'react';
import { Bar } from 'react-chartjs-2';
import { wordsAsCsv, wordsAsJson } from '@cadence/core/formats/words/write.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import {
  reportedStretches,
  reportedWords,
  unwritten,
  type ReportedStretch,
  type ReportedWord,
} from '@cadence/core/programme/woven/wovenReport.ts';
import type { WordState } from '@cadence/core/programme/woven/wordState.ts';
import { add, subtract, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { SURE } from '@cadence/core/weave/confidence.ts';
import { useDyes } from '../kit/dyes.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { fileName, saveText } from '../kit/save.ts';
import { currentStrand, openNow, store } from '../desk/store.ts';
import { selected } from '../desk/view.ts';
import type { WindowProps } from '../desk/windows.ts';
import windows from '../kit/windows.module.css';
import { player } from '../playback/player.ts';
import { playAround } from './weaving.ts';
import classes from './Report.module.css';

/** More bars than this cannot be told apart. */
const MOST_BARS = 110;
const SHOWN = 200;

export default function Report({ close }: WindowProps) {
  const [programme] = useState(() => openNow().programme);
  const words = useMemo(() => reportedWords(programme, currentStrand(programme)), [programme]);
  const stretches = useMemo(
    () => reportedStretches(programme, words, MOST_BARS),
    [programme, words],
  );
  const name = fileName(programme.facts.title);
  const woven = words.filter(({ start }) => start !== null).length;
  return (
    <div className={windows.form}>
      <Sums programme={programme} words={words} />
      {woven > 0 && (
        <>
          <Along programme={programme} stretches={stretches} />
          <Doubts programme={programme} words={words} />
        </>
      )}
      <div className={windows.foot}>
        <Button
          disabled={woven === 0}
          onClick={() => saveText(wordsAsCsv(words), `${name}-words.csv`, 'text/csv')}
        >
          Write CSV
        </Button>
        <Button
          disabled={woven === 0}
          onClick={() => saveText(wordsAsJson(words), `${name}-words.json`, 'application/json')}
        >
          Write JSON
        </Button>
        <span className="spring" />
        <Button variant="filled" onClick={close}>
          Close
        </Button>
      </div>
    </div>
  );
}

const TOLD: readonly (readonly [WordState, string])[] = [
  ['sure', 'sure'],
  ['doubtful', 'doubtful'],
  ['pinned', 'pinned'],
  ['spread', 'spread evenly'],
  ['not heard', 'not heard'],
  ['not woven', 'not woven yet'],
];

interface PartProps {
  readonly programme: Programme;
  readonly words: readonly ReportedWord[];
}

function Sums({ programme, words }: PartProps) {
  const said = unwritten(programme, words);
  const seconds = said.reduce((sum, { start, end }) => sum + toSeconds(subtract(end, start)), 0);
  const anyWoven = words.some(({ start }) => start !== null);
  if (!anyWoven) return <p role="status">The words have no times yet. Weave them first (Z).</p>;
  return (
    <dl className={classes.sums} aria-label="Totals">
      {TOLD.map(([state, label]) => {
        const count = words.filter((word) => word.state === state).length;
        if (count === 0 && state !== 'sure' && state !== 'doubtful') return null;
        return (
          <div key={state} data-state={state}>
            <dt>{label}</dt>
            <dd>{plural(count, 'word')}</dd>
          </div>
        );
      })}
      <div data-state="unwritten">
        <dt>speech without text</dt>
        <dd>{seconds.toFixed(1)} s of speech</dd>
      </div>
    </dl>
  );
}

/** Rate, confidence and disagreement along the programme; a click goes there. */
function Along({
  programme,
  stretches,
}: {
  programme: Programme;
  stretches: readonly ReportedStretch[];
}) {
  const dyes = useDyes();
  const { frameRate, startTimecode } = programme.facts;
  const code = (time: Ticks) => formatTimecode(add(time, startTimecode), frameRate);
  const labels = stretches.map(({ start }) => code(start));
  const options = (unit: string, timed = false): ChartOptions<'bar'> => ({
    animation: false,
    maintainAspectRatio: false,
    onClick: (_event, [hit]) => {
      const stretch = hit && stretches[hit.index];
      if (stretch) player.seek(stretch.start);
    },
    plugins: {
      tooltip: { callbacks: { label: ({ raw }) => `${Number(raw).toFixed(1)} ${unit}` } },
    },
    scales: {
      x: {
        display: timed,
        stacked: true,
        ticks: { color: dyes.slate, maxTicksLimit: 7, maxRotation: 0, align: 'start' },
        grid: { display: false },
      },
      y: {
        beginAtZero: true,
        stacked: true,
        ticks: { color: dyes.slate, maxTicksLimit: 4 },
        grid: { color: dyes.flax },
        afterFit: (axis) => {
          axis.width = 44;
        },
      },
    },
  });
  const look = { barPercentage: 0.94, categoryPercentage: 0.96 };
  return (
    <>
      <figure className={classes.chart}>
        <figcaption>Words a minute in speech; doubtful stretches in red</figcaption>
        <div>
          <Bar
            role="img"
            aria-label="Words a minute along the programme"
            data={{
              labels,
              datasets: [
                {
                  data: stretches.map(({ wordsAMinute }) => wordsAMinute),
                  backgroundColor: stretches.map(({ confidence }) =>
                    confidence !== null && confidence < SURE ? dyes.madder : dyes.woad,
                  ),
                  ...look,
                },
              ],
            }}
            options={options('words a minute')}
          />
        </div>
      </figure>
      <figure className={classes.chart}>
        <figcaption>Confidence, %</figcaption>
        <div>
          <Bar
            role="img"
            aria-label="Confidence of the words along the programme"
            data={{
              labels,
              datasets: [
                {
                  data: stretches.map(({ confidence }) =>
                    confidence === null ? null : 100 * confidence,
                  ),
                  backgroundColor: dyes.indigo,
                  ...look,
                },
              ],
            }}
            options={options('% confidence')}
          />
        </div>
      </figure>
      <figure className={classes.chart}>
        <figcaption>Disagreement: seconds of speech without text, words not heard</figcaption>
        <div>
          <Bar
            role="img"
            aria-label="Disagreement of text and sound along the programme"
            data={{
              labels,
              datasets: [
                {
                  label: 's of speech',
                  data: stretches.map((stretch) => stretch.unwritten),
                  backgroundColor: dyes.weld,
                  ...look,
                },
                {
                  label: 'words',
                  data: stretches.map((stretch) => stretch.unheard),
                  backgroundColor: dyes.alarm,
                  ...look,
                },
              ],
            }}
            options={options('s or words', true)}
          />
        </div>
      </figure>
    </>
  );
}

/** What is to be looked at: doubtful words, words not heard, speech without words. */
function Doubts({ programme, words }: PartProps) {
  const { frameRate, startTimecode } = programme.facts;
  const code = (time: Ticks) => formatTimecode(add(time, startTimecode), frameRate);
  let last: Ticks = 0 as Ticks;
  const rows = words.flatMap((word) => {
    last = word.start ?? last;
    if (word.state !== 'doubtful' && word.state !== 'not heard') return [];
    const why =
      word.state === 'doubtful'
        ? `doubtful, confidence ${String(Math.round(100 * (word.confidence ?? 0)))} %`
        : 'not heard';
    return [{ at: last, end: word.end ?? last, what: word.text, why, cue: word.cue }];
  });
  const spoken = unwritten(programme, words).map(({ start, end }) => ({
    at: start,
    end,
    what: `${toSeconds(subtract(end, start)).toFixed(1)} s of speech`,
    why: 'no text',
    cue: undefined,
  }));
  const all = [...rows, ...spoken].sort((a, b) => a.at - b.at);
  if (all.length === 0) return <p>Every word was heard with confidence.</p>;
  return (
    <div className={`${windows.preview} ${classes.doubts}`}>
      <table aria-label="Places to check">
        <thead>
          <tr>
            <th>Time</th>
            <th>Text</th>
            <th>Reason</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {all.slice(0, SHOWN).map(({ at, end, what, why, cue }, place) => (
            <tr key={place}>
              <td>{code(at)}</td>
              <td>{what}</td>
              <td>{why}</td>
              <td>
                <Button
                  size="compact-xs"
                  onClick={() => {
                    if (cue !== undefined) store.dispatch(selected([cue]));
                    playAround({ start: at, end });
                  }}
                >
                  Play
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {all.length > SHOWN && (
        <p className={windows.more}>And {plural(all.length - SHOWN, 'place')} more.</p>
      )}
    </div>
  );
}
