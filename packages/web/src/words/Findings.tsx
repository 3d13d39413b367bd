/** What is found in the programme, beside its text. */
import { Button } from '@mantine/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef } from 'react';
import type { Finding } from '@cadence/core/check/finding.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { useOpen } from '../desk/store.ts';
import { FindingMenu } from '../proof/FindingMenu.tsx';
import { figureOf, mendingOf } from '@cadence/core/check/mending.ts';
import { grouped } from '@cadence/core/check/grouping.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { FixAll } from '../proof/FixAll.tsx';
import { mendGroup } from '../proof/mending.ts';
import classes from './Findings.module.css';

interface Props {
  readonly findings: readonly Finding[] | null;
  readonly go: (finding: Finding) => void;
}

export function Findings({ findings, go }: Props) {
  const { startTimecode, frameRate } = useOpen((open) => open.programme.facts);
  const scroller = useRef<HTMLDivElement>(null);
  const groups = useMemo(() => grouped(findings ?? []), [findings]);
  const rows = useVirtualizer({
    count: groups.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 52,
    overscan: 6,
  });
  const code = ({ at }: Finding) => formatTimecode(add(at, startTimecode), frameRate);
  if (findings === null) return <p className="quiet">Reading the text …</p>;
  if (findings.length === 0)
    return (
      <p className="quiet">
        No findings. The text can be read, and every word is in the dictionary.
      </p>
    );
  return (
    <>
      <FixAll findings={findings} />
      <div ref={scroller} className={classes.findings}>
        <ol style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((item) => {
            const group = groups[item.index];
            if (!group) return null;
            const { finding, places } = group;
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
                    {places.length > 1
                      ? `${plural(places.length, 'place')}, from ${code(finding)}`
                      : `${code(finding)} ${figureOf(finding)}`}
                  </small>
                </button>
                {mending !== undefined && (
                  <Button size="compact-xs" onClick={() => mendGroup(group)}>
                    {mending}
                  </Button>
                )}
                <FindingMenu finding={finding} />
              </li>
            );
          })}
        </ol>
      </div>
    </>
  );
}
