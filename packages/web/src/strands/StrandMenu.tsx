/** Which strand is in hand, and what can be done with it. */
import { Button, Menu } from '@mantine/core';
import { IconChevronDown, IconEyeOff } from '@tabler/icons-react';
import { STRAND_TITLES } from '@cadence/core/programme/defaults.ts';
import { cuesInOrder, strandsInOrder } from '@cadence/core/programme/order.ts';
import { TEXT_KINDS, type Strand } from '@cadence/core/programme/programme.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { useApp, useShown, useStrand } from '../desk/store.ts';
import { showWindow } from '../desk/windows.ts';
import { strands } from '../desk/actions.ts';
import { Swatch } from './Swatch.tsx';
import classes from './strands.module.css';

export function StrandMenu() {
  const programme = useShown((shown) => shown);
  const inHand = useStrand();
  const only = useApp((state) => state.view.only);
  const chosen = useApp((state) => state.view.selection.length);
  const all = strandsInOrder(programme);
  const others = all.filter(({ id }) => id !== inHand.id);
  const bring = (to: Strand, copies: boolean) => (
    <Menu.Item
      key={to.id}
      leftSection={<Swatch kind={to.kind} />}
      onClick={() => strands.bring(to.id, copies)}
    >
      {to.title}
    </Menu.Item>
  );
  return (
    <Menu position="bottom-start" width={320}>
      <Menu.Target>
        <Button
          aria-label={`Strand in hand: ${inHand.title}`}
          leftSection={<Swatch kind={inHand.kind} />}
          rightSection={<IconChevronDown size={14} />}
        >
          <span className={classes.name}>
            {only && others.length > 0 ? `Only ${inHand.title}` : inHand.title}
          </span>
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {all.map((strand) => (
          <Menu.RadioItem
            key={strand.id}
            value={strand.id}
            checked={strand.id === inHand.id}
            closeMenuOnClick
            rightSection={
              <span className="quiet">
                {strand.muted && <IconEyeOff size={14} aria-label="hidden" />}{' '}
                {plural(cuesInOrder(programme, strand.id).length, 'cue')}
              </span>
            }
            onChange={strands.take}
          >
            <span className={classes.titled}>
              <Swatch kind={strand.kind} /> {strand.title}
            </span>
          </Menu.RadioItem>
        ))}
        <Menu.Divider />
        {others.length > 0 && (
          <Menu.CheckboxItem
            checked={only}
            closeMenuOnClick
            rightSection={<kbd className="key">Alt S</kbd>}
            onChange={strands.toggleOnly}
          >
            Show only this strand
          </Menu.CheckboxItem>
        )}
        <Menu.CheckboxItem
          checked={!inHand.muted}
          closeMenuOnClick
          rightSection={<kbd className="key">Alt M</kbd>}
          onChange={strands.toggleMuted}
        >
          Show in the picture
        </Menu.CheckboxItem>
        <Menu.Item
          rightSection={<kbd className="key">Alt K</kbd>}
          onClick={() => showWindow('strands')}
        >
          All strands …
        </Menu.Item>
        <Menu.Divider />
        <Menu.Sub>
          <Menu.Sub.Target>
            <Menu.Sub.Item>New strand</Menu.Sub.Item>
          </Menu.Sub.Target>
          <Menu.Sub.Dropdown>
            {TEXT_KINDS.map((kind) => (
              <Menu.Item
                key={kind}
                leftSection={<Swatch kind={kind} />}
                onClick={() => strands.add(kind)}
              >
                {STRAND_TITLES[kind]}
              </Menu.Item>
            ))}
          </Menu.Sub.Dropdown>
        </Menu.Sub>
        {others.length > 0 &&
          [false, true].map((copies) => (
            <Menu.Sub key={String(copies)}>
              <Menu.Sub.Target>
                <Menu.Sub.Item disabled={chosen === 0}>
                  {copies ? 'Copy' : 'Move'}{' '}
                  {chosen === 0 ? 'the selected cues' : plural(chosen, 'selected cue')} to
                </Menu.Sub.Item>
              </Menu.Sub.Target>
              <Menu.Sub.Dropdown>{others.map((strand) => bring(strand, copies))}</Menu.Sub.Dropdown>
            </Menu.Sub>
          ))}
      </Menu.Dropdown>
    </Menu>
  );
}
