/** What weaving found, before it is taken: what is sure, what moves, and the cues that come of it. */
import { Switch } from '@mantine/core';
import { useMemo } from 'react';
import { apply } from '@cadence/core/programme/record/apply.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { cuesAfter } from '@cadence/core/programme/edits/words/weaveAndCut.ts';
import { weaveCues, type Weaving } from '@cadence/core/programme/edits/words/weaveCues.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { reportedWords, shifted } from '@cadence/core/programme/woven/wovenReport.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { add, toSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { SURE } from '@cadence/core/weave/confidence.ts';
import type { Repeat, Woven } from '@cadence/core/weave/woven.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { currentStrand } from '../desk/store.ts';
import { PreviewTable } from '../kit/PreviewTable.tsx';

interface ResultProps {
  readonly programme: Programme;
  readonly weaving: Weaving;
  readonly woven: readonly Woven[];
}

interface CutProps extends ResultProps {
  /** What would be made of a programme. */
  readonly edit: (programme: Programme, woven: readonly Woven[]) => Edit;
}

/** @param edit  given where cues are cut too: the cues are shown then, else the doubtful words */
export function WeaveResult({ edit, ...found }: ResultProps & Partial<CutProps>) {
  return (
    <>
      <Sums {...found} />
      <Moved {...found} />
      {edit ? <Cues edit={edit} {...found} /> : <Doubtful {...found} />}
    </>
  );
}

interface SungAgainProps {
  readonly programme: Programme;
  readonly weaving: Weaving;
  readonly repeats: readonly Repeat[];
  readonly adds: boolean;
  readonly setAdds: (adds: boolean) => void;
}

/** Lines that are heard again where nothing is written. */
export function SungAgain({ programme, weaving, repeats, adds, setAdds }: SungAgainProps) {
  const { frameRate, startTimecode } = programme.facts;
  if (repeats.length === 0) return null;
  return (
    <>
      <Switch
        size="xs"
        label={`Add a cue for ${plural(repeats.length, 'line that is', 'lines that are')} heard again, where nothing is written`}
        checked={adds}
        onChange={(event) => setAdds(event.currentTarget.checked)}
      />
      <PreviewTable
        label="Lines heard again"
        head={['Time', 'Line heard again']}
        all={repeats}
        cells={({ from, to, woven }) => {
          const start = woven.find((word) => word.start !== null)?.start ?? ZERO;
          return (
            <>
              <td>{formatTimecode(add(start, startTimecode), frameRate)}</td>
              <td>{weaving.words.slice(from, to).join(' ')}</td>
            </>
          );
        }}
      />
    </>
  );
}

const isDoubtful = ({ start, confidence }: Woven): boolean => start !== null && confidence < SURE;

function Sums({ woven }: ResultProps) {
  const said = woven.filter(({ start }) => start !== null);
  const pinned = said.filter(({ source }) => source === 'pinned').length;
  const doubtful = woven.filter(isDoubtful).length;
  return (
    <p role="status">
      <b>{plural(said.length - doubtful - pinned, 'word')} sure</b>, {doubtful} doubtful
      {pinned > 0 && `, ${String(pinned)} pinned`}
      {said.length < woven.length && `, ${String(woven.length - said.length)} not heard`}.
    </p>
  );
}

/** How far the words move from where they were woven before. */
function Moved({ programme, weaving, woven }: ResultProps) {
  const told = useMemo(() => {
    const after = apply(programme, weaveCues(programme, weaving, woven).changes);
    const strand = currentStrand(programme);
    return shifted(reportedWords(programme, strand), reportedWords(after, strand));
  }, [programme, weaving, woven]);
  if (!told || told.worst === 0) return null;
  const seconds = (time: Ticks) => `${toSeconds(time).toFixed(2)} s`;
  return (
    <p className="quiet">
      Compared with the last weave: median move {seconds(told.median)}, largest move{' '}
      {seconds(told.worst)} (“{told.word.text}”).
    </p>
  );
}

/** The cues as they will be once it is made. */
function Cues({ programme, weaving, woven, edit }: CutProps) {
  const { frameRate, startTimecode } = programme.facts;
  const cues = useMemo(
    () => cuesAfter(programme, currentStrand(programme), weaving.cues, edit(programme, woven)),
    [programme, weaving, woven, edit],
  );
  return (
    <>
      <p>
        {plural(weaving.cues.length, 'cue')} would become <b>{cues.length}</b>.
      </p>
      <PreviewTable
        label="Resulting cues"
        head={['Time', 'Cue']}
        all={cues}
        cells={({ start, text }) => (
          <>
            <td>{formatTimecode(add(start, startTimecode), frameRate)}</td>
            <td>{plainText(text)}</td>
          </>
        )}
      />
    </>
  );
}

function Doubtful({ programme, weaving, woven }: ResultProps) {
  const { frameRate, startTimecode } = programme.facts;
  const doubtful = woven.flatMap((each, at) =>
    isDoubtful(each) ? [{ word: weaving.words[at] ?? '', ...each }] : [],
  );
  return (
    <PreviewTable
      label="Doubtful words"
      head={['Doubtful word', 'Time', 'Confidence']}
      all={doubtful}
      cells={({ word, start, confidence }) => (
        <>
          <td>{word}</td>
          <td>{start !== null && formatTimecode(add(start, startTimecode), frameRate)}</td>
          <td>{Math.round(100 * confidence)} %</td>
        </>
      )}
    />
  );
}
