/** What would be taken of a file of words, and where it would go. */
import { SegmentedControl, Switch, Table } from '@mantine/core';
import { IconAlertTriangle } from '@tabler/icons-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import {
  isOtherScript,
  placesFor,
  stretchesFor,
  type Choice,
  type Contents,
  type Place,
} from '@cadence/core/programme/bringing.ts';
import { create, type Change } from '@cadence/core/programme/record/change.ts';
import { heardPieces } from '@cadence/core/programme/heard.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import type { Programme, Strand } from '@cadence/core/programme/programme.ts';
import type { Retiming } from '@cadence/core/programme/woven/retimed.ts';
import { add, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { make } from '../desk/desk.ts';
import { sungAs } from '@cadence/core/formats/sheet/songSheet.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { whenIdle } from '../sync/idle.ts';
import { say, messageOf } from '../desk/say.ts';
import { currentStrand, openNow, useOpen } from '../desk/store.ts';
import { strands } from '../desk/actions.ts';
import { makeTravelling } from '../desk/travelling.ts';
import { BEGIN } from '../desk/windows.ts';
import { WindowBody } from '../kit/WindowBody.tsx';
import { WindowFoot } from '../kit/WindowFoot.tsx';
import { showWindow } from '../desk/windows.ts';
import type { Planned, Understood } from '../workers/words.worker.ts';
import { wordsWorker } from './wordsWorker.ts';
import { Onto } from './Onto.tsx';
import { Times } from './Times.tsx';
import classes from './BringIn.module.css';

export const titles: Readonly<Record<Understood['format'], string>> = {
  srt: 'SRT',
  vtt: 'WebVTT',
  ttml: 'TTML',
  stl: 'EBU STL',
  lrc: 'LRC',
  csv: 'Table',
  otio: 'OpenTimelineIO',
  txt: 'Plain text',
  md: 'Markdown',
  rtf: 'RTF',
  docx: 'DOCX',
  rss: 'RSS feed',
  atom: 'Atom feed',
  midi: 'MIDI',
  wav: 'WAV',
};

const named: Readonly<Record<Contents, string>> = { cues: 'cue', script: 'line', marks: 'mark' };

const separators: Readonly<Record<string, string>> = {
  '\t': 'tab',
  table: 'table columns',
  ' - ': 'hyphen',
  '  ': 'spaces',
};

/** The programme without what bringing in does not look at. */
const slim = (programme: Programme): Programme => ({
  ...programme,
  beats: {},
  hits: {},
  pieces: {},
});

const placeNames: Readonly<Record<Place, string>> = {
  replace: 'Replace the cues',
  add: 'Add in the gaps',
  match: 'Update the times',
  again: 'Update the script',
  speech: 'Along the speech',
  spread: 'Along the whole length',
};

function buttonFor({ contents, place }: Choice, there: number, count: number): string {
  if (contents === 'marks') return `Make ${plural(count, 'mark')}`;
  if (place === 'add') return `Add ${plural(count, named[contents])}`;
  if (place === 'match') return 'Update the times';
  if (place === 'again') return 'Update the script';
  return there > 0 ? 'Replace the cues' : `Bring in ${plural(count, named[contents])}`;
}

/** What a choice would make of the programme as it is now, on a strand that may be yet to come. */
function planFor(id: string, choice: Choice, onto: Strand): Promise<Planned> {
  const now = openNow().programme;
  const stretches = stretchesFor(now, choice.place);
  const strands = { ...now.strands, [onto.id]: onto };
  return wordsWorker().plan(id, slim({ ...now, strands }), onto.id, stretches, choice);
}

/** The choice to make something that travels of a file. */
const TRAVELS = 'travels';

interface TakingProps {
  readonly file: File;
  readonly close: () => void;
  /** Of the window, by which the worker knows the file. */
  readonly id: string;
  readonly found: Understood;
}

export function Taking({ id, file, found, close }: TakingProps) {
  const { programme } = openNow();
  const [onto, setOnto] = useState(() => programme.strands[currentStrand(programme)] as Strand);
  const there = cuesInOrder(programme, onto.id).length;
  const speech = heardPieces(programme).length;
  const possible = useCallback(
    (of: Contents) => placesFor(of, { hasCues: there > 0, hasSpeech: speech > 0 }),
    [there, speech],
  );
  const [first = 'cues'] = found.contents;
  const [contents, setContents] = useState<Contents>(first);
  const [place, setPlace] = useState<Place>(possible(first)[0] ?? 'replace');
  const [retiming, setRetiming] = useState<Retiming>({});
  const [cut, setCut] = useState(true);
  const [isSung, setIsSung] = useState(true);
  // Where nobody speaks, and there is no music to sing to, there is nothing to weave on.
  const [weaves, setWeaves] = useState(speech > 0 || Object.keys(programme.beats).length > 0);
  const [plan, setPlan] = useState<Planned>();
  const [problem, setProblem] = useState<string>();
  const choice: Choice = { contents, place, retiming, cut, asSung: isSung };
  const sound = useOpen((open) => open.programme.facts.sound);
  const canWeave = contents === 'script' && place !== 'again' && sound !== null;
  const { travelling } = found;
  const [travels, setTravels] = useState(travelling?.isLikely ?? false);
  const chosen = useRef(false);
  useEffect(() => {
    let stale = false;
    planFor(id, { contents, place, retiming, cut, asSung: isSung }, onto).then(
      (made) => {
        if (stale) return;
        // Another script than the one that is here is not read again.
        if (place === 'again' && !chosen.current && isOtherScript(made.compared ?? [])) {
          setPlace(possible(contents)[1] ?? place);
          return;
        }
        setPlan(made);
        setProblem(undefined);
      },
      (error: unknown) => !stale && setProblem(messageOf(error)),
    );
    return () => {
      stale = true;
    };
  }, [id, found, contents, place, retiming, cut, isSung, onto, possible]);
  const take = async () => {
    try {
      if (travels && travelling) {
        await makeTravelling(travelling.kind, file);
        close();
        return;
      }
      const { name, parts, note } = await planFor(id, choice, onto);
      const isNew = contents !== 'marks' && !(onto.id in openNow().programme.strands);
      const changes: Change[] = isNew ? [create('strand', onto)] : [];
      for (const part of parts) {
        changes.push(...(JSON.parse(part) as Change[]));
        if (parts.length > 1) await whenIdle(50);
      }
      make({ name, changes, ...(note !== '' && { note }) });
      if (contents !== 'marks') strands.take(onto.id);
      close();
      if (canWeave && weaves) showWindow('weave', BEGIN);
      else if (note === '') say.note(`${file.name} was brought in.`);
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  const { facts } = programme;
  const clock = (time: Ticks) => formatTimecode(add(time, facts.startTimecode), facts.frameRate);
  const { separator } = found;
  if (!plan && problem === undefined) return <p className="quiet">Reading …</p>;
  return (
    <WindowBody className={classes.form}>
      <p className={classes.facts}>
        <b>{titles[found.format]}</b>, {plural(found.counts[contents] ?? 0, named[contents])}
        {plan?.range && ` from ${clock(plan.range.start)} to ${clock(plan.range.end)}`}
        {found.timedWords > 0 && contents === 'cues' && ', each word with its time'}
        {separator !== undefined && `, separator: ${separators[separator] ?? separator}`}.
      </p>
      {(found.contents.length > 1 || travelling) && (
        <SegmentedControl
          size="xs"
          aria-label="Bring in as"
          data={[
            ...(travelling ? [{ value: TRAVELS, label: `As a ${travelling.kind}` }] : []),
            ...found.contents.map((value) => ({
              value,
              label: `As ${plural(found.counts[value] ?? 0, named[value])}`,
            })),
          ].sort(
            (a, b) =>
              Number(b.value === TRAVELS && travelling?.isLikely) -
              Number(a.value === TRAVELS && travelling?.isLikely),
          )}
          value={travels ? TRAVELS : contents}
          onChange={(value) => {
            setTravels(value === TRAVELS);
            if (value === TRAVELS) return;
            setContents(value as Contents);
            setPlace(possible(value as Contents)[0] ?? 'replace');
          }}
        />
      )}
      {!travels && contents !== 'marks' && (
        <Onto
          onto={onto}
          choose={(strand) => {
            setOnto(strand);
            const cues = cuesInOrder(programme, strand.id).length;
            const [likeliest] = placesFor(contents, { hasCues: cues > 0, hasSpeech: speech > 0 });
            setPlace(likeliest ?? place);
          }}
        />
      )}
      {!travels && possible(contents).length > 1 && (
        <SegmentedControl
          size="xs"
          aria-label="Placement"
          data={possible(contents).map((value) => ({ value, label: placeNames[value] }))}
          value={place}
          onChange={(value) => {
            chosen.current = true;
            setPlace(value as Place);
          }}
        />
      )}
      {plan?.compared && !travels ? (
        <Compared lines={plan.compared} />
      ) : (
        <div className={classes.sample} tabIndex={0}>
          <Table aria-label="The first lines">
            <Table.Tbody>
              {plan?.sample.map(({ at, text }, row) => (
                <Table.Tr key={row}>
                  {at !== null && <Table.Td className={classes.time}>{clock(at)}</Table.Td>}
                  <Table.Td dir="auto">{text || '(no text)'}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </div>
      )}
      {found.warningCount > 0 && (
        <details className={classes.warnings}>
          <summary>
            <IconAlertTriangle size={16} color="var(--weld-text)" />
            {plural(found.warningCount, 'warning')}
          </summary>
          <ul>
            {found.warnings.map(({ line, message }, at) => (
              <li key={at}>
                {line > 0 && (
                  <b>
                    {found.format === 'stl' ? 'Block' : 'Line'} {line}.{' '}
                  </b>
                )}
                {message}
              </li>
            ))}
          </ul>
        </details>
      )}
      {!travels && contents === 'cues' && <Times change={setRetiming} />}
      {!travels && plan?.sung && (
        <Switch
          size="xs"
          label={`Write out what is sung: ${sungAs(plan.sung)}`}
          checked={isSung}
          onChange={(event) => setIsSung(event.currentTarget.checked)}
        />
      )}
      {!travels && contents === 'script' && (
        <Switch
          size="xs"
          label="Split lines that are too long for a cue"
          checked={cut}
          onChange={(event) => setCut(event.currentTarget.checked)}
        />
      )}
      {!travels && canWeave && (
        <Switch
          size="xs"
          label="Then weave the words on the sound, and cut cues at pauses"
          checked={weaves}
          onChange={(event) => setWeaves(event.currentTarget.checked)}
        />
      )}
      {problem !== undefined && (
        <p className="notice" role="alert">
          <IconAlertTriangle size={18} /> {problem}
        </p>
      )}
      <WindowFoot
        close={close}
        take={() => void take()}
        off={!plan || problem !== undefined}
        says={travels ? undefined : plan?.note}
      >
        {travels && travelling
          ? `Make a ${travelling.kind}`
          : buttonFor(choice, there, plan?.count ?? 0)}
      </WindowFoot>
    </WindowBody>
  );
}

const became = { changed: 'Changed', new: 'New', gone: 'Gone' } as const;

/** What changed in a script, the old beside the new. */
function Compared({ lines }: { lines: NonNullable<Planned['compared']> }) {
  const differing = lines.filter(({ kind }) => kind !== 'same');
  const same = lines.length - differing.length;
  return (
    <>
      <p className="quiet">
        {plural(same, 'line')} unchanged, with {same === 1 ? 'its' : 'their'} times.
        {differing.length === 0 && ' Nothing else changed.'}
      </p>
      {differing.length > 0 && (
        <div className={classes.sample} tabIndex={0}>
          <Table aria-label="What changed">
            <Table.Thead>
              <Table.Tr>
                <Table.Th />
                <Table.Th>Now</Table.Th>
                <Table.Th>In the file</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {differing.map(({ kind, old, text }, at) => (
                <Table.Tr key={at}>
                  <Table.Td className={classes.time}>{kind !== 'same' && became[kind]}</Table.Td>
                  <Table.Td>{old}</Table.Td>
                  <Table.Td>{text}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </div>
      )}
    </>
  );
}
