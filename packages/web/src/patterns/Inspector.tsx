/** The inspector: how the pattern in hand looks and moves, and what of it the selected cues have of their own. */
import {
  Button,
  Checkbox,
  ColorInput,
  Menu,
  NumberInput,
  SegmentedControl,
  Select,
} from '@mantine/core';
import { IconDots } from '@tabler/icons-react';
import { COMES_IN, GOES, STILL } from '@cadence/core/movement/movement.ts';
import type { ComesIn, Goes } from '@cadence/core/movement/movement.ts';
import { hasOwn } from '@cadence/core/programme/edits/patterns/patterns.ts';
import { movementOf, patternOf, styleOf, styleOfStrand } from '@cadence/core/programme/patterns.ts';
import {
  LETTER_CASES,
  type Cue,
  type Gradient,
  type Id,
  type Pattern,
  type Plate,
  type TextStyle,
} from '@cadence/core/programme/programme.ts';
import { aOrMany, plural } from '@cadence/core/text/plural.ts';
import { useApp, useShown, useStrand } from '../desk/store.ts';
import { Figure } from './fields.tsx';
import { shelf } from '../picture/studio.ts';
import { FontSelect } from '../picture/FontSelect.tsx';
import { strandOfText, wearersOf } from './inHand.ts';
import { GroupForm } from './GroupForm.tsx';
import { KeySoundsForm } from './KeySoundsForm.tsx';
import { ComesInForm, GoesForm } from './MovementForms.tsx';
import { PlaceForm } from './PlaceForm.tsx';
import { StaysForm } from './StaysForm.tsx';
import { patternActions, type Scope } from './patternActions.ts';
import { Name } from './Name.tsx';
import classes from './PatternsPlace.module.css';

interface Props {
  readonly pattern: Pattern;
  readonly cue: Cue | undefined;
  readonly scope: Scope;
  readonly setScope: (scope: Scope) => void;
  readonly choose: (id: Id | null) => void;
}

