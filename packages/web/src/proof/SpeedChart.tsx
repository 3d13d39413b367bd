/** Characters a second, cue by cue, along the programme, against the limit. */
import { useDeferredValue, useMemo } from 'react';
import { strandOfWords } from '@cadence/core/programme/captions.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import type { Cue, Id } from '@cadence/core/programme/programme.ts';
import { easeOf, readingOf } from '@cadence/core/pace/reading.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { roundTicks } from '../kit/format.ts';
import { useOpen, useStrand } from '../desk/store.ts';
import classes from './SpeedChart.module.css';

/** More bars than this could not be told apart: then each stands for the fastest of several cues. */
const MOST_BARS = 120;
const MOST_TICKS = 5;

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

export function SpeedChart({ pick }: { pick: (cue: Id) => void }) {
  const programme = useDeferredValue(useOpen((open) => open.programme));
  const inHand = useStrand();
  const cues = useMemo(
    () => cuesInOrder(programme, (strandOfWords(programme, inHand) ?? inHand).id),
    [programme, inHand],
  );
  const limit = useOpen((open) => open.programme.facts.profile.charactersASecond);
  const bins = useMemo(() => binsOf(cues), [cues]);
  const fast = useMemo(
    () => cues.filter((cue) => readingOf(cue).charactersASecond > limit).length,
    [cues, limit],
  );
  const top = Math.max(limit * 1.15, ...bins.map(({ speed }) => speed));
  const ticks = roundTicks(top, MOST_TICKS);
  const height = (value: number) => `${(100 * value) / (ticks.at(-1) ?? top)}%`;
  return (
    <>
      <div
        className={classes.chart}
        role="img"
        aria-label={`Characters a second, cue by cue; ${fast} over the limit of ${limit}`}
      >
        {ticks.map((tick) => (
          <span key={tick} className={classes.tick} style={{ bottom: height(tick) }}>
            {tick}
          </span>
        ))}
        <span className={classes.limit} style={{ bottom: height(limit) }} />
        <div className={classes.bars}>
          {bins.map(({ cue, speed }) => (
            <span
              key={cue.id}
              title={`${plainText(cue.text)}\n${speed.toFixed(1)} characters a second`}
              onClick={() => pick(cue.id)}
            >
              <i className={classes[easeOf(speed, limit)]} style={{ height: height(speed) }} />
            </span>
          ))}
        </div>
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
