/** What is found in the programme, beside its text. */
import { Button } from '@mantine/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import type { Finding } from '@cadence/core/check/finding.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { useOpen } from '../desk/store.ts';
import { FindingMenu } from '../proof/FindingMenu.tsx';
import { figureOf, mendingOf } from '@cadence/core/check/mending.ts';
import { mendFinding } from '../proof/mending.ts';
import classes from './Findings.module.css';

interface Props {
  readonly findings: readonly Finding[] | null;
  readonly go: (finding: Finding) => void;
}

export function Findings({ findings, go }: Props) {
  const { startTimecode, frameRate } = useOpen((open) => open.programme.facts);
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: findings?.length ?? 0,
    getScrollElement: () => scroller.current,
    estimateSize: () => 52,
    overscan: 6,
  });
  if (findings === null) return <p className="quiet">Reading the text …</p>;
  if (findings.length === 0)
    return (
      <p className="quiet">
        No findings. The text can be read, and every word is in the dictionary.
      </p>
    );
  return (
    <div ref={scroller} className={classes.findings}>
      <ol style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map((item) => {
          const finding = findings[item.index];
          if (!finding) return null;
          const mending = mendingOf(finding);
          return (
            <li
              key={item.key}
              ref={rows.measureElement}
              data-index={item.index}
              style={{ transform: `translateY(${item.start}px)` }}
            >
              <button type="button" className={classes.go} onClick={() => go(finding)}>
                <span>{finding.message}</span>
                <small>
                  {formatTimecode(add(finding.at, startTimecode), frameRate)} {figureOf(finding)}
                </small>
              </button>
              {mending !== undefined && (
                <Button size="compact-xs" onClick={() => mendFinding(finding)}>
                  {mending}
                </Button>
              )}
              <FindingMenu finding={finding} />
            </li>
          );
        })}
      </ol>
    </div>
  );
}
