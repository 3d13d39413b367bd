/** The sections of a roll in another order. */
import { useMemo, useState } from 'react';
import { inOrder, sectionsOf } from '@cadence/core/text/sections.ts';
import { sheetOf } from '@cadence/core/scene/travelling.ts';
import { plural } from '../app/format.ts';
import { WindowFoot, type WindowProps } from '../app/WindowFoot.tsx';
import { passageNow } from './now.ts';
import { SortedList } from './SortedList.tsx';
import { travel } from './travelActions.ts';

export default function Sections({ close }: WindowProps) {
  const passage = useMemo(passageNow, []);
  const sheet = passage?.sheet ?? '';
  const sections = useMemo(
    () => (passage ? sectionsOf(sheet, sheetOf(passage)) : []),
    [passage, sheet],
  );
  const [order, setOrder] = useState(() => sections.map((_, at) => at));
  const rows = order.flatMap((place) => {
    const section = sections[place];
    if (!section) return [];
    const name = section.title || 'Before the first heading';
    const body = (
      <>
        <span>{name}</span>
        <span className="spring" />
        <span className="quiet">{plural(section.count, 'line')}</span>
      </>
    );
    return [{ id: String(place), name, body }];
  });
  const moved = order.some((place, at) => place !== at);
  return (
    <>
      <SortedList rows={rows} label="Sections" sort={(ids) => setOrder(ids.map(Number))} />
      <WindowFoot
        close={close}
        off={!moved}
        says={moved ? '' : 'Drag a handle; or Space takes it, and arrows move it.'}
        take={() => {
          const sorted = inOrder(sheet, sections, order);
          travel.change(travel.setSheet(sorted, 'Put sections in another order'));
          close();
        }}
      >
        Set this order
      </WindowFoot>
    </>
  );
}
