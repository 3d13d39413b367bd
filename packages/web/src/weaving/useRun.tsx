/** Something that takes its time in a window: how far it is, how it is stopped, and what came of it. */
import { Button, Progress } from '@mantine/core';
import { IconAlertTriangle } from '@tabler/icons-react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { messageOf } from '../desk/say.ts';
import { WindowFoot } from '../kit/WindowFoot.tsx';
import classes from '../kit/windows.module.css';
import type { OnProgress } from '../workers/weave.worker.ts';
import { stopWeaving } from './weaving.ts';

export interface Run<T> {
  /** What came of it; undefined before, and after `again`. */
  readonly found: T | undefined;
  readonly running: boolean;
  readonly begin: (work: (onProgress: OnProgress) => Promise<T>) => Promise<void>;
  /** What was found no longer holds: something else is asked for now. */
  readonly again: () => void;
  /** How far it is, or why it went wrong. */
  readonly state: ReactNode;
  /** The foot of the window: Stop while it runs. */
  readonly foot: (props: Omit<Parameters<typeof WindowFoot>[0], 'off'>) => ReactNode;
}

export function useRun<T>(): Run<T> {
  const [doing, setDoing] = useState<Readonly<Parameters<OnProgress>>>();
  const [found, setFound] = useState<T>();
  const [problem, setProblem] = useState<string>();
  /** Whether the window was closed, or what was asked for has changed since. */
  const turn = useRef(0);
  useEffect(
    () => () => {
      turn.current++;
    },
    [],
  );
  const again = () => {
    setFound(undefined);
    setProblem(undefined);
  };
  const begin = async (work: (onProgress: OnProgress) => Promise<T>) => {
    const mine = ++turn.current;
    // Progress and the answer come by different ways: progress may arrive last.
    let over = false;
    again();
    setDoing(['Opening', 0]);
    try {
      const came = await work((...now) => {
        if (!over && turn.current === mine) setDoing(now);
      });
      if (turn.current === mine) setFound(came);
    } catch (error) {
      if (turn.current === mine) setProblem(messageOf(error));
    } finally {
      over = true;
      if (turn.current === mine) setDoing(undefined);
    }
  };
  const running = doing !== undefined;
  // A button that had the focus gave way to another one: the focus goes to that.
  useEffect(() => {
    if (document.activeElement === document.body)
      document.querySelector<HTMLElement>(running ? '[data-stops]' : '[data-takes]')?.focus();
  }, [running]);
  const stop = () => {
    turn.current++;
    stopWeaving();
    setDoing(undefined);
  };
  const state = doing ? (
    <div>
      <p role="status">
        {doing[0]} … {Math.round(100 * doing[1])} %
      </p>
      <Progress
        value={100 * doing[1]}
        aria-label={doing[0]}
        color="var(--woad)"
        transitionDuration={0}
      />
    </div>
  ) : (
    problem !== undefined && (
      <p className="notice" role="alert">
        <IconAlertTriangle size={18} /> {problem}
      </p>
    )
  );
  const foot: Run<T>['foot'] = (props) =>
    doing ? (
      <div className={classes.foot}>
        <span className="spring" />
        <Button data-stops onClick={stop}>
          Stop
        </Button>
      </div>
    ) : (
      <WindowFoot off={false} {...props} />
    );
  return { found, running, begin, again, state, foot };
}
