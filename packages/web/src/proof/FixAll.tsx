/** Buttons that mend all findings of a kind, shown before the findings one by one. */
import { Button } from '@mantine/core';
import { useMemo } from 'react';
import type { Finding } from '@cadence/core/check/finding.ts';
import { mendableKinds } from '@cadence/core/check/grouping.ts';
import { mendKind } from './mending.ts';
import classes from './FixAll.module.css';

export function FixAll({ findings }: { findings: readonly Finding[] }) {
  const kinds = useMemo(() => mendableKinds(findings), [findings]);
  if (kinds.length === 0) return null;
  return (
    <div className={classes.all} role="group" aria-label="Fix all of a kind">
      {kinds.map((kind) => (
        <Button key={kind.says} onClick={() => mendKind(kind)}>
          Fix {kind.says}
        </Button>
      ))}
    </div>
  );
}
