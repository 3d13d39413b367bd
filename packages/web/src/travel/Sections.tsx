/** The sections of a roll in another order, or in another roll. */
import { passagesInOrder } from '@cadence/core/programme/order.ts';
import {
  together,
  type PassageEdit,
} from '@cadence/core/programme/edits/programme/passageEdits.ts';
import { Select } from '@mantine/core';
import { useMemo, useState } from 'react';
import { editPassage } from '@cadence/core/programme/edits/programme/passages.ts';
import type { Passage } from '@cadence/core/programme/passage.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { sheetOf } from '@cadence/core/scene/travelling.ts';
import { inOrder, sectionsOf, withSections } from '@cadence/core/text/sheet/sections.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { openNow } from '../desk/store.ts';
import type { WindowProps } from '../desk/windows.ts';
import { WindowFoot } from '../kit/WindowFoot.tsx';
import { stage } from '../picture/studio.ts';
import { passageNow } from './now.ts';
import { SortedList } from './SortedList.tsx';
import { travel } from './travel.ts';

export default function Sections({ close }: WindowProps) {
  const passage = useMemo(passageNow, []);
  const others = useMemo(
    () =>
      passagesInOrder(openNow().programme).filter(
        ({ id, kind }) => kind === 'roll' && id !== passage?.id,
      ),
    [passage],
  );
  const sheet = passage?.sheet ?? '';
  const sections = useMemo(
    () => (passage ? sectionsOf(sheet, sheetOf(passage)) : []),
    [passage, sheet],
  );
  const [order, setOrder] = useState(() => sections.map((_, at) => at));
  /** The roll that a section goes to, by its place. */
  const [away, setAway] = useState<ReadonlyMap<number, Id>>(new Map());
  const rows = order.flatMap((place) => {
    const section = sections[place];
    if (!section) return [];
    const name = section.title || 'Before the first heading';
    const body = (
      <>
        <span>{name}</span>
        <span className="spring" />
        <span className="quiet">{plural(section.count, 'line')}</span>
        {others.length > 0 && (
          <Select
            size="xs"
            w={150}
            aria-label={`Roll of ${name}`}
            allowDeselect={false}
            data={[
              { value: HERE, label: 'stays here' },
              ...others.map(({ id, title }) => ({ value: id, label: `to ${title}` })),
            ]}
            value={away.get(place) ?? HERE}
            onChange={(roll) => {
              const next = new Map(away);
              if (roll === null || roll === HERE) next.delete(place);
              else next.set(place, roll);
              setAway(next);
            }}
          />
        )}
      </>
    );
    return [{ id: String(place), name, body }];
  });
  const moved = away.size > 0 || order.some((place, at) => place !== at);
  const take = async () => {
    const name = away.size > 0 ? 'Move sections to another roll' : 'Put sections in another order';
    const staying = order.filter((place) => !away.has(place));
    const sent = others.flatMap((roll): Passage[] => {
      const places = order.filter((place) => away.get(place) === roll.id);
      if (places.length === 0) return [];
      return [{ ...roll, sheet: withSections(roll.sheet, inOrder(sheet, sections, places)) }];
    });
    // They are measured where they go to.
    for (const roll of sent) await stage.passage(openNow().programme, roll);
    travel.change(
      together(
        ...sent.map(
          (roll): PassageEdit =>
            (programme, _, measure) =>
              editPassage(programme, roll.id, { sheet: roll.sheet }, measure, name),
        ),
        travel.setSheet(inOrder(sheet, sections, staying), name),
      ),
    );
    close();
  };
  return (
    <>
      <SortedList rows={rows} label="Sections" sort={(ids) => setOrder(ids.map(Number))} />
      <WindowFoot
        close={close}
        off={!moved}
        says={moved ? '' : 'Drag a handle, or press Space on it and use the arrow keys.'}
        take={() => void take()}
      >
        {away.size > 0 ? 'Move sections' : 'Set order'}
      </WindowFoot>
    </>
  );
}

/** Stands for the roll in hand. */
const HERE = 'here';
