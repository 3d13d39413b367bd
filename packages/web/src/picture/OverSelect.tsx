/** What text stands over: black, a still picture, or the picture of the programme. */
import { Select } from '@mantine/core';
import type { Id, TextStyle } from '@cadence/core/programme/programme.ts';
import { useShown } from '../desk/store.ts';

/** What is behind text that stands over nothing. */
const BLACK = '#0d0e12';
const [PICTURE, NOTHING] = ['picture', 'black'];

export type Over = Required<Pick<TextStyle, 'behind' | 'behindImage'>>;
export const OVER_BLACK: Over = { behind: BLACK, behindImage: null };

const overOf = (value: string | Id): Over => {
  if (value === PICTURE) return { behind: null, behindImage: null };
  return value === NOTHING ? OVER_BLACK : { behind: BLACK, behindImage: value };
};

interface Props {
  readonly over: Pick<TextStyle, 'behind' | 'behindImage'>;
  readonly set: (over: Over) => void;
}

export function OverSelect({ over, set }: Props) {
  const materials = useShown((programme) => programme.materials);
  const stills = Object.values(materials).filter(({ kind }) => kind === 'image');
  // One that was taken out of the material leaves what is behind it.
  const still = stills.find(({ id }) => id === over.behindImage);
  return (
    <Select
      size="xs"
      label="Background"
      allowDeselect={false}
      data={[
        { value: NOTHING, label: 'Black' },
        { value: PICTURE, label: 'Picture' },
        ...stills.map(({ id, name }) => ({ value: id, label: name })),
      ]}
      value={still?.id ?? (over.behind ? NOTHING : PICTURE)}
      onChange={(value) => value !== null && set(overOf(value))}
    />
  );
}
