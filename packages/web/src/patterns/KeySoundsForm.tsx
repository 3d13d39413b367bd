/** Sounds of keys under the letters of cues. */
import { Button } from '@mantine/core';
import { strokesOfMaterial } from '@cadence/core/mix/keySounds.ts';
import { KEYS } from '@cadence/core/programme/edits/patterns/keys.ts';
import { LEAST_LEVEL, MOST_LEVEL } from '@cadence/core/programme/edits/programme/sounds.ts';
import type { Cue, Id, KeySounds } from '@cadence/core/programme/programme.ts';
import { aOrMany } from '@cadence/core/text/plural.ts';
import { fromSeconds, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { useShown } from '../desk/store.ts';
import { Choice, Figure } from './fields.tsx';
import { patternActions } from './patternActions.ts';
import classes from './PatternsPlace.module.css';

const NONE = '';

/** @param ids  the cues that get them */
export function KeySoundsForm({ cue, ids }: { cue: Cue; ids: readonly Id[] }) {
  const programme = useShown((shown) => shown);
  const recordings = Object.values(programme.materials).filter(({ sound }) => sound !== null);
  const { keys } = cue;
  const lay = (part: Partial<KeySounds>) =>
    keys && patternActions.layKeys(ids, { material: keys.material, ...part });
  return (
    <section className={classes.part} aria-label="Key sounds">
      <div className={classes.head}>
        <h3>Key sounds</h3>
        <span className="quiet">under {aOrMany(ids.length, 'cue')}</span>
      </div>
      {recordings.length === 0 ? (
        <p className={classes.note}>
          Bring a recording of typing in Material: its strokes are laid under the letters.
        </p>
      ) : (
        <div className={classes.two}>
          <Choice
            label="Cut out of"
            data={[
              { value: NONE, label: 'none' },
              ...recordings.map(({ id, name }) => ({ value: id, label: name })),
              ...(keys && !(keys.material in programme.materials)
                ? [{ value: keys.material, label: 'a recording that is gone' }]
                : []),
            ]}
            value={keys?.material ?? NONE}
            set={(material) =>
              material === NONE
                ? patternActions.takeKeys(ids)
                : patternActions.layKeys(ids, { material })
            }
          />
          {keys && (
            <>
              <Figure
                label="Level"
                suffix="dB"
                min={LEAST_LEVEL}
                max={MOST_LEVEL}
                value={keys.level}
                set={(level) => lay({ level })}
              />
              <Figure
                label="Strokes differ by"
                suffix="%"
                max={100}
                step={5}
                value={keys.varied * 100}
                set={(varied) => lay({ varied: varied / 100 })}
              />
              <StrokeChoice
                label="Space bar"
                {...{ keys }}
                value={keys.space}
                set={(space) => lay({ space })}
              />
              <StrokeChoice
                label="Return"
                {...{ keys }}
                value={keys.enter}
                set={(enter) => lay({ enter })}
              />
            </>
          )}
        </div>
      )}
      {keys && (
        <div className={classes.buttons}>
          <Button onClick={() => lay({ seed: (keys.seed + 1) % 0xffff_ffff })}>
            Other strokes
          </Button>
          {keys.level !== KEYS.level && (
            <Button onClick={() => lay({ level: KEYS.level })}>Usual level</Button>
          )}
        </div>
      )}
    </section>
  );
}

/** Which stroke of the recording a key has for its own. */
function StrokeChoice({
  label,
  keys,
  value,
  set,
}: {
  label: string;
  keys: KeySounds;
  value: Ticks | null | undefined;
  set: (at: Ticks | null) => void;
}) {
  const strokes = useShown((programme) => programme.hits);
  const found = strokesOfMaterial({ hits: strokes }, keys.material);
  const nearest =
    value === null || value === undefined
      ? -1
      : found.reduce(
          (best, { start }, at) =>
            Math.abs(start - toSeconds(value)) <
            Math.abs((found[best]?.start ?? Infinity) - toSeconds(value))
              ? at
              : best,
          0,
        );
  return (
    <Choice
      label={label}
      data={[
        { value: '-1', label: 'as a letter' },
        ...found.map(({ start }, at) => ({
          value: String(at),
          label: `stroke ${at + 1}, at ${start.toFixed(2)} s`,
        })),
      ]}
      value={String(nearest)}
      set={(at) => {
        const stroke = found[Number(at)];
        set(stroke ? fromSeconds(stroke.start) : null);
      }}
    />
  );
}
