/** What moves while a text comes in or goes: each from a value to the style's own. */
import { ActionIcon, Button, Menu } from '@mantine/core';
import { IconAdjustmentsHorizontal, IconPlus, IconX } from '@tabler/icons-react';
import { Fragment, useState } from 'react';
import { EASINGS, type Curve, type Easing } from '@cadence/core/movement/easing.ts';
import { CENTRE, type Anchor, type Move, type MoveKind } from '@cadence/core/movement/movement.ts';
import { CurveField } from './CurveField.tsx';
import { Choice, Colour, Figure } from './fields.tsx';
import { MEASURES } from './measures.ts';
import classes from './PatternsPlace.module.css';

/** What each move is called, and what it begins with. */
const MOVES: Readonly<Record<MoveKind, { says: string; usual: Partial<Move> }>> = {
  opacity: { says: 'appears', usual: { from: 0 } },
  scale: { says: 'grows', usual: { from: 0.8 } },
  width: { says: 'widens', usual: { from: 0 } },
  height: { says: 'rises', usual: { from: 0 } },
  place: { says: 'moves', usual: { from: 1, in: 'em', angle: 90 } },
  turn: { says: 'turns', usual: { from: -10 } },
  blur: { says: 'sharpens', usual: { from: 12 } },
  spacing: { says: 'draws together', usual: { from: 0.3 } },
  colour: { says: 'changes colour', usual: { colour: '#e8c15a' } },
  wipe: { says: 'is wiped on', usual: { angle: 180, soft: 0.3 } },
};
const FROM_SIDES = [
  { value: '180', label: 'from the left' },
  { value: '0', label: 'from the right' },
  { value: '270', label: 'from above' },
  { value: '90', label: 'from below' },
];

const OWN = 'own curve';
/** A curve of one's own as it is at first: soft at both ends. */
const FIRST_CURVE: Curve = [0.4, 0, 0.2, 1];

interface MoveProps {
  readonly move: Move;
  readonly change: (part: Partial<Move>) => void;
}