export function Inspector({ pattern, cue, scope, setScope, choose }: Props) {
  const programme = useShown((shown) => shown);
  const inHand = useStrand();
  const strand = strandOfText(programme) ?? inHand;
  const selection = useApp((state) => state.view.selection);
  const selected = selection.length;
  const count = wearersOf(programme).get(pattern.id) ?? 0;
  const own = cue && hasOwn(programme, cue);
  const worn = cue && patternOf(programme, cue);
  const isWorn = worn?.id === pattern.id;
  const style: TextStyle =
    scope === 'cues' && cue
      ? styleOf(programme, cue)
      : { ...styleOfStrand(programme, { ...strand, pattern: null }), ...pattern.look };
  const movement =
    scope === 'cues' && cue
      ? (movementOf(programme, cue, style.fade ?? 0) ?? STILL)
      : pattern.movement;
  const look = (part: Partial<TextStyle>) => patternActions.changeLook(pattern, scope, part);
  const comesIn = (part: Partial<ComesIn> | null) =>
    patternActions.changeMovement(pattern, scope, {
      comesIn: part && { ...(movement.comesIn ?? COMES_IN), ...part },
    });
  const goes = (part: Partial<Goes> | null) =>
    patternActions.changeMovement(pattern, scope, {
      goes: part && { ...(movement.goes ?? GOES), ...part },
    });
  return (
    <>
      <div className={classes.head}>
        <Name
          key={pattern.id}
          name={pattern.name}
          keep={(name) => patternActions.rename(pattern, name)}
        />
        <span className="quiet">{count > 0 ? `on ${plural(count, 'cue')}` : 'on no cue yet'}</span>
        <span className="spring" />
        <Menu position="bottom-end" width={270}>
          <Menu.Target>
            <Button aria-label="More for this pattern" px={8}>
              <IconDots size={16} />
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => choose(patternActions.copy(pattern))}>Duplicate</Menu.Item>
            <Menu.Item onClick={() => void patternActions.copyOver(pattern)}>
              Copy for another programme
            </Menu.Item>
            <Menu.Item onClick={() => patternActions.writeFile([pattern], pattern.name)}>
              Write as a file
            </Menu.Item>
            <Menu.Item
              disabled={!(pattern.id in programme.patterns)}
              onClick={() => {
                patternActions.remove(pattern);
                choose(null);
              }}
            >
              Delete from this programme
            </Menu.Item>
            <Menu.Divider />
            <Menu.Item disabled={!isWorn || selected === 0} onClick={patternActions.offCues}>
              Take it off {aOrMany(selected, 'cue')}
            </Menu.Item>
            <Menu.Item
              disabled={!strand.pattern}
              onClick={() => patternActions.offStrand(strand.id)}
            >
              Take the pattern off “{strand.title}”
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </div>
      {pattern.note && <p className={classes.note}>{pattern.note}</p>}
      <div className={classes.buttons}>
        <Button variant="filled" onClick={() => patternActions.toStrand(pattern)}>
          Apply to “{strand.title}” <kbd className="key">Alt P</kbd>
        </Button>
        <Button disabled={selected === 0} onClick={() => patternActions.toCues(pattern)}>
          Apply to {selected > 1 ? `${selected} cues` : 'the cue'}
        </Button>
      </div>
      <div className={classes.part}>
        <SegmentedControl
          aria-label="Change"
          value={scope}
          onChange={(value) => setScope(value as Scope)}
          data={[
            { value: 'pattern', label: 'The pattern' },
            {
              value: 'cues',
              label: selected > 1 ? `These ${selected} cues` : 'This cue alone',
              disabled: selected === 0,
            },
          ]}
        />
        {own && cue && (
          <div className={classes.buttons}>
            <span className="quiet">This cue differs from its {worn ? 'pattern' : 'strand'}.</span>
            <Button onClick={patternActions.takeBack}>Take back</Button>
            {worn && (
              <Button onClick={() => patternActions.intoPattern(cue)}>Put into the pattern</Button>
            )}
          </div>
        )}
      </div>
      <TextForm style={style} set={look} />
      <PlaceForm style={style} cue={cue} frame={programme.facts.frame} set={look} />
      {(selected > 1 || cue?.group) && <GroupForm cue={cue} />}
      <ComesInForm phase={movement.comesIn} set={comesIn} />
      {cue && (cue.keys || (isWorn && movement.comesIn?.by === 'letter')) && (
        <KeySoundsForm cue={cue} ids={selected > 0 ? selection : [cue.id]} />
      )}
      <StaysForm
        stays={movement.stays}
        set={(stays) => patternActions.changeMovement(pattern, scope, { stays })}
      />
      <GoesForm phase={movement.goes} set={goes} />
    </>
  );
}

const SHADOW = { colour: '#000000', opacity: 0.7, across: 0, down: 4, blur: 6 } as const;
const PLATE: Plate = {
  behind: 'line',
  colour: '#14171c',
  opacity: 0.78,
  across: 0.4,
  down: 0.06,
  corner: 0.1,
};

interface TextProps {
  readonly style: TextStyle;
  readonly set: (part: Partial<TextStyle>) => void;
}

const GRADIENT: Gradient = { colour: '#e8c15a', angle: 90 };

function GradientForm({ gradient, set }: Pick<TextProps, 'set'> & { gradient: Gradient }) {
  return (
    <div className={classes.two}>
      <ColorInput
        size="xs"
        label="Goes over into"
        format="hex"
        value={gradient.colour}
        onChangeEnd={(colour) =>
          colour !== gradient.colour && set({ gradient: { ...gradient, colour } })
        }
      />
      <Figure
        label="Towards (0 right, 90 down)"
        suffix="°"
        value={gradient.angle}
        min={-360}
        max={360}
        step={15}
        set={(angle) => set({ gradient: { ...gradient, angle } })}
      />
    </div>
  );
}

