/** The foot of a window: what is to be said, the way back, and what the window does. */
import { Button } from '@mantine/core';
import type { ReactNode } from 'react';
import classes from './windows.module.css';

/** The foot of a window that only says something. */
export const CloseFoot = ({ close }: { readonly close: () => void }) => (
  <div className={classes.foot}>
    <span className="spring" />
    <Button onClick={close}>Close</Button>
  </div>
);

interface WindowFootProps {
  readonly close: () => void;
  /** Left out where the window is a form, which is sent instead. */
  readonly take?: () => void;
  readonly off: boolean;
  readonly says?: ReactNode;
  readonly children: ReactNode;
}

export const WindowFoot = ({ close, take, off, says, children }: WindowFootProps) => (
  <div className={classes.foot}>
    <span className="quiet">{says}</span>
    <span className="spring" />
    <Button onClick={close}>Cancel</Button>
    <Button
      variant="filled"
      disabled={off}
      data-takes
      {...(take ? { onClick: take } : { type: 'submit' as const })}
    >
      {children}
    </Button>
  </div>
);
