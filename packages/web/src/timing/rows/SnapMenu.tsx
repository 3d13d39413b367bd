/** What edges, marks and the playhead snap to, and how near they must come. */
import { Button, NumberInput, Popover, Switch } from '@mantine/core';
import { IconMagnet, IconMagnetOff } from '@tabler/icons-react';
import { useApp, useAppDispatch } from '../../desk/store.ts';
import { SNAPS, type Snap } from '@cadence/core/rows/snapping.ts';
import { looked } from '../../desk/view.ts';
import classes from './SnapMenu.module.css';

const NAMES: Readonly<Record<Snap, string>> = {
  marks: 'Marks',
  beats: 'Beats',
  bars: 'Bar lines',
  pieces: 'Edges of pieces',
  hits: 'Hits',
  cues: 'Edges of cues',
};

export function SnapMenu() {
  const { snap, snapTo, reach } = useApp((state) => state.view);
  const dispatch = useAppDispatch();
  return (
    <Popover position="bottom-start" trapFocus returnFocus>
      <Popover.Target>
        <Button leftSection={snap ? <IconMagnet size={15} /> : <IconMagnetOff size={15} />}>
          {snap ? 'Snap' : 'Snap off'}
        </Button>
      </Popover.Target>
      <Popover.Dropdown className={classes.menu} aria-label="Snapping">
        <Switch
          size="xs"
          label="Snap (S; Alt holds it off)"
          checked={snap}
          onChange={(event) => dispatch(looked({ snap: event.currentTarget.checked }))}
        />
        <hr />
        {SNAPS.map((name) => (
          <Switch
            key={name}
            size="xs"
            label={NAMES[name]}
            disabled={!snap}
            checked={snapTo[name]}
            onChange={(event) =>
              dispatch(looked({ snapTo: { ...snapTo, [name]: event.currentTarget.checked } }))
            }
          />
        ))}
        <NumberInput
          size="xs"
          label="Snap distance, px"
          min={1}
          max={40}
          disabled={!snap}
          value={reach}
          onChange={(value) => typeof value === 'number' && dispatch(looked({ reach: value }))}
        />
        <p className="quiet">Edges always fall on whole frames.</p>
      </Popover.Dropdown>
    </Popover>
  );
}
