/** What was heard, where looking is quicker than reading: onset strength, tempo, levels, pauses. */
import { useElementSize, useInViewport } from '@mantine/hooks';
import { wrap, type Remote } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { KeptHeard } from '@cadence/core/listen/heardFile.ts';
import type { Piece } from '@cadence/core/programme/programme.ts';
import { subtract, toSeconds } from '@cadence/core/time/ticks.ts';
import { InTurn } from '../kit/InTurn.tsx';
import { useDyes, type Dyes } from '../kit/dyes.ts';
import type { Plotting, PlotOf } from './plots.worker.ts';
import { pauseBars, type Figures } from './curves.ts';
import classes from './MaterialPlace.module.css';

let plotting: Remote<Plotting> | undefined;

function inPlotting(): Remote<Plotting> {
  plotting ??= wrap<Plotting>(
    new Worker(new URL('./plots.worker.ts', import.meta.url), { type: 'module' }),
  );
  return plotting;
}

/** The figures of a sound with beats at `times`, in seconds; undefined until they are there. */
export function useFigures(
  heard: KeptHeard | undefined,
  times: readonly number[],
): Figures | undefined {
  const [figures, setFigures] = useState<Figures>();
  useEffect(() => {
    if (!heard) return;
    let stale = false;
    void inPlotting()
      .figures(heard.level, heard.pulse, times)
      .then((found) => !stale && setFigures(found));
    return () => {
      stale = true;
    };
  }, [heard, times]);
  return heard && figures;
}

interface PlotsProps {
  readonly heard: KeptHeard;
  readonly pieces: readonly Piece[];
  /** Of the beats, in seconds. */
  readonly times: readonly number[];
  /** In seconds. */
  readonly duration: number;
}

export function Plots({ heard, pieces, times, duration }: PlotsProps) {
  const pauses = useMemo(
    () =>
      pieces
        .slice(1)
        .map((piece, at) => toSeconds(subtract(piece.start, pieces[at]?.end ?? piece.start))),
    [pieces],
  );
  const { pulse, level } = heard;
  const loudness = useMemo<PlotOf>(
    () => ({ what: 'loudness', momentary: level.momentary }),
    [level],
  );
  const onsets = useMemo<PlotOf>(() => ({ what: 'onsets', onsets: pulse.onsets }), [pulse]);
  const lasting = { duration };
  return (
    <div className={classes.plots}>
      <InTurn>
        <Plot title="Loudness, LUFS over 400 ms" plot={loudness} dye="indigo" {...lasting} />
        {pieces.length > 2 && <Pauses pauses={pauses} {...lasting} />}
        {times.length > 2 && <Tempo times={times} {...lasting} />}
        {times.length > 2 && <Sureness pulse={pulse} times={times} {...lasting} />}
        <Plot title="Onset strength over time" plot={onsets} dye="madder" {...lasting} />
      </InTurn>
    </div>
  );
}

interface PlotProps {
  readonly title: string;
  /** Said where the picture cannot be seen. */
  readonly label?: string;
  readonly plot: PlotOf;
  readonly dye: keyof Dyes & ('indigo' | 'woad' | 'weld' | 'madder');
  /** Of the sound, in seconds. */
  readonly duration: number;
}

/** A plot, drawn in a worker when it comes into sight. */
function Plot({ title, label = title, plot, dye, duration }: PlotProps) {
  const { ref: seeing, inViewport } = useInViewport();
  const { ref, width, height } = useElementSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  const dyes = useDyes();
  const [drawn, setDrawn] = useState(false);
  useEffect(() => {
    if (!inViewport || width === 0) return;
    let stale = false;
    const { slate: writing, flax: grid } = dyes;
    const ratio = window.devicePixelRatio;
    const look = { width, height, ratio, writing, grid, dye: dyes[dye], duration };
    void inPlotting()
      .draw(plot, look)
      .then((picture) => {
        const shown = canvas.current;
        if (stale || !shown) {
          picture.close();
          return;
        }
        shown.width = picture.width;
        shown.height = picture.height;
        shown.getContext('bitmaprenderer')?.transferFromImageBitmap(picture);
        setDrawn(true);
      });
    return () => {
      stale = true;
    };
  }, [plot, dye, duration, dyes, inViewport, width, height]);
  return (
    <div
      className={classes.plot}
      role="img"
      aria-label={label}
      aria-busy={inViewport && !drawn}
      ref={seeing}
    >
      <div className={classes.caption}>{title}</div>
      <div ref={ref}>
        <canvas ref={canvas} />
      </div>
    </div>
  );
}

function Pauses({ pauses, duration }: { pauses: readonly number[]; duration: number }) {
  const plot = useMemo<PlotOf>(() => ({ what: 'pauses', pauses }), [pauses]);
  const { labels, values } = pauseBars(pauses);
  const said = values.map((count, at) => `${count} under ${labels[at]}`).join(', ');
  return (
    <Plot
      title="Pauses, by length"
      label={`Pauses by length: ${said}`}
      plot={plot}
      dye="woad"
      duration={duration}
    />
  );
}

function Tempo({ times, duration }: Pick<PlotsProps, 'times' | 'duration'>) {
  const plot = useMemo<PlotOf>(() => ({ what: 'tempo', beats: times }), [times]);
  return <Plot title="Tempo over time" plot={plot} dye="weld" duration={duration} />;
}

interface SurenessProps extends Pick<PlotsProps, 'times' | 'duration'> {
  readonly pulse: KeptHeard['pulse'];
}

function Sureness({ pulse, times, duration }: SurenessProps) {
  const plot = useMemo<PlotOf>(() => ({ what: 'sureness', pulse, beats: times }), [pulse, times]);
  return <Plot title="Confidence of the beats" plot={plot} dye="indigo" duration={duration} />;
}
