/** The inspector: how the pattern in hand looks and moves, and what of it the selected cues have of their own. */
import { Button, Menu, SegmentedControl } from '@mantine/core';
import { IconDots } from '@tabler/icons-react';
import { COMES_IN, GOES, STILL } from '@cadence/core/movement/movement.ts';
import type { ComesIn, Goes } from '@cadence/core/movement/movement.ts';
import { hasOwn } from '@cadence/core/programme/edits/patterns/patterns.ts';
import { movementOf, patternOf, styleOf, styleOfStrand } from '@cadence/core/programme/patterns.ts';
import type { Cue, Id, Pattern, TextStyle } from '@cadence/core/programme/programme.ts';
import { aOrMany, plural } from '@cadence/core/text/plural.ts';
import { useApp, useShown, useStrand } from '../desk/store.ts';
import { strandOfText, wearersOf } from './inHand.ts';
import { GroupForm } from './GroupForm.tsx';
import { KeySoundsForm } from './KeySoundsForm.tsx';
import { ComesInForm, GoesForm } from './MovementForms.tsx';
import { PlaceForm } from './PlaceForm.tsx';
import { StaysForm } from './StaysForm.tsx';
import { patternActions, type Scope } from './patternActions.ts';
import { Name } from './Name.tsx';
import { TextForm } from './TextForm.tsx';
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
