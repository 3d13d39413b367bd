/** What was heard, where looking is quicker than reading: onset strength, tempo, levels, pauses. */
import '../app/chart.ts';
import type { ChartOptions } from 'chart.js';
import { useInViewport } from '@mantine/hooks';
import { Bar, Line } from 'react-chartjs-2';
import { useMemo, useState, type ReactNode } from 'react';
import { momentaryLufs } from '@cadence/core/listen/loudness.ts';
import type { KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { FRAMES_A_SECOND } from '@cadence/core/listen/spectra.ts';
import { sureOf, tempoOf } from '@cadence/core/listen/pulse.ts';
import type { Beat, Piece } from '@cadence/core/programme/programme.ts';
import { subtract, toSeconds } from '@cadence/core/time/ticks.ts';
import { InTurn } from '../app/InTurn.tsx';
import { useDyes, type Dyes } from '../app/dyes.ts';
import classes from './MaterialPlace.module.css';

interface PlotsProps {
  readonly heard: KeptHeard;
  readonly pieces: readonly Piece[];
  readonly beats: readonly Beat[];
  /** In seconds. */
  readonly duration: number;
}

export default function Plots({ heard, pieces, beats, duration }: PlotsProps) {
  return (
    <div className={classes.plots}>
      <InTurn>
        <Levels heard={heard} />
        {pieces.length > 2 && <Pauses pieces={pieces} />}
        {beats.length > 2 && <Tempo beats={beats} duration={duration} />}
        {beats.length > 2 && <Sureness heard={heard} beats={beats} duration={duration} />}
        <Onsets heard={heard} duration={duration} />
      </InTurn>
    </div>
  );
}

/** How many points a curve is drawn with at most. */
const POINTS = 240;

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

function axes(
  dyes: Dyes,
  y: string,
  time?: number,
  highest?: number,
): ChartOptions<'line'> & ChartOptions<'bar'> {
  return {
    animation: false,
    maintainAspectRatio: false,
    events: [],
    scales: {
      x: {
        ...(time !== undefined && { type: 'linear', min: 0, max: time }),
        ticks: {
          color: dyes.slate,
          maxRotation: 0,
          autoSkip: true,
          maxTicksLimit: 7,
          font: { size: 10.5 },
          ...(time !== undefined && { callback: (value) => clock(Number(value)) }),
        },
        grid: { display: false },
      },
      y: {
        ...(highest !== undefined && { min: 0, max: highest }),
        title: { display: true, text: y, color: dyes.slate, font: { size: 10.5 } },
        ticks: { color: dyes.slate, maxTicksLimit: 4, font: { size: 10.5 } },
        grid: { color: dyes.flax },
      },
    },
  } as ChartOptions<'line'> & ChartOptions<'bar'>;
}

interface PlotProps {
  readonly title: string;
  /** Said where the picture cannot be seen. */
  readonly label?: string;
  readonly children: ReactNode;
}

/** A plot, drawn when it first comes into sight. */
function Plot({ title, label = title, children }: PlotProps) {
  const { ref, inViewport } = useInViewport();
  const [seen, setSeen] = useState(false);
  if (inViewport && !seen) setSeen(true);
  return (
    <figure className={classes.plot} role="img" aria-label={label} ref={ref}>
      <figcaption>{title}</figcaption>
      <div>{seen && children}</div>
    </figure>
  );
}

interface BarsProps extends Omit<PlotProps, 'children'> {
  readonly unit: string;
  readonly labels: string[];
  readonly values: number[];
  readonly dye: 'indigo' | 'woad';
}

function Bars({ title, label, unit, labels, values, dye }: BarsProps) {
  const dyes = useDyes();
  return (
    <Plot title={title} {...(label !== undefined && { label })}>
      <Bar
        data={{ labels, datasets: [{ data: values, backgroundColor: dyes[dye] }] }}
        options={axes(dyes, unit)}
      />
    </Plot>
  );
}

interface CurveProps extends Omit<PlotProps, 'children'> {
  readonly unit: string;
  readonly points: { x: number; y: number }[];
  /** In seconds. */
  readonly duration: number;
  readonly dye: 'weld' | 'madder' | 'indigo';
  /** Of the unit, where it is known. */
  readonly highest?: number;
  readonly stepped?: boolean;
}

function Curve({ title, unit, points, duration, dye, highest, stepped = false }: CurveProps) {
  const dyes = useDyes();
  const line = { borderColor: dyes[dye], borderWidth: stepped ? 2 : 1, pointRadius: 0, stepped };
  return (
    <Plot title={title}>
      <Line
        data={{ datasets: [{ data: points, ...line }] }}
        options={axes(dyes, unit, duration, highest)}
      />
    </Plot>
  );
}

/** How much of the sound lies at which momentary loudness, in steps of 3 LU. */
function Levels({ heard }: { heard: KeptHeard }) {
  const { momentary } = heard.level;
  const [labels, values] = useMemo(() => {
    const steps = Array.from({ length: 22 }, (_, at) => -63 + 3 * at);
    const counts = steps.map(() => 0);
    for (const kept of momentary) {
      const at = Math.floor((momentaryLufs(kept) + 64.5) / 3);
      if (at >= 0 && at < counts.length) counts[at] = (counts[at] ?? 0) + 1;
    }
    const total = Math.max(1, momentary.length);
    return [steps.map(String), counts.map((count) => (100 * count) / total)];
  }, [momentary]);
  const title = 'Loudness, LUFS over 400 ms';
  return <Bars title={title} unit="% of it" labels={labels} values={values} dye="indigo" />;
}

/** Upper bounds of the bins of pauses, in seconds; the last holds all that are longer. */
const BOUNDS = [0.3, 0.4, 0.5, 0.6, 0.8, 1, 1.5, 2, 3, Infinity];
const BOUND_NAMES = BOUNDS.map((bound) => (bound === Infinity ? 'more' : `${bound} s`));

function Pauses({ pieces }: { pieces: readonly Piece[] }) {
  const pauses = pieces
    .slice(1)
    .map((piece, at) => toSeconds(subtract(piece.start, pieces[at]?.end ?? piece.start)));
  const counts = BOUNDS.map(
    (bound, at) => pauses.filter((pause) => pause < bound && pause >= (BOUNDS[at - 1] ?? 0)).length,
  );
  const said = counts.map((count, at) => `${count} under ${BOUNDS[at]} s`).join(', ');
  return (
    <Bars
      title="Pauses, by length"
      label={`Pauses by length: ${said}`}
      unit="pauses"
      labels={BOUND_NAMES}
      values={counts}
      dye="woad"
    />
  );
}

function Tempo({ beats, duration }: { beats: readonly Beat[]; duration: number }) {
  const points = useMemo(() => {
    const times = beats.map(({ at }) => toSeconds(at));
    const curve = tempoOf(times).map(({ at, bpm }) => ({ x: at, y: bpm }));
    const last = curve.at(-1);
    return last ? [...curve, { x: times.at(-1) ?? last.x, y: last.y }] : [];
  }, [beats]);
  const title = 'Tempo over time';
  return (
    <Curve
      title={title}
      unit="beats a minute"
      points={points}
      duration={duration}
      dye="weld"
      stepped
    />
  );
}

interface SurenessProps {
  readonly heard: KeptHeard;
  readonly beats: readonly Beat[];
  readonly duration: number;
}

/** How sure the program is of the beats as they stand now, over time. */
function Sureness({ heard, beats, duration }: SurenessProps) {
  const points = useMemo(() => {
    const times = beats.map(({ at }) => toSeconds(at));
    const sure = sureOf(heard.pulse, times);
    const each = Math.max(1, Math.ceil(times.length / POINTS));
    return times.flatMap((x, at) => (at % each === 0 ? [{ x, y: 100 * (sure[at] ?? 0) }] : []));
  }, [heard, beats]);
  return (
    <Curve
      title="How sure of the beats"
      unit="% sure"
      points={points}
      duration={duration}
      highest={100}
      dye="indigo"
    />
  );
}

function Onsets({ heard, duration }: { heard: KeptHeard; duration: number }) {
  const { onsets } = heard.pulse;
  const points = useMemo(() => {
    const most = onsets.reduce((high, value) => Math.max(high, value), 1);
    const each = onsets.length / POINTS;
    return Array.from({ length: POINTS }, (_, at) => {
      let high = 0;
      for (let frame = Math.floor(at * each); frame < (at + 1) * each; frame++)
        high = Math.max(high, onsets[frame] ?? 0);
      return { x: (at * each) / FRAMES_A_SECOND, y: (100 * high) / most };
    });
  }, [onsets]);
  const title = 'Onset strength over time';
  return (
    <Curve
      title={title}
      unit="% of the strongest"
      points={points}
      duration={duration}
      dye="madder"
    />
  );
}
