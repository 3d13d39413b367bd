/** How long the pauses between pieces are: shows at a glance which shortest pause would suit. */
import '../app/chart.ts';
import { Bar } from 'react-chartjs-2';
import type { Piece } from '@cadence/core/programme/programme.ts';
import { subtract, toSeconds } from '@cadence/core/time/ticks.ts';
import { useDyes } from '../app/dyes.ts';
import classes from './MaterialPlace.module.css';

/** Upper bounds of the bins, in seconds; the last holds all that are longer. */
const BOUNDS = [0.3, 0.4, 0.5, 0.6, 0.8, 1, 1.5, 2, 3, Infinity];

export default function Pauses({ pieces }: { pieces: readonly Piece[] }) {
  const dyes = useDyes();
  const pauses = pieces
    .slice(1)
    .map((piece, at) => toSeconds(subtract(piece.start, pieces[at]?.end ?? piece.start)));
  const counts = BOUNDS.map(
    (bound, at) => pauses.filter((pause) => pause < bound && pause >= (BOUNDS[at - 1] ?? 0)).length,
  );
  return (
    <div className={classes.plot}>
      <h3>Pauses, by length</h3>
      <div>
        <Bar
          aria-label={`Pauses by length: ${counts.map((count, at) => `${count} under ${BOUNDS[at]} s`).join(', ')}`}
          role="img"
          data={{
            labels: BOUNDS.map((bound) => (bound === Infinity ? 'longer' : `under ${bound} s`)),
            datasets: [{ data: counts, backgroundColor: dyes.woad }],
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            scales: {
              x: {
                ticks: { color: dyes.slate, maxRotation: 0, font: { size: 11 } },
                grid: { display: false },
              },
              y: { ticks: { color: dyes.slate, precision: 0 }, grid: { color: dyes.flax } },
            },
          }}
        />
      </div>
    </div>
  );
}
