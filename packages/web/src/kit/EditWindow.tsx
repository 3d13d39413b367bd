/** A window in which the editor chooses how an edit is made, sees what it would come to, and takes it. */
import type { ReactNode } from 'react';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { make } from '../desk/desk.ts';
import { openNow } from '../desk/store.ts';
import { WindowFoot } from './WindowFoot.tsx';
import classes from './windows.module.css';

interface EditWindowProps {
  readonly close: () => void;
  /** The fields that stand in the first row. */
  readonly choices?: ReactNode;
  /** More fields, below them. */
  readonly more?: ReactNode;
  /** What would come of it, in a sentence. */
  readonly says: ReactNode;
  /** What it would come to, seen before it is done. */
  readonly children?: ReactNode;
  /** The edit, made from the programme as it is when it is taken. */
  readonly edit: (programme: Programme) => Edit;
  /** Called with the edit that was made. */
  readonly made?: (edit: Edit) => void;
  /** Whether there is nothing to do. */
  readonly off: boolean;
  /** What the button says. */
  readonly does: string;
  /** What stands at the left of the foot. */
  readonly beside?: ReactNode;
}

export function EditWindow(props: EditWindowProps) {
  const { close, choices, more, says, children, edit, made, off, does, beside } = props;
  const take = () => {
    const wanted = edit(openNow().programme);
    if (make(wanted)) made?.(wanted);
    close();
  };
  return (
    <div className={classes.form}>
      {choices && <div className={classes.choices}>{choices}</div>}
      {more}
      <p role="status">{says}</p>
      {children}
      <WindowFoot close={close} take={take} off={off} says={beside}>
        {does}
      </WindowFoot>
    </div>
  );
}
