/** How text comes in, stays and goes, as it is set. */
import { Checkbox } from '@mantine/core';
import {
  framesLong,
  type Caret,
  type ComesIn,
  type Duration,
  type Goes,
} from '@cadence/core/movement/movement.ts';
import { By, Choice, Figure } from './fields.tsx';
import { Moves } from './Moves.tsx';
import classes from './PatternsPlace.module.css';

const COMES_WHEN = [
  { value: 'start', label: 'at the start, all at once' },
  { value: 'said', label: 'as each is said' },
  { value: 'after', label: 'one after another' },
  { value: 'evenly', label: 'evenly over a time' },
  { value: 'weight', label: 'by how much there is to read' },
  { value: 'beats', label: 'on beats' },
  { value: 'bars', label: 'on bars' },
  { value: 'hits', label: 'on hits' },
  { value: 'marks', label: 'on marks' },
  { value: 'typed', label: 'typed' },
];
const GOES_WHEN = [
  { value: 'end', label: 'all at the end' },
  { value: 'wave', label: 'one after another' },
  { value: 'next', label: 'as the next one comes' },
  { value: 'said', label: 'when it has been said' },
  { value: 'cut', label: 'with the cue, at once' },
];
const ORDERS = [
  { value: 'forwards', label: 'forwards' },
  { value: 'backwards', label: 'backwards' },
  { value: 'middle', label: 'from the middle' },
  { value: 'edges', label: 'from the edges' },
  { value: 'random', label: 'by chance' },
];
/** Whose times the sound gives. */
const BY_SOUND = new Set(['said', 'beats', 'bars', 'hits', 'marks']);

/** What coming in and going have alike. */
interface PhaseProps {
  readonly phase: ComesIn | Goes;
  readonly set: (part: Partial<Pick<Goes, 'takes' | 'overlap' | 'order'>>) => void;
}

/** In what a length is told: what one of it is, and how it is rounded. */
const LENGTHS: Readonly<Record<Duration['in'], { says: string; scale: number; usual: number }>> = {
  frames: { says: 'frames', scale: 1, usual: 6 },
  beats: { says: 'beats', scale: 1, usual: 1 },
  share: { says: '% of the cue', scale: 0.01, usual: 0.1 },
};

/** How long each part takes; its turn until the next one, where nothing is said. */
const Takes = ({ phase: { takes }, set }: PhaseProps) => (
  <>
    {takes && (
      <Figure
        label="Takes"
        suffix={LENGTHS[takes.in].says}
        value={takes.count / LENGTHS[takes.in].scale}
        set={(count) =>
          set({
            takes:
              takes.in === 'frames'
                ? framesLong(Math.round(count))
                : { ...takes, count: count * LENGTHS[takes.in].scale },
          })
        }
      />
    )}
    <Choice
      label={takes ? 'Counted in' : 'Takes'}
      data={[
        ...Object.entries(LENGTHS).map(([value, { says }]) => ({ value, label: says })),
        { value: 'turn', label: 'its turn' },
      ]}
      value={takes?.in ?? 'turn'}
      set={(unit) => {
        if (unit === 'turn') set({ takes: null });
        else set({ takes: { in: unit as Duration['in'], count: LENGTHS[unit as 'beats'].usual } });
      }}
    />
  </>
);

const Overlap = ({ phase, set }: PhaseProps) => (
  <Figure
    label="Overlaps the next by"
    suffix="%"
    max={100}
    step={5}
    value={phase.overlap * 100}
    set={(overlap) => set({ overlap: overlap / 100 })}
  />
);

const InOrder = ({ phase, set }: PhaseProps) => (
  <Choice
    label="Order"
    data={ORDERS}
    value={phase.order}
    set={(order) => set({ order: order as Goes['order'] })}
  />
);

