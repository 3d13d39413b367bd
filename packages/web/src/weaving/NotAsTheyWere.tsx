/** The list of cues that did not come along as they were. */
import type { NotAsItWas } from '@cadence/core/programme/woven/broughtAlong.ts';
import { PreviewTable } from '../kit/PreviewTable.tsx';

const WHY: Readonly<Record<NotAsItWas['why'], string>> = {
  gone: 'cut out; a mark stands there',
  shortened: 'cut short',
  crowded: 'no room left; a mark stands there',
  rough: 'said again: times are rough',
};

interface Row {
  readonly at: string;
  readonly text: string;
  readonly why: NotAsItWas['why'];
}

export const NotAsTheyWere = ({ all }: { all: readonly Row[] }) => (
  <PreviewTable
    label="Cues that are not as they were"
    head={['Was at', 'Cue', 'Now']}
    all={all}
    cells={({ at, text, why }) => (
      <>
        <td>{at}</td>
        <td>{text}</td>
        <td>{WHY[why]}</td>
      </>
    )}
  />
);
