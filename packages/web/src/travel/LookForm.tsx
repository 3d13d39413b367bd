/** How a passage looks: its letters, where they stand, and what lies behind them. */
import { setJourney, setLook } from '@cadence/core/programme/edits/programme/passageEdits.ts';
import { Checkbox, ColorInput, NumberInput, SegmentedControl, TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import {
  lookOfCrawl,
  lookOfRoll,
  type CrawlLook,
  type Journey,
  type Passage,
  type RollLook,
} from '@cadence/core/programme/passage.ts';
import { keepDraft } from '../desk/desk.ts';
import { useShown } from '../desk/store.ts';
import { FontSelect } from '../picture/FontSelect.tsx';
import { CRAWL_FIELDS, ROLL_FIELDS, type Field, type Fields } from './lookFields.ts';
import { travel } from './travel.ts';
import classes from './LookForm.module.css';

type Values = RollLook & CrawlLook & Journey;
type Name = keyof Values;

/** Fields of how it travels; all others are of how it looks. */
const OF_JOURNEY: ReadonlySet<string> = new Set<keyof Journey>([
  'holdStart',
  'holdEnd',
  'easeIn',
  'easeOut',
  'skipStart',
  'skipEnd',
]);

const editOf = (name: Name, value: unknown) =>
  OF_JOURNEY.has(name)
    ? setJourney({ [name]: value })
    : setLook({ [name]: value } as Partial<RollLook>);
const set = (name: Name, value: unknown): void => travel.change(editOf(name, value));

export function LookForm({ passage }: { passage: Passage }) {
  const { frame } = useShown((programme) => programme.facts);
  const look =
    passage.kind === 'roll'
      ? lookOfRoll(passage, frame.height)
      : lookOfCrawl(passage, frame.height);
  const values = { ...look, ...passage.journey } as Values;
  const groups = passage.kind === 'roll' ? ROLL_FIELDS : CRAWL_FIELDS;
  return (
    <div className={classes.look}>
      {groups.map(({ title, fields }: Fields) => (
        <fieldset key={title} className={classes.group}>
          <legend>{title}</legend>
          <div className={classes.two}>
            {fields.map((field) => (
              <FieldOf key={field.name} field={field} value={values[field.name]} />
            ))}
          </div>
        </fieldset>
      ))}
    </div>
  );
}

function FieldOf({ field, value }: { field: Field; value: Values[Name] }) {
  const programme = useShown((shown) => shown);
  const { name, label } = field;
  switch (field.kind) {
    case 'family':
      return <FontSelect label={label} value={String(value)} set={(family) => set(name, family)} />;
    case 'colour':
      return (
        <ColorInput
          size="xs"
          label={label}
          value={String(value)}
          onChange={(next) => travel.tryOut(editOf(name, next))}
          onChangeEnd={(next) => (next === value ? keepDraft() : set(name, next))}
        />
      );
    case 'whether':
      return (
        <Checkbox
          size="xs"
          label={label}
          checked={value === true}
          onChange={(event) => set(name, event.currentTarget.checked)}
        />
      );
    case 'text':
      return <Text label={label} value={String(value)} keep={(text) => set(name, text)} />;
    case 'choice':
      return (
        <div className={classes.choice}>
          <span>{label}</span>
          <SegmentedControl
            fullWidth
            aria-label={label}
            data={field.choices.map((choice) => ({
              value: String(choice.value),
              label: choice.says,
            }))}
            value={String(value)}
            onChange={(chosen) => {
              const found = field.choices.find((choice) => String(choice.value) === chosen);
              if (found) set(name, found.value);
            }}
          />
        </div>
      );
    case 'number': {
      const { unit, min = 0, max, step = 1 } = field;
      const { num, den } = programme.facts.frameRate;
      // Frames are shown as seconds, shares as per cent.
      const scale = unit === 's' ? num / den : unit.startsWith('%') ? 0.01 : 1;
      const whole = unit === 's' || unit === 'px' || unit === '';
      const shown = Math.round((Number(value) / scale) * 1000) / 1000;
      return (
        <NumberInput
          size="xs"
          label={label}
          suffix={unit && ` ${unit}`}
          value={shown}
          min={min}
          max={max}
          step={step}
          decimalScale={3}
          onChange={(next) => {
            if (typeof next !== 'number' || next < min || next > max || next === shown) return;
            set(name, whole ? Math.round(next * scale) : next * scale);
          }}
        />
      );
    }
  }
}

/** A text of a look, kept when the field is left. */
function Text({
  label,
  value,
  keep,
}: {
  label: string;
  value: string;
  keep: (text: string) => void;
}) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  return (
    <TextInput
      size="xs"
      label={label}
      value={text}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={() => text !== value && keep(text)}
      onKeyDown={(event) => event.key === 'Enter' && text !== value && keep(text)}
    />
  );
}