export function Moves({
  moves,
  set,
}: {
  moves: readonly Move[];
  set: (moves: readonly Move[]) => void;
}) {
  /** The move of which everything is seen. */
  const [open, setOpen] = useState<number | null>(null);
  return (
    <>
      {moves.map((move, at) => {
        const { says } = MOVES[move.what];
        const put = (becomes: Move) => {
          // A curve that is chosen is there to be drawn.
          if (becomes.curve && !move.curve) setOpen(at);
          set(moves.map((each, place) => (place === at ? becomes : each)));
        };
        const change = (part: Partial<Move>) => put({ ...move, ...part });
        return (
          <Fragment key={`${move.what}${at}`}>
            <div className={classes.four}>
              <MoveRow move={move} change={change} put={put} />
              <ActionIcon
                aria-label={`More of “${says}”`}
                aria-expanded={open === at}
                variant="subtle"
                onClick={() => setOpen(open === at ? null : at)}
              >
                <IconAdjustmentsHorizontal size={14} />
              </ActionIcon>
              <ActionIcon
                aria-label={`Remove “${says}”`}
                variant="subtle"
                onClick={() => {
                  setOpen(null);
                  set(moves.filter((_, place) => place !== at));
                }}
              >
                <IconX size={14} />
              </ActionIcon>
            </div>
            {open === at && <MoreOf move={move} change={change} />}
          </Fragment>
        );
      })}
      <Menu position="bottom-start" width={200}>
        <Menu.Target>
          <Button leftSection={<IconPlus size={14} />}>Add a move</Button>
        </Menu.Target>
        <Menu.Dropdown>
          {(Object.keys(MOVES) as MoveKind[]).map((what) => (
            <Menu.Item
              key={what}
              onClick={() => set([...moves, { what, easing: 'soft out', ...MOVES[what].usual }])}
            >
              {MOVES[what].says}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
    </>
  );
}

function MoveRow({ move, change, put }: MoveProps & { readonly put: (move: Move) => void }) {
  const { says } = MOVES[move.what];
  const { unit, scale } = MEASURES[move.what];
  const hasSide = move.what === 'place' || move.what === 'wipe';
  const side = String((((move.angle ?? 180) % 360) + 360) % 360);
  return (
    <>
      {hasSide ? (
        <Choice
          label={says}
          data={
            FROM_SIDES.some(({ value }) => value === side)
              ? FROM_SIDES
              : [...FROM_SIDES, { value: side, label: `from ${side}°` }]
          }
          value={side}
          set={(angle) => change({ angle: Number(angle) })}
        />
      ) : (
        <span className={classes.says}>{says}</span>
      )}
      {move.from !== undefined && move.in !== 'outside' ? (
        <Figure
          label="from"
          suffix={move.in === 'px' ? 'px' : unit}
          min={-10_000}
          value={move.from / scale}
          set={(from) => change({ from: from * scale })}
        />
      ) : (
        <span className={classes.says}>{move.in === 'outside' ? 'outside the frame' : ''}</span>
      )}
      <Choice
        label="how"
        data={[...EASINGS, OWN].map((value) => ({ value, label: value }))}
        value={move.curve ? OWN : move.easing}
        set={(easing) => {
          if (easing === OWN) change({ curve: FIRST_CURVE });
          else {
            const { curve: _curve, ...rest } = move;
            put({ ...rest, easing: easing as Easing });
          }
        }}
      />
    </>
  );
}

const GROWS = new Set<MoveKind>(['scale', 'width', 'height', 'turn']);
/** What has nothing more to be set than its curve. */
const PLAIN = new Set<MoveKind>(['opacity', 'blur', 'spacing']);

/** Everything of a move that is seldom changed. */
const MoreOf = ({ move, change }: MoveProps) => (
  <div className={classes.more}>
    {(move.what === 'place' || move.what === 'wipe') && (
      <Figure
        label="From (0 right, 90 below)"
        suffix="°"
        min={-360}
        max={360}
        step={15}
        value={move.angle ?? 180}
        set={(angle) => change({ angle })}
      />
    )}
    {move.what === 'place' && (
      <Choice
        label="As far as"
        data={[
          { value: 'em', label: 'so many ems' },
          { value: 'px', label: 'so many pixels' },
          { value: 'outside', label: 'out of the frame' },
        ]}
        value={move.in ?? 'em'}
        set={(unit) =>
          change({ in: unit as NonNullable<Move['in']>, from: unit === 'px' ? 60 : 1 })
        }
      />
    )}
    {move.what === 'wipe' && (
      <Figure
        label="Soft edge"
        suffix="em"
        max={100}
        step={0.1}
        value={move.soft ?? 0}
        set={(soft) => change({ soft })}
      />
    )}
    {move.what === 'colour' && (
      <Colour
        label="From the colour"
        value={move.colour ?? '#ffffff'}
        set={(colour) => change({ colour })}
      />
    )}
    {GROWS.has(move.what) && (
      <About about={move.about ?? CENTRE} set={(about) => change({ about })} />
    )}
    {move.curve && <CurveField curve={move.curve} set={(curve) => change({ curve })} />}
    {PLAIN.has(move.what) && !move.curve && (
      <p className={classes.note}>Choose “own curve” to draw how it comes.</p>
    )}
  </div>
);

const ACROSS = { 0: 'left', 0.5: 'middle', 1: 'right' } as const;
const DOWN = { 0: 'upper', 0.5: 'middle', 1: 'lower' } as const;
const BASELINE = 'baseline';
/** Nine points of a box, and the middle of its baseline, each by its shares across and down. */
const POINTS = [
  ...([0, 0.5, 1] as const).flatMap((down) =>
    ([0, 0.5, 1] as const).map((across) => ({
      value: `${across} ${down}`,
      label: across === 0.5 && down === 0.5 ? 'its middle' : `its ${DOWN[down]} ${ACROSS[across]}`,
    })),
  ),
  { value: BASELINE, label: 'its baseline' },
];

/** About what a part grows and turns. */
function About({ about, set }: { about: Anchor; set: (about: Anchor) => void }) {
  const value = about.onBaseline ? BASELINE : `${about.across} ${about.down}`;
  return (
    <>
      <Choice
        label="About the"
        data={[
          { value: 'unit', label: 'part itself' },
          { value: 'word', label: 'word' },
          { value: 'line', label: 'line' },
          { value: 'whole', label: 'whole text' },
        ]}
        value={about.of}
        set={(of) => set({ ...about, of: of as Anchor['of'] })}
      />
      <Choice
        label="at"
        data={
          POINTS.some((point) => point.value === value)
            ? POINTS
            : [...POINTS, { value, label: 'a point of its own' }]
        }
        value={value}
        set={(point) => {
          if (point === BASELINE) set({ of: about.of, across: 0.5, down: 1, onBaseline: true });
          else {
            const [across = 0.5, down = 0.5] = point.split(' ').map(Number);
            set({ of: about.of, across, down });
          }
        }}
      />
    </>
  );
}
