/** Computes and draws what is told about a sound: for hours of it that takes longer than a screen frame. */
import '../kit/chart.ts';
import latin from '@fontsource-variable/commissioner/files/commissioner-latin-wght-normal.woff2?url';
import { Chart, type ChartConfiguration, type ChartDataset, type ChartOptions } from 'chart.js';
import { expose, transfer } from 'comlink';
import {
  figuresOf,
  loudnessBars,
  onsetCurve,
  pauseBars,
  sureCurve,
  tempoCurve,
  type Bars,
  type Curve,
} from './curves.ts';
import type { KeptHeard } from '@cadence/core/listen/heardFile.ts';

export type PlotOf =
  | { readonly what: 'loudness'; readonly momentary: KeptHeard['level']['momentary'] }
  | { readonly what: 'pauses'; readonly pauses: readonly number[] }
  | { readonly what: 'tempo'; readonly beats: readonly number[] }
  | {
      readonly what: 'sureness';
      readonly pulse: KeptHeard['pulse'];
      readonly beats: readonly number[];
    }
  | { readonly what: 'onsets'; readonly onsets: KeptHeard['pulse']['onsets'] };

export interface Look {
  /** In pixels of the interface. */
  readonly width: number;
  readonly height: number;
  /** Pixels of the screen to one of the interface. */
  readonly ratio: number;
  /** Colours of the writing, the grid and what is plotted. */
  readonly writing: string;
  readonly grid: string;
  readonly dye: string;
  /** In seconds, for curves over time. */
  readonly duration: number;
}

const fonts = (self as unknown as { readonly fonts: FontFaceSet }).fonts;
const face = new FontFace('Commissioner Variable', `url(${latin})`, { weight: '100 900' });
// Without it the labels are in the system's own face, and still there.
const ready = face.load().then(
  (loaded) => fonts.add(loaded),
  () => undefined,
);

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

interface Axes {
  readonly unit: string;
  /** Whether it is drawn over the time of the sound. */
  readonly timed?: boolean;
  /** Of the unit, where it is known. */
  readonly highest?: number;
}

type Options = ChartOptions<'line'> & ChartOptions<'bar'>;

const optionsOf = (look: Look, { unit, timed = false, highest }: Axes): Options =>
  ({
    animation: false,
    responsive: false,
    devicePixelRatio: look.ratio,
    events: [],
    scales: {
      x: {
        ...(timed && { type: 'linear', min: 0, max: look.duration }),
        ticks: {
          color: look.writing,
          maxRotation: 0,
          autoSkip: true,
          maxTicksLimit: 7,
          font: { size: 10.5 },
          ...(timed && { callback: (value) => clock(Number(value)) }),
        },
        grid: { display: false },
      },
      y: {
        ...(highest !== undefined && { min: 0, max: highest }),
        title: { display: true, text: unit, color: look.writing, font: { size: 10.5 } },
        ticks: { color: look.writing, maxTicksLimit: 4, font: { size: 10.5 } },
        grid: { color: look.grid },
      },
    },
  }) as Options;

const bars = (look: Look, unit: string, { labels, values }: Bars): ChartConfiguration =>
  ({
    type: 'bar',
    data: { labels: [...labels], datasets: [{ data: [...values], backgroundColor: look.dye }] },
    options: optionsOf(look, { unit }),
  }) as ChartConfiguration;

type Drawing = 'thin' | 'broad' | 'stepped';

function curve(look: Look, axes: Axes, points: Curve, drawing: Drawing): ChartConfiguration {
  const dataset: ChartDataset<'line'> = {
    data: [...points],
    borderColor: look.dye,
    borderWidth: drawing === 'thin' ? 1 : 2,
    pointRadius: 0,
    stepped: drawing === 'stepped',
  };
  const options = optionsOf(look, { ...axes, timed: true });
  return { type: 'line', data: { datasets: [dataset] }, options } as ChartConfiguration;
}

function configured(plot: PlotOf, look: Look): ChartConfiguration {
  switch (plot.what) {
    case 'loudness':
      return bars(look, '% of it', loudnessBars(plot.momentary));
    case 'pauses':
      return bars(look, 'pauses', pauseBars(plot.pauses));
    case 'tempo':
      return curve(look, { unit: 'beats a minute' }, tempoCurve(plot.beats), 'stepped');
    case 'sureness':
      return curve(
        look,
        { unit: '% confidence', highest: 100 },
        sureCurve(plot.pulse, plot.beats),
        'broad',
      );
    case 'onsets':
      return curve(look, { unit: '% of the strongest' }, onsetCurve(plot.onsets), 'thin');
  }
}

const plotting = {
  figures: figuresOf,
  /** A picture of a plot, `ratio` times as wide and high as asked for. */
  async draw(plot: PlotOf, look: Look): Promise<ImageBitmap> {
    await ready;
    const canvas = new OffscreenCanvas(look.width, look.height);
    const chart = new Chart(canvas as unknown as HTMLCanvasElement, configured(plot, look));
    const picture = canvas.transferToImageBitmap();
    chart.destroy();
    return transfer(picture, [picture]);
  },
};
export type Plotting = typeof plotting;
expose(plotting);
