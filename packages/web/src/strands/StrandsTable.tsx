/** All strands: their names, which are in the picture, new ones and those to be deleted. */
import { ActionIcon, Button, Switch, TextInput, Tooltip } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconTrash } from '@tabler/icons-react';
import { useEffect, useState } from 'react';
import { STRAND_TITLES } from '@cadence/core/programme/defaults.ts';
import { allowOverlap, renameStrand } from '@cadence/core/programme/edits/programme/strands.ts';
import { cuesInOrder, strandsInOrder } from '@cadence/core/programme/order.ts';
import { isTravelling, TEXT_KINDS, type Strand } from '@cadence/core/programme/programme.ts';
import { make } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { openNow, useShown, useStrand } from '../desk/store.ts';
import type { WindowProps } from '../desk/windows.ts';
import { strands } from '../desk/actions.ts';
import { Swatch } from './Swatch.tsx';
import classes from './strands.module.css';

export default function StrandsTable({ close }: WindowProps) {
  const programme = useShown((shown) => shown);
  const inHand = useStrand();
  const all = strandsInOrder(programme);
  const written = all.filter(({ kind }) => !isTravelling(kind));
  const isLast = (id: string) => written.length === 1 && written[0]?.id === id;
  return (
    <>
      <table className={classes.table} aria-label="Strands">
        <thead>
          <tr>
            <th />
            <th>Name</th>
            <th>Cues</th>
            <th>In the picture</th>
            <th>Overlaps</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {all.map((strand, at) => {
            const { id, kind, title, muted } = strand;
            return (
              <tr key={id} aria-current={id === inHand.id || undefined}>
                <td>
                  <Swatch kind={kind} />
                </td>
                <td>
                  <NameField strand={strand} />
                </td>
                <td>{plural(cuesInOrder(programme, id).length, 'cue')}</td>
                <td>
                  <Switch
                    size="xs"
                    aria-label={`“${title}” in the picture`}
                    checked={!muted}
                    onChange={(event) => strands.setMuted(id, !event.currentTarget.checked)}
                  />
                </td>
                <td>
                  {!isTravelling(kind) && (
                    <Switch
                      size="xs"
                      aria-label={`Cues of “${title}” may overlap`}
                      checked={strand.overlapAllowed}
                      onChange={(event) =>
                        make(allowOverlap(openNow().programme, id, event.currentTarget.checked))
                      }
                    />
                  )}
                </td>
                <td className={classes.add} style={{ margin: 0 }}>
                  <Button
                    disabled={id === inHand.id}
                    onClick={() => {
                      strands.take(id);
                      close();
                    }}
                  >
                    {id === inHand.id ? 'In hand' : 'Take in hand'}
                  </Button>
                  <ActionIcon
                    aria-label={`Move “${title}” up`}
                    disabled={at === 0}
                    onClick={() => strands.move(id, -1)}
                  >
                    <IconArrowUp size={16} stroke={1.6} />
                  </ActionIcon>
                  <ActionIcon
                    aria-label={`Move “${title}” down`}
                    disabled={at === all.length - 1}
                    onClick={() => strands.move(id, 1)}
                  >
                    <IconArrowDown size={16} stroke={1.6} />
                  </ActionIcon>
                  <Tooltip
                    label={
                      isLast(id)
                        ? 'A programme needs at least one strand'
                        : 'Delete the strand and its cues'
                    }
                  >
                    <ActionIcon
                      aria-label={`Delete “${title}”`}
                      disabled={isLast(id)}
                      onClick={() => strands.remove(id)}
                    >
                      <IconTrash size={16} stroke={1.6} />
                    </ActionIcon>
                  </Tooltip>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className={classes.add}>
        <span className="quiet">New strand</span>
        {TEXT_KINDS.map((kind) => (
          <Button key={kind} leftSection={<Swatch kind={kind} />} onClick={() => strands.add(kind)}>
            {STRAND_TITLES[kind]}
          </Button>
        ))}
      </div>
      <p className="quiet">
        Each strand is drawn over the ones above it here. One that is not in the picture is not
        checked either; its cues keep their times. Where cues may overlap, as when two people speak
        at once, they are stacked in the picture and in the rows.
      </p>
    </>
  );
}

function NameField({ strand: { id, title } }: { strand: Strand }) {
  const [name, setName] = useState(title);
  useEffect(() => setName(title), [title]);
  const keep = () => {
    make(renameStrand(openNow().programme, id, name));
    if (name.trim() === '') setName(title);
  };
  return (
    <TextInput
      size="xs"
      aria-label={`Name of “${title}”`}
      maxLength={300}
      value={name}
      onChange={(event) => setName(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}
