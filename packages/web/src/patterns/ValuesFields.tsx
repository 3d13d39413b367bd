/** The values of a move at times that have names. */
import { ActionIcon, Button, TextInput } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import { useEffect, useState } from 'react';
import { EASINGS, type Easing } from '@cadence/core/movement/easing.ts';
import {
  NAMED_TIMES,
  type NamedTime,
  type Stay,
  type Valued,
} from '@cadence/core/movement/movement.ts';
import { Choice, Figure } from './fields.tsx';
import { HEARD_NAMES } from './heardTimes.ts';
import { MEASURES } from './measures.ts';
import classes from './PatternsPlace.module.css';

type Moved = NonNullable<Stay['moves']>;

const MOVED: Readonly<Record<Moved, string>> = {
  scale: 'size',
  opacity: 'opacity',
  width: 'width',
  height: 'height',
  place: 'place',
  turn: 'turn',
  blur: 'blur',
  spacing: 'letter spacing',
};

const named = (when: NamedTime): string => {
  if (when === 'start' || when === 'end') return `at the ${when}`;
  return `at each ${when === 'words' ? 'word' : HEARD_NAMES[when]}`;
};

/** As it is until something is chosen: a size that grows by a tenth on each second word. */
export const VALUES = {
  moves: 'scale',
  at: [{ when: 'words', values: [1, 1.1] }],
  easing: 'soft',
} as const satisfies Partial<Stay>;

interface Props {
  readonly stay: Stay;
  readonly change: (part: Partial<Stay>) => void;
}

export function ValuesFields({ stay, change }: Props) {
  const { moves = 'scale', at = [], easing = 'soft' } = stay;
  const { unit, scale } = MEASURES[moves];
  const setAt = (place: number, part: Partial<Valued>) =>
    change({ at: at.map((each, index) => (index === place ? { ...each, ...part } : each)) });
  /** Other measures have other values. */
  const setMoves = (next: Moved) =>
    change({
      moves: next,
      at: at.map((each) => ({
        ...each,
        values: each.values.map((value) => (value / scale) * MEASURES[next].scale),
      })),
    });
  return (
    <>
      <div className={classes.two}>
        <Choice
          label="Of"
          data={Object.entries(MOVED).map(([value, label]) => ({ value, label }))}
          value={moves}
          set={(next) => setMoves(next as Moved)}
        />
        <Choice
          label="From one to the next"
          data={EASINGS.map((value) => ({ value, label: value }))}
          value={easing}
          set={(next) => change({ easing: next as Easing })}
        />
        {moves === 'place' && (
          <Figure
            label="Towards (0 right, 90 down)"
            suffix="°"
            min={-360}
            max={360}
            value={stay.angle ?? 0}
            set={(angle) => change({ angle })}
          />
        )}
      </div>
      {at.map((each, place) => (
        <div key={place} className={classes.pair}>
          <Choice
            label="When"
            data={NAMED_TIMES.map((value) => ({ value, label: named(value) }))}
            value={each.when}
            set={(when) => setAt(place, { when: when as NamedTime })}
          />
          <Figures
            label={`Values, ${unit}`}
            values={each.values.map((value) => value / scale)}
            set={(values) => setAt(place, { values: values.map((value) => value * scale) })}
          />
          <ActionIcon
            aria-label={`Remove the values ${named(each.when)}`}
            variant="subtle"
            onClick={() => change({ at: at.filter((_, index) => index !== place) })}
          >
            <IconX size={14} />
          </ActionIcon>
        </div>
      ))}
      <Button
        leftSection={<IconPlus size={14} />}
        onClick={() => change({ at: [...at, { when: 'end', values: [1] }] })}
      >
        Add a time
      </Button>
    </>
  );
}

/** Several numbers in one field, with commas or spaces between them; kept when it is left. */
function Figures({
  label,
  values,
  set,
}: {
  readonly label: string;
  readonly values: readonly number[];
  readonly set: (values: readonly number[]) => void;
}) {
  const kept = values.map((value) => Math.round(value * 1000) / 1000).join('; ');
  const [text, setText] = useState(kept);
  const [wrong, setWrong] = useState(false);
  useEffect(() => {
    setText(kept);
    setWrong(false);
  }, [kept]);
  const keep = () => {
    const parts = text.split(/[;\s]+/).filter((part) => part !== '');
    const read = parts.map((part) => Number(part.replace(',', '.')));
    const isRead = read.length > 0 && read.every((value) => Math.abs(value) <= 100_000);
    setWrong(!isRead);
    if (isRead && text !== kept) set(read);
  };
  return (
    <TextInput
      size="xs"
      label={label}
      value={text}
      error={wrong && 'Numbers, with ; between them.'}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}
