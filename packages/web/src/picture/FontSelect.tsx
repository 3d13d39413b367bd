/** Choosing a family: those of the programme first, then the shelf by what each is for, every name in its own face. */
import { Select, type ComboboxItem } from '@mantine/core';
import { FAMILY_KINDS, SHELF, shelfPath, type FamilyKind } from '@cadence/paint/shelf.ts';
import { useShown } from '../desk/store.ts';
import { familiesIn } from './families.ts';

const NAMES: Readonly<Record<FamilyKind, string>> = {
  sans: 'Sans',
  serif: 'Serif',
  condensed: 'Condensed',
  wide: 'Wide',
  slab: 'Slab',
  typewriter: 'Typewriter',
  hand: 'Hand',
  display: 'Display',
};

/** The name under which the page knows a family of the shelf, apart from its own fonts. */
const inPage = (family: string): string => `shelf ${family}`;

let told = false;

/** Tells the page where the families are; it fetches those that it shows. */
function tellPage(): void {
  if (told) return;
  told = true;
  for (const family of SHELF) {
    const [face] = family.faces;
    if (family.kind && face)
      document.fonts.add(
        new FontFace(inPage(family.family), `url("/fonts/${shelfPath(family, face)}")`),
      );
  }
}

const option = ({ option: { value } }: { option: ComboboxItem }) => (
  <span style={{ fontFamily: `"${inPage(value)}", "${value}", sans-serif`, fontSize: 15 }}>
    {value}
  </span>
);

interface Props {
  readonly label: string;
  readonly value: string;
  readonly set: (family: string) => void;
}

export function FontSelect({ label, value, set }: Props) {
  const programme = useShown((shown) => shown);
  const used = [...new Set([...familiesIn(programme), value])];
  const rest = SHELF.filter(({ kind, family }) => kind && !used.includes(family));
  return (
    <Select
      size="xs"
      label={label}
      searchable
      allowDeselect={false}
      maxDropdownHeight={360}
      comboboxProps={{ width: 250, position: 'bottom-start' }}
      nothingFoundMessage="No such font. Drop its file on the page."
      renderOption={option}
      data={[
        { group: 'In this programme', items: used },
        ...FAMILY_KINDS.map((kind) => ({
          group: NAMES[kind],
          items: rest.filter((each) => each.kind === kind).map(({ family }) => family),
        })).filter(({ items }) => items.length > 0),
      ]}
      value={value}
      onDropdownOpen={tellPage}
      // What is typed is looked for by itself, not after the name that stands there.
      onFocus={(event) => event.currentTarget.select()}
      onClick={(event) => event.currentTarget.select()}
      onChange={(family) => family !== null && family !== value && set(family)}
    />
  );
}
