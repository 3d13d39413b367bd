/** The entities of a programme in order of time, sorted once for each state of their table. */
import type { Range } from '../time/range.ts';
import type { Passage } from './passage.ts';
import type { Beat, Cue, Hit, Id, Mark, Piece, Programme, Strand, Table } from './programme.ts';

/** Cues and pieces in order of their start; of two that start together, the one that ends first. */
export const compareCues = (a: Range, b: Range): number => a.start - b.start || a.end - b.end;
const byInstant = (a: { at: number }, b: { at: number }): number => a.at - b.at;

/** Groups a table by `key` and sorts each group; remembers the answer as long as the table lives. */
function ordered<T>(
  key: (item: T) => Id,
  compare: (a: T, b: T) => number,
): (table: Table<T>, id: Id) => readonly T[] {
  const known = new WeakMap<Table<T>, Map<Id, T[]>>();
  return (table, id) => {
    let groups = known.get(table);
    if (!groups) {
      groups = new Map<Id, T[]>();
      for (const item of Object.values(table)) {
        const group = groups.get(key(item));
        if (group) group.push(item);
        else groups.set(key(item), [item]);
      }
      for (const group of groups.values()) group.sort(compare);
      known.set(table, groups);
    }
    return groups.get(id) ?? [];
  };
}

const cuesByStrand = ordered<Cue>((cue) => cue.strand, compareCues);
const cuesByPassage = ordered<Cue>((cue) => cue.passage ?? '', compareCues);
const piecesByMaterial = ordered<Piece>((piece) => piece.material, compareCues);
const beatsByMaterial = ordered<Beat>((beat) => beat.material, byInstant);
const hitsByMaterial = ordered<Hit>((hit) => hit.material, compareCues);
const allMarks = ordered<Mark>(() => '', byInstant);

/** The cues of a strand, by start. */
export const cuesInOrder = ({ cues }: Pick<Programme, 'cues'>, strand: Id): readonly Cue[] =>
  cuesByStrand(cues, strand);

/** The pieces found in a material, by start. */
export const piecesInOrder = (programme: Programme, material: Id | null): readonly Piece[] =>
  material === null ? [] : piecesByMaterial(programme.pieces, material);

/** The beats of a material, in order. */
export const beatsInOrder = (programme: Programme, material: Id | null): readonly Beat[] =>
  material === null ? [] : beatsByMaterial(programme.beats, material);

/** The hits in a material, by start. */
export const hitsInOrder = (
  programme: Pick<Programme, 'hits'>,
  material: Id | null,
): readonly Hit[] => (material === null ? [] : hitsByMaterial(programme.hits, material));

/** The marks of the programme, in order. */
export const marksInOrder = (programme: Programme): readonly Mark[] =>
  allMarks(programme.marks, '');

/** The strands, each drawn over the one before. */
export const strandsInOrder = ({ strands }: Pick<Programme, 'strands'>): readonly Strand[] =>
  Object.values(strands).sort((a, b) => (a.place ?? 0) - (b.place ?? 0));

/** The strands that are in the picture. */
export const strandsShown = (programme: Programme): readonly Strand[] =>
  strandsInOrder(programme).filter(({ muted }) => !muted);

/** The programme with one strand in the picture and no other. */
export const onlyStrand = (programme: Programme, id: Id): Programme => ({
  ...programme,
  strands: Object.fromEntries(
    strandsInOrder(programme).map((strand) => [strand.id, { ...strand, muted: strand.id !== id }]),
  ),
});

/** The cues that put a passage on the programme, by start. */
export const cuesOfPassage = ({ cues }: Pick<Programme, 'cues'>, passage: Id): readonly Cue[] =>
  cuesByPassage(cues, passage);

/** The passages, by when they travel; those that are not on the programme come last. */
export const passagesInOrder = (programme: Programme): readonly Passage[] =>
  Object.values(programme.passages).sort((a, b) => {
    const [first, second] = [a, b].map(({ id }) => cuesOfPassage(programme, id)[0]?.start);
    return (first ?? Infinity) - (second ?? Infinity) || a.title.localeCompare(b.title);
  });

/** The cues on either side of `cue` on its strand. */
export function neighbours(programme: Programme, cue: Cue): { before?: Cue; after?: Cue } {
  const row = cuesInOrder(programme, cue.strand);
  const at = placeOf(row, cue);
  const [before, after] = [row[at - 1], row[at + 1]];
  return { ...(before && { before }), ...(after && { after }) };
}

/** The place of `cue` in its ordered row, by halving. */
export function placeOf(row: readonly Cue[], cue: Cue): number {
  let [low, high] = [0, row.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (compareCues(row[middle] as Cue, cue) < 0) low = middle + 1;
    else high = middle;
  }
  while (low < row.length - 1 && row[low]?.id !== cue.id) low++;
  return low;
}
