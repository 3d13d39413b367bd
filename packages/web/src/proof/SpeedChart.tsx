/** Characters a second, cue by cue, along the programme, against the limit. */
import '../kit/chart.ts';
import { useDeferredValue, useMemo } from 'react';
import { Bar } from 'react-chartjs-2';
import type { Cue, Id } from '@cadence/core/programme/programme.ts';
import { easeOf, readingOf } from '@cadence/core/pace/reading.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { useDyes } from '../kit/dyes.ts';
import { plural } from '../kit/format.ts';
import { currentCues, useOpen } from '../desk/store.ts';
import classes from './SpeedChart.module.css';

/** More bars than this could not be told apart: then each stands for the fastest of several cues. */
const MOST_BARS = 120;

interface Bin {
  readonly cue: Cue;
  readonly speed: number;
}

function binsOf(cues: readonly Cue[]): Bin[] {
  const size = Math.max(1, Math.ceil(cues.length / MOST_BARS));
  const bins: Bin[] = [];
  for (let at = 0; at < cues.length; at += size) {
    const speeds = cues
      .slice(at, at + size)
      .map((cue) => ({ cue, speed: readingOf(cue).charactersASecond }));
    bins.push(speeds.reduce((fastest, each) => (each.speed > fastest.speed ? each : fastest)));
  }
  return bins;
}

export default function SpeedChart({ pick }: { pick: (cue: Id) => void }) {
  const cues = useDeferredValue(useOpen((open) => currentCues(open.programme)));
  const limit = useOpen((open) => open.programme.facts.profile.charactersASecond);
  const dyes = useDyes();
  const bins = useMemo(() => binsOf(cues), [cues]);
  const fast = useMemo(
    () => cues.filter((cue) => readingOf(cue).charactersASecond > limit).length,
    [cues, limit],
  );
  const colours = { easy: dyes.woad, brisk: dyes.weld, fast: dyes.alarm };
  return (
    <>
      <div className={classes.chart} style={{ position: 'relative' }}>
        <Bar
          role="img"
          aria-label={`Characters a second, cue by cue; ${fast} over the limit of ${limit}`}
          data={{
            labels: bins.map((bin) => plainText(bin.cue.text).replace(/\n/g, ' ')),
            datasets: [
              {
                data: bins.map((bin) => bin.speed),
                backgroundColor: bins.map((bin) => colours[easeOf(bin.speed, limit)]),
                barPercentage: 0.9,
                categoryPercentage: 0.9,
              },
            ],
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            onClick: (_event, [hit]) => {
              const bin = hit && bins[hit.index];
              if (bin) pick(bin.cue.id);
            },
            plugins: {
              tooltip: {
                callbacks: {
                  label: (item) => `${Number(item.raw).toFixed(1)} characters a second`,
                },
              },
            },
            scales: {
              x: { display: false },
              y: {
                suggestedMax: limit * 1.15,
                ticks: { color: dyes.slate, maxTicksLimit: 5 },
                grid: { color: (line) => (line.tick.value === limit ? dyes.alarm : dyes.flax) },
              },
            },
          }}
        />
      </div>
      <span className="quiet">
        Characters a second, cue by cue.{' '}
        {fast > 0
          ? `${plural(fast, 'cue')} over the limit of ${limit}.`
          : `None over the limit of ${limit}.`}
      </span>
    </>
  );
}
