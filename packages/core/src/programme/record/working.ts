/**
 * A programme that changes are put into one after the other, in place: each table is copied once, and the cues of
 * each strand are kept in one ordered row. For work that must look at the whole after every change.
 */
import type { Change } from './change.ts';
import { compareCues } from '../order.ts';
import { tableOf, type Cue, type Id, type Programme } from '../programme.ts';

type Fields = Readonly<Record<string, unknown>>;
type Tables = Record<string, Record<Id, Fields>>;

export class WorkingProgramme {
  readonly #original: Programme;
  #facts: Programme['facts'];
  readonly #copied: Tables = {};
  /** The cues of each strand in order of time, made when a strand is first asked for. */
  readonly #rows = new Map<Id, Cue[]>();
  /** How many cues put each passage on the programme. */
  #ofPassage: Map<Id, number> | undefined;

  constructor(programme: Programme) {
    this.#original = programme;
    this.#facts = programme.facts;
  }

  get facts(): Programme['facts'] {
    return this.#facts;
  }

  /** The entity that a change is about, as it is now. */
  find({ entity, id }: Pick<Change, 'entity' | 'id'>): Fields | undefined {
    if (entity === 'programme') return this.#facts as unknown as Fields;
    return this.#table(tableOf[entity])[id];
  }

  cue(id: Id): Cue | undefined {
    return this.find({ entity: 'cue', id }) as Cue | undefined;
  }

  strand(id: Id): Programme['strands'][Id] | undefined {
    return this.find({ entity: 'strand', id }) as Programme['strands'][Id] | undefined;
  }

  /** Whether any cue stands on a strand. */
  hasCues(strand: Id): boolean {
    return this.#row(strand).length > 0;
  }

  /** Whether two cues of a strand share time. */
  hasOverlap(strand: Id): boolean {
    let until = -Infinity;
    return this.#row(strand).some(({ start, end }) => {
      const overlaps = start < until;
      until = Math.max(until, end);
      return overlaps;
    });
  }

  /** Whether any cue puts a passage on the programme. */
  isPlaced(passage: Id): boolean {
    return (this.#passages().get(passage) ?? 0) > 0;
  }

  /**
   * The cues between which `cue` would stand on its strand. A cue of the same id is passed over, wherever it
   * stands now.
   */
  beside(cue: Cue): { readonly before: Cue | undefined; readonly after: Cue | undefined } {
    const row = this.#row(cue.strand);
    const at = placeIn(row, cue);
    const before = row[at - 1]?.id === cue.id ? row[at - 2] : row[at - 1];
    const after = row[at]?.id === cue.id ? row[at + 1] : row[at];
    return { before, after };
  }

  /** Puts a change in, which must fit: what it is about is there, or is not where it comes into being. */
  put(change: Change): void {
    if (change.entity === 'programme') {
      this.#facts = { ...this.#facts, ...change.becomes };
      return;
    }
    const name = tableOf[change.entity];
    const table = (this.#copied[name] ??= { ...this.#table(name) });
    const old = table[change.id];
    const next = change.becomes === null ? undefined : { ...old, ...change.becomes };
    if (next) table[change.id] = next;
    else Reflect.deleteProperty(table, change.id);
    if (change.entity === 'cue') this.#reorder(old as Cue | undefined, next as Cue | undefined);
  }

  /** The programme as it is now. Tables that no change touched are those of the programme it began with. */
  result(): Programme {
    const isSame = this.#facts === this.#original.facts && Object.keys(this.#copied).length === 0;
    if (isSame) return this.#original;
    return { ...this.#original, ...this.#copied, facts: this.#facts } as Programme;
  }

  #table(name: string): Record<Id, Fields> {
    return this.#copied[name] ?? (this.#original as unknown as Tables)[name] ?? {};
  }

  #row(strand: Id): Cue[] {
    if (this.#rows.size === 0) {
      for (const cue of Object.values(this.#table('cues')) as unknown as Cue[]) {
        const row = this.#rows.get(cue.strand);
        if (row) row.push(cue);
        else this.#rows.set(cue.strand, [cue]);
      }
      for (const row of this.#rows.values()) row.sort(compareCues);
    }
    const known = this.#rows.get(strand);
    if (known) return known;
    const empty: Cue[] = [];
    this.#rows.set(strand, empty);
    return empty;
  }

  #passages(): Map<Id, number> {
    if (this.#ofPassage) return this.#ofPassage;
    this.#ofPassage = new Map();
    for (const { passage } of Object.values(this.#table('cues')) as unknown as Cue[])
      if (passage) this.#ofPassage.set(passage, (this.#ofPassage.get(passage) ?? 0) + 1);
    return this.#ofPassage;
  }

  #reorder(old: Cue | undefined, next: Cue | undefined): void {
    if (this.#ofPassage && old?.passage !== next?.passage) {
      const counts = this.#ofPassage;
      if (old?.passage) counts.set(old.passage, (counts.get(old.passage) ?? 1) - 1);
      if (next?.passage) counts.set(next.passage, (counts.get(next.passage) ?? 0) + 1);
    }
    // Rows that nobody asked for yet are made from the table when somebody does.
    if (this.#rows.size === 0) return;
    if (old) {
      const row = this.#row(old.strand);
      const at = placeIn(row, old);
      const staysInOrder =
        next?.strand === old.strand &&
        (at === 0 || compareCues(row[at - 1] as Cue, next) <= 0) &&
        (at === row.length - 1 || compareCues(next, row[at + 1] as Cue) <= 0);
      if (staysInOrder) {
        row[at] = next;
        return;
      }
      row.splice(at, 1);
    }
    if (next) {
      const row = this.#row(next.strand);
      row.splice(placeIn(row, next), 0, next);
    }
  }
}

/** Where a cue stands in its ordered row, or would; by halving. Among cues of the same times, its own place. */
function placeIn(row: readonly Cue[], cue: Cue): number {
  let [low, high] = [0, row.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (compareCues(row[middle] as Cue, cue) < 0) low = middle + 1;
    else high = middle;
  }
  for (let at = low; at < row.length && compareCues(row[at] as Cue, cue) === 0; at++)
    if (row[at]?.id === cue.id) return at;
  return low;
}