function TextForm({ style, set }: TextProps) {
  const axes = shelf.axesOf(style.family);
  return (
    <section className={classes.part} aria-label="Text">
      <h3>Text</h3>
      <div className={classes.two}>
        <FontSelect label="Font" value={style.family} set={(family) => set({ family })} />
        <NumberInput
          size="xs"
          label="Size"
          suffix=" px"
          value={style.size}
          min={4}
          max={1000}
          decimalScale={1}
          onChange={(size) =>
            typeof size === 'number' &&
            size >= 4 &&
            size <= 1000 &&
            size !== style.size &&
            set({ size })
          }
        />
        <Select
          size="xs"
          label="Letters"
          data={LETTER_CASES.map((each) => each)}
          value={style.letterCase ?? 'as written'}
          allowDeselect={false}
          onChange={(letterCase) =>
            letterCase && set({ letterCase: letterCase as (typeof LETTER_CASES)[number] })
          }
        />
        <NumberInput
          size="xs"
          label="Letter spacing"
          suffix=" em"
          value={style.letterSpacing ?? 0}
          min={-0.2}
          max={2}
          step={0.01}
          decimalScale={3}
          onChange={(value) =>
            typeof value === 'number' &&
            value >= -0.2 &&
            value <= 2 &&
            value !== (style.letterSpacing ?? 0) &&
            set({ letterSpacing: value })
          }
        />
        {axes.wght && (
          <Figure
            label="Weight"
            value={style.weight ?? 500}
            min={axes.wght[0]}
            max={axes.wght[1]}
            step={25}
            set={(weight) => set({ weight })}
          />
        )}
        {axes.wdth && (
          <Figure
            label="Width of letters"
            suffix="%"
            value={style.width ?? 100}
            min={axes.wdth[0]}
            max={axes.wdth[1]}
            step={5}
            set={(width) => set({ width })}
          />
        )}
        <ColorInput
          size="xs"
          label="Colour"
          format="hex"
          value={style.colour}
          onChangeEnd={(colour) => colour !== style.colour && set({ colour })}
        />
        <NumberInput
          size="xs"
          label="Outline"
          suffix=" px"
          value={style.outlineWidth}
          min={0}
          max={100}
          decimalScale={1}
          onChange={(width) =>
            typeof width === 'number' &&
            width >= 0 &&
            width <= 100 &&
            width !== style.outlineWidth &&
            set({ outlineWidth: width })
          }
        />
      </div>
      <div className={classes.ticks}>
        <Checkbox
          size="xs"
          label="Bold"
          checked={style.bold ?? false}
          onChange={(event) => set({ bold: event.currentTarget.checked })}
        />
        <Checkbox
          size="xs"
          label="Gradient"
          checked={Boolean(style.gradient)}
          onChange={(event) => set({ gradient: event.currentTarget.checked ? GRADIENT : null })}
        />
        <Checkbox
          size="xs"
          label="Shadow"
          checked={Boolean(style.shadow)}
          onChange={(event) => set({ shadow: event.currentTarget.checked ? SHADOW : null })}
        />
        <Checkbox
          size="xs"
          label="Plate"
          checked={Boolean(style.plate)}
          onChange={(event) => set({ plate: event.currentTarget.checked ? PLATE : null })}
        />
      </div>
      {style.gradient && <GradientForm gradient={style.gradient} set={set} />}
      {style.plate && (
        <div className={classes.two}>
          <Select
            size="xs"
            label="Plate behind"
            data={[
              { value: 'word', label: 'each word' },
              { value: 'line', label: 'each line' },
              { value: 'whole', label: 'the whole' },
            ]}
            value={style.plate.behind}
            allowDeselect={false}
            onChange={(behind) =>
              behind && style.plate && set({ plate: { ...style.plate, behind: behind as 'word' } })
            }
          />
          <ColorInput
            size="xs"
            label="Plate colour"
            format="hex"
            value={style.plate.colour}
            onChangeEnd={(colour) =>
              style.plate &&
              colour !== style.plate.colour &&
              set({ plate: { ...style.plate, colour } })
            }
          />
        </div>
      )}
    </section>
  );
}
