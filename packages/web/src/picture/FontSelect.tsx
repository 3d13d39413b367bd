/** Choosing a family: those of the programme first, then the shelf by what each is for, every name in its own face. */
import { ActionIcon, Select, type ComboboxItem } from '@mantine/core';
import { IconStar, IconStarFilled } from '@tabler/icons-react';
import { FAMILY_KINDS, SHELF, shelfPath, type FamilyKind } from '@cadence/paint/shelf.ts';
import { act } from '../desk/actions.ts';
import { useApp, useShown } from '../desk/store.ts';
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
    // Those with thousands of characters are not fetched for their name.
    if (family.kind && face && !family.forms)
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

interface Group {
  readonly group: string;
  readonly items: readonly string[];
}

/** Groups in which each name stands once, in the first that has it; without those that have none left. */
function eachOnce(groups: readonly Group[]): { group: string; items: string[] }[] {
  const seen = new Set<string>();
  return groups
    .map(({ group, items }) => {
      const fresh = items.filter((item) => !seen.has(item));
      fresh.forEach((item) => seen.add(item));
      return { group, items: fresh };
    })
    .filter(({ items }) => items.length > 0);
}

interface Props {
  readonly label: string;
  readonly value: string;
  readonly set: (family: string) => void;
}

export function FontSelect({ label, value, set }: Props) {
  const programme = useShown((shown) => shown);
  const { favourites, recent } = useApp((state) => state.view.fonts);
  const isFavourite = favourites.includes(value);
  const isKnown = (family: string) => SHELF.some((each) => each.kind && each.family === family);
  const own = familiesIn(programme);
  const groups = [
    {
      group: 'Favourites',
      items: favourites.filter((each) => own.includes(each) || isKnown(each)),
    },
    { group: 'In this programme', items: [...new Set([...own, value])] },
    { group: 'Used last', items: recent.filter(isKnown) },
    ...FAMILY_KINDS.map((kind) => ({
      group: NAMES[kind],
      items: SHELF.filter((each) => each.kind === kind).map(({ family }) => family),
    })),
  ];
  const choose = (family: string | null) => {
    if (family === null || family === value) return;
    act.usedFont(family);
    set(family);
  };
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
      data={eachOnce(groups)}
      value={value}
      onDropdownOpen={tellPage}
      // What is typed is looked for by itself, not after the name that stands there.
      onFocus={(event) => event.currentTarget.select()}
      onClick={(event) => event.currentTarget.select()}
      onChange={choose}
      leftSectionPointerEvents="all"
      leftSection={
        <ActionIcon
          size={22}
          aria-label={isFavourite ? 'Take out of the favourites' : 'Put among the favourites'}
          aria-pressed={isFavourite}
          onClick={() => act.favouriteFont(value)}
        >
          {isFavourite ? <IconStarFilled size={13} /> : <IconStar size={13} stroke={1.6} />}
        </ActionIcon>
      }
    />
  );
}