export function ComesInForm({
  phase,
  set,
}: {
  phase: ComesIn | null;
  set: (part: Partial<ComesIn> | null) => void;
}) {
  return (
    <section className={classes.part} aria-label="Comes in">
      <Head title="Comes in" on={phase !== null} set={(on) => set(on ? {} : null)} />
      {phase && (
        <>
          <By value={phase.by} set={(by) => set({ by })} />
          <div className={classes.two}>
            <Choice
              label="When"
              data={COMES_WHEN}
              value={phase.when}
              set={(when) => set({ when: when as ComesIn['when'] })}
            />
            {BY_SOUND.has(phase.when) && (
              <Choice
                label="At its time it"
                data={[
                  { value: 'lands', label: 'has landed' },
                  { value: 'begins', label: 'begins to come' },
                ]}
                value={phase.arrives}
                set={(arrives) => set({ arrives: arrives as ComesIn['arrives'] })}
              />
            )}
            <Takes phase={phase} set={set} />
            {BY_SOUND.has(phase.when) && (
              <Figure
                label="Early by"
                suffix="frames"
                min={-1000}
                max={1000}
                value={phase.early}
                set={(early) => set({ early: Math.round(early) })}
              />
            )}
            {phase.when === 'after' && <Overlap phase={phase} set={set} />}
            {(phase.when === 'evenly' || phase.when === 'weight') && (
              <Figure
                label="Over, 0 for the whole cue"
                suffix="frames"
                value={phase.over?.in === 'frames' ? phase.over.count : 0}
                set={(count) => set({ over: count > 0 ? framesLong(Math.round(count)) : null })}
              />
            )}
            {phase.when === 'typed' && (
              <>
                <Figure
                  label="Letters a second"
                  min={0.1}
                  max={60}
                  value={phase.rate ?? 10}
                  set={(rate) => set({ rate })}
                />
                <Figure
                  label="Uneven by"
                  suffix="%"
                  max={100}
                  step={5}
                  value={(phase.uneven ?? 0) * 100}
                  set={(uneven) => set({ uneven: uneven / 100 })}
                />
                {phase.by === 'letter' && (
                  <Figure
                    label="Slips, put right"
                    suffix="in 100 letters"
                    max={50}
                    value={phase.slips ?? 0}
                    set={(slips) => set({ slips })}
                  />
                )}
                <Figure
                  label="Waits before"
                  suffix="frames"
                  value={phase.after}
                  set={(after) => set({ after: Math.round(after) })}
                />
              </>
            )}
            {phase.by === 'letter' && (phase.when === 'typed' || phase.when === 'hits') && (
              <CaretFields caret={phase.caret ?? null} set={(caret) => set({ caret })} />
            )}
            {phase.by !== 'whole' && phase.when !== 'said' && phase.when !== 'typed' && (
              <InOrder phase={phase} set={set} />
            )}
          </div>
          <Moves moves={phase.moves} set={(moves) => set({ moves })} />
        </>
      )}
    </section>
  );
}

const CARET_SHAPES = [
  { value: 'none', label: 'none' },
  { value: 'bar', label: 'a bar' },
  { value: 'block', label: 'a block' },
  { value: 'underline', label: 'an underline' },
];
const CARET: Caret = { shape: 'bar', on: 13, off: 12 };

function CaretFields({ caret, set }: { caret: Caret | null; set: (caret: Caret | null) => void }) {
  return (
    <>
      <Choice
        label="Caret"
        data={CARET_SHAPES}
        value={caret?.shape ?? 'none'}
        set={(shape) =>
          set(shape === 'none' ? null : { ...(caret ?? CARET), shape: shape as Caret['shape'] })
        }
      />
      {caret && (
        <>
          <Figure
            label="Blinks: seen for"
            suffix="frames"
            min={1}
            value={caret.on}
            set={(on) => set({ ...caret, on: Math.round(on) })}
          />
          <Figure
            label="not seen for"
            suffix="frames"
            value={caret.off}
            set={(off) => set({ ...caret, off: Math.round(off) })}
          />
          <Figure
            label="Stays, 0 until the text goes"
            suffix="frames"
            value={caret.stays ?? 0}
            set={(stays) => set({ ...caret, stays: stays > 0 ? Math.round(stays) : null })}
          />
        </>
      )}
    </>
  );
}

export function GoesForm({
  phase,
  set,
}: {
  phase: Goes | null;
  set: (part: Partial<Goes> | null) => void;
}) {
  return (
    <section className={classes.part} aria-label="Goes">
      <Head title="Goes" on={phase !== null} set={(on) => set(on ? {} : null)} />
      {phase && (
        <>
          <By value={phase.by} set={(by) => set({ by })} />
          <div className={classes.two}>
            <Choice
              label="When"
              data={GOES_WHEN}
              value={phase.when}
              set={(when) => set({ when: when as Goes['when'] })}
            />
            <Takes phase={phase} set={set} />
            {phase.when === 'wave' && (
              <>
                <Overlap phase={phase} set={set} />
                <InOrder phase={phase} set={set} />
              </>
            )}
          </div>
          <Moves moves={phase.moves} set={(moves) => set({ moves })} />
        </>
      )}
    </section>
  );
}

const Head = ({ title, on, set }: { title: string; on: boolean; set: (on: boolean) => void }) => (
  <div className={classes.head}>
    <h3>{title}</h3>
    <span className="spring" />
    <Checkbox
      size="xs"
      label={on ? 'moves' : 'is there at once'}
      aria-label={`${title} with a movement`}
      checked={on}
      onChange={(event) => set(event.currentTarget.checked)}
    />
  </div>
);
