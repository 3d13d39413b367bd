/** Which strand something is brought in on. */
import { Select } from '@mantine/core';
import { strandToAdd } from '@cadence/core/programme/edits/programme/strands.ts';
import { strandsInOrder } from '@cadence/core/programme/order.ts';
import { TEXT_KINDS, type Strand } from '@cadence/core/programme/programme.ts';
import { newId } from '../desk/desk.ts';
import { useOpen } from '../desk/store.ts';
import { Swatch } from '../strands/Swatch.tsx';

/** The strand that it goes to: one of those here, or a new one. */
export function Onto({ onto, choose }: { onto: Strand; choose: (strand: Strand) => void }) {
  const programme = useOpen((open) => open.programme);
  const here = strandsInOrder(programme);
  const isNew = !(onto.id in programme.strands);
  return (
    <Select
      size="xs"
      w={240}
      label="Strand"
      leftSection={<Swatch kind={onto.kind} />}
      leftSectionWidth={44}
      data={[
        {
          group: 'In this programme',
          items: here.map(({ id, title }) => ({ value: id, label: title })),
        },
        {
          group: 'New',
          items: TEXT_KINDS.map((kind) => ({
            value: kind,
            label: `New: ${strandToAdd(programme, kind, '').title}`,
          })),
        },
      ]}
      value={isNew ? onto.kind : onto.id}
      allowDeselect={false}
      onChange={(value) => {
        const kind = TEXT_KINDS.find((each) => each === value);
        const strand = kind
          ? strandToAdd(programme, kind, newId())
          : programme.strands[value ?? ''];
        if (strand) choose(strand);
      }}
    />
  );
}
