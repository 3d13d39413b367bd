/** Capitals and small letters in the sheet of the passage in hand, each text shown before it is changed. */
import { Chip, Group, SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { Casing } from '@cadence/core/text/language/casing.ts';
import { plural } from '@cadence/core/text/plural.ts';
import {
  recasedTexts,
  SHEET_TEXTS,
  withTexts,
  type SheetTexts,
} from '@cadence/core/text/sheet/recaseSheet.ts';
import { useOpen } from '../desk/store.ts';
import { BeforeAfter } from '../kit/BeforeAfter.tsx';
import { CASINGS } from '../kit/casings.ts';
import { EditWindow } from '../kit/EditWindow.tsx';
import { useKeptPassage } from './now.ts';
import { travel } from './travel.ts';

const LABELS: Readonly<Record<SheetTexts, string>> = {
  headings: 'Headings',
  roles: 'Roles',
  names: 'Names',
  lines: 'Other lines',
};

export default function SheetLetters({ close }: { close: () => void }) {
  const { passage } = useKeptPassage();
  const right = useOpen(({ programme }) => programme.facts.spelling?.right);
  const [which, setWhich] = useState<readonly SheetTexts[]>(['names']);
  const [casing, setCasing] = useState<Casing>('capitals');
  const all = useMemo(
    () =>
      passage
        ? recasedTexts(passage.sheet, passage.separator ?? undefined, new Set(which), casing, right)
        : [],
    [passage, which, casing, right],
  );
  return (
    <EditWindow
      close={close}
      choices={
        <>
          <Chip.Group
            multiple
            value={[...which]}
            onChange={(value) => setWhich(value as SheetTexts[])}
          >
            <Group gap={6} role="group" aria-label="Change">
              {SHEET_TEXTS.map((each) => (
                <Chip key={each} value={each} size="xs" radius={3}>
                  {LABELS[each]}
                </Chip>
              ))}
            </Group>
          </Chip.Group>
          <SegmentedControl
            aria-label="Capitals"
            data={[...CASINGS]}
            value={casing}
            onChange={(value) => setCasing(value as Casing)}
          />
        </>
      }
      says={
        all.length === 0
          ? 'Nothing would change.'
          : `${plural(all.length, 'text')} would change. Abbreviations and names keep the capitals that they have elsewhere.`
      }
      edit={(now) => {
        const id = passage?.id ?? '';
        const sheet = withTexts(now.passages[id]?.sheet ?? '', all);
        return travel.setSheet(sheet, 'Set capitals')(now, id, travel.measure);
      }}
      off={all.length === 0}
      does={`Change ${plural(all.length, 'text')}`}
    >
      <BeforeAfter all={all.map(({ text, old }) => ({ before: [old], after: [text] }))} />
    </EditWindow>
  );
}
