/** A list whose rows are dragged into another order, by pointer or by keyboard: Space takes a row, arrows move it. */
import {
  closestCenter,
  type Announcements,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { IconGripVertical } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import classes from './SortedList.module.css';

export interface SortedRow {
  readonly id: string;
  /** What the row is called when it is taken. */
  readonly name: string;
  readonly body: ReactNode;
}

/** What is read aloud with a handle. */
const HOW = {
  draggable:
    'Press Space to take this row, arrows to move it, Space to put it down, Esc to cancel.',
};

/** What is read aloud while a row is moved. */
function announcementsFor(rows: readonly SortedRow[]): Announcements {
  const at = (id: UniqueIdentifier | undefined) => rows.findIndex((row) => row.id === id);
  const nameOf = (id: UniqueIdentifier) => rows[at(id)]?.name ?? '';
  const says = (does: string, { active, over }: Pick<DragEndEvent, 'active' | 'over'>) =>
    over
      ? `${nameOf(active.id)} ${does} place ${at(over.id) + 1} of ${rows.length}.`
      : `${nameOf(active.id)} is where it was.`;
  return {
    onDragStart: ({ active }) => `${nameOf(active.id)} is taken.`,
    onDragOver: (event) => says('would be at', event),
    onDragEnd: (event) => says('was put at', event),
    onDragCancel: ({ active }) => `${nameOf(active.id)} is where it was.`,
  };
}

export function SortedList({
  rows,
  label,
  sort,
}: {
  rows: readonly SortedRow[];
  label: string;
  sort: (ids: string[]) => void;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = rows.map(({ id }) => id);
  const end = ({ active, over }: DragEndEvent): void => {
    if (!over || active.id === over.id) return;
    sort(arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id))));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{ announcements: announcementsFor(rows), screenReaderInstructions: HOW }}
      onDragEnd={end}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ul className={classes.sorted} aria-label={label}>
          {rows.map((row) => (
            <Row key={row.id} row={row} />
          ))}
        </ul>
      </SortableContext>
    </DndContext>
  );
}

function Row({ row }: { row: SortedRow }) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: row.id });
  return (
    <li ref={setNodeRef} style={{ transform: CSS.Translate.toString(transform), transition }}>
      <button
        type="button"
        className={classes.grip}
        {...attributes}
        {...listeners}
        aria-label={`Move ${row.name}`}
      >
        <IconGripVertical size={16} stroke={1.6} />
      </button>
      {row.body}
    </li>
  );
}
