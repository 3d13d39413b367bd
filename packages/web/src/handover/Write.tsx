/** What leaves: films, pictures, sound and caption files, and what is being written. */
import { Button, SegmentedControl } from '@mantine/core';
import { IconCheck } from '@tabler/icons-react';
import { useDeferredValue, useEffect, useEffectEvent, useMemo, useState } from 'react';
import { CAPTION_FORMATS } from '@cadence/core/formats/names.ts';
import { captionsOf, strandOfWords } from '@cadence/core/programme/captions.ts';
import { ZERO } from '@cadence/core/time/ticks.ts';
import { strandsInOrder } from '@cadence/core/programme/order.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { endingOf, sizeWith, type AudioCodec, type Writing } from '@cadence/film/write/order.ts';
import { fileUrl, server } from '../sync/api.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { isInWindow, nameOfStroke } from '../kit/keyStrokes.ts';
import { fileName, save } from '../kit/save.ts';
import { say, messageOf } from '../desk/say.ts';
import { openNow, store, useOpen, useApp, useStrand } from '../desk/store.ts';
import { looked, type Handover, type Leaves } from '../desk/view.ts';
import { player } from '../playback/player.ts';
import { StrandMenu } from '../strands/StrandMenu.tsx';
import { codecsOf, rangeAsked, whyNot, writingsAsked } from '../writing/asked.ts';
import { jobs } from '../writing/jobs.ts';
import { soundCodec, writable, type Writable } from '../writing/writable.ts';
import { BeingWritten } from './BeingWritten.tsx';
import { FormatCard, useLosses, writeFile, type SavedFile } from './captions.tsx';
import { LeavingCards } from './LeavingCards.tsx';
import classes from './HandoverPlace.module.css';

/** Of the File System Access interface, where the browser has it. */
interface SavePicker {
  showSaveFilePicker(options: {
    readonly suggestedName: string;
    readonly types: readonly { readonly accept: Readonly<Record<string, readonly string[]>> }[];
  }): Promise<FileSystemFileHandle>;
}

/** How a file is called that holds something else than the film as it is. */
function nameOf(title: string, writing: Writing, isText: boolean): string {
  const what = isText ? ' text' : writing.kind === 'stills' ? ' stills' : '';
  return `${fileName(`${title}${what}`)}.${endingOf(writing)}`;
}

/** What this browser can write in the size that is asked for, once it was asked. */
function useWritable(programme: Programme, { lines }: Leaves): Writable | undefined {
  const [found, setFound] = useState<Writable>();
  const { frame } = programme.facts;
  const { width, height } = sizeWith(frame, lines ?? frame.height);
  useEffect(() => {
    let stale = false;
    void writable(width, height).then((can) => !stale && setFound(can));
    return () => {
      stale = true;
    };
  }, [width, height]);
  return found;
}

/** The codec of the sound of an MP4, once the browser was asked. */
function useSoundCodec(): AudioCodec {
  const [codec, setCodec] = useState<AudioCodec>('aac');
  useEffect(() => {
    let stale = false;
    void soundCodec().then((found) => !stale && setCodec(found));
    return () => {
      stale = true;
    };
  }, []);
  return codec;
}

export function Write({ wrong }: { wrong: number }) {
  const programme = useDeferredValue(useOpen((open) => open.programme));
  const id = useOpen((open) => open.id);
  const [written, setWritten] = useState<readonly SavedFile[]>([]);
  const [busy, setBusy] = useState(false);
  const handover = useApp(({ view }) => view.handover);
  const { formats: chosen, placeCodes, clearLines, leaves } = handover;
  const ownAudio = useSoundCodec();
  const isOnServer = leaves.where === 'server';
  const audio = isOnServer ? 'aac' : ownAudio;
  const can = useWritable(programme, leaves);
  const selection = useApp(({ view }) => view.selection);
  const passage = useApp(({ view }) => view.passage);
  const range = useMemo(
    () => rangeAsked(programme, leaves, { selection, passage }),
    [programme, leaves, selection, passage],
  );
  const chooseLeaves = (changed: Partial<Leaves>) => choose({ leaves: { ...leaves, ...changed } });
  const options = useMemo(() => ({ placeCodes, clearLines }), [placeCodes, clearLines]);
  const choose = (changed: Partial<Handover>) =>
    store.dispatch(looked({ handover: { ...handover, ...changed } }));
  const inHand = useStrand();
  const strand = useMemo(() => strandOfWords(programme, inHand), [programme, inHand]);
  const several = useOpen((open) => strandsInOrder(open.programme).length > 1);
  const count = useMemo(
    () => (strand ? captionsOf(programme, strand.id).length : 0),
    [programme, strand],
  );
  const strandId = strand?.id ?? inHand.id;
  const losses = useLosses(programme, strand?.id, options);
  useEffect(() => () => written.forEach((file) => URL.revokeObjectURL(file.url)), [written]);

  const [own, setOwn] = useState<FileSystemFileHandle>();
  const chooseOwn = async () => {
    const { container } = codecsOf(leaves.format);
    const suggestedName = `${fileName(programme.facts.title)}.${container}`;
    const types = [{ accept: { [`video/${container}`]: [`.${container}`] } }];
    const { showSaveFilePicker } = window as unknown as SavePicker;
    // Closing the window without a choice is none.
    setOwn(await showSaveFilePicker({ suggestedName, types }).catch(() => undefined));
  };
  /** What is asked for beside captions, of the programme as it is now. */
  const leaveNow = async () => {
    const now = openNow().programme;
    const asked = rangeAsked(now, leaves, { selection, passage });
    const trouble = whyNot(now, leaves, asked, strandId, can);
    if (trouble) throw new Error(trouble);
    // Stills alone need no range.
    const whole = typeof asked === 'string' ? { start: ZERO, end: now.facts.length } : asked;
    const ask = { range: whole, audio, strand: strandId, now: player.time };
    for (const { of, writing } of writingsAsked(now, leaves, ask)) {
      const name = nameOf(now.facts.title, writing, of === 'text');
      if (isOnServer) {
        await server.write({ programme: id, name, writing }, now);
        continue;
      }
      await jobs.add(now, {
        writing,
        name: (of === 'film' && own?.name) || name,
        ...(of === 'film' && { own }),
      });
    }
    setOwn(undefined);
  };
  const write = async () => {
    setBusy(true);
    try {
      if (leaves.kinds.length > 0) await leaveNow();
      const formats = CAPTION_FORMATS.filter(({ name }) => chosen.includes(name));
      const files: SavedFile[] = [];
      if (strand)
        for (const format of formats)
          files.push(await writeFile(format, strand, { several, options }));
      setWritten(files);
      files.forEach((file) => save(file.url, file.name));
    } catch (error) {
      say.problem(`Nothing was written: ${messageOf(error)}`);
    } finally {
      setBusy(false);
    }
  };
  const captions = count === 0 ? 0 : chosen.length;
  const hasNothing = captions + leaves.kinds.length === 0;
  const trouble = whyNot(programme, leaves, range, strandId, can);
  const writeByKey = useEffectEvent((event: KeyboardEvent) => {
    if (
      nameOfStroke(event) !== 'Ctrl Enter' ||
      isInWindow(event) ||
      hasNothing ||
      trouble !== undefined ||
      busy
    )
      return;
    event.preventDefault();
    void write();
  });
  useEffect(() => {
    const key = (event: KeyboardEvent) => writeByKey(event);
    document.addEventListener('keydown', key);
    return () => document.removeEventListener('keydown', key);
  }, []);
  return (
    <>
      <div className="bar">
        <h2>Write</h2>
        <span className="spring" />
        {several && <StrandMenu />}
      </div>
      {inHand !== strand && (
        <p className="quiet" role="status">
          Caption files cannot hold rolls or crawls. “{inHand.title}” is in the picture only.
          {strand && count > 0 && ` “${strand.title}” is written.`}
        </p>
      )}
      <div className={classes.formats}>
        <LeavingCards
          programme={programme}
          strand={strandId}
          leaves={leaves}
          choose={chooseLeaves}
          range={range}
          audio={audio}
          can={can}
          own={own}
          chooseOwn={
            !isOnServer && 'showSaveFilePicker' in window ? () => void chooseOwn() : undefined
          }
        />
        <h3 className={classes.head}>Captions</h3>
        {CAPTION_FORMATS.map((format) => (
          <FormatCard
            key={format.name}
            format={format}
            lost={losses?.[format.name]}
            on={chosen.includes(format.name)}
            options={options}
            choose={choose}
            toggle={() =>
              choose({
                formats: chosen.includes(format.name)
                  ? chosen.filter((name) => name !== format.name)
                  : [...chosen, format.name],
              })
            }
          />
        ))}
      </div>
      <div className={classes.foot}>
        {leaves.kinds.length > 0 && <WhereChoice leaves={leaves} choose={chooseLeaves} />}
        {trouble && (
          <p className={classes.warn} role="alert">
            {trouble}
          </p>
        )}
        <div className="bar">
          <Button
            variant="filled"
            disabled={hasNothing || trouble !== undefined}
            loading={busy}
            onClick={() => void write()}
          >
            Write {plural(captions + leaves.kinds.length, 'file')}{' '}
            <kbd className="key">Ctrl Enter</kbd>
          </Button>
          <Button component="a" href={fileUrl(id)} download>
            Save the programme as one file
          </Button>
        </div>
        <p className="quiet">
          {count === 0
            ? 'There is no text to write yet.'
            : `${plural(count, 'cue has', 'cues have')} text and will be written.`}
          {wrong > 0 && ` ${plural(wrong, 'error')} in the proof. You can still write.`}
        </p>
        <BeingWritten />
        {written.length > 0 && <h2>Written</h2>}
        {written.map((file) => (
          <div key={file.name} className={`card ${classes.written}`}>
            <IconCheck size={20} color="var(--woad)" />
            <span>
              <b>{file.name}</b>
              <small className="quiet">{file.note}</small>
            </span>
            <Button component="a" href={file.url} download={file.name}>
              Save again
            </Button>
          </div>
        ))}
      </div>
    </>
  );
}

/** Whether this browser writes what leaves, or the server. */
function WhereChoice({
  leaves: { where },
  choose,
}: {
  leaves: Leaves;
  choose: (changed: Partial<Leaves>) => void;
}) {
  return (
    <div className={classes.where}>
      <SegmentedControl
        size="xs"
        aria-label="Where it is written"
        data={[
          { value: 'here', label: 'In this browser' },
          { value: 'server', label: 'On the server' },
        ]}
        value={where}
        onChange={(chosen) => choose({ where: chosen as Leaves['where'] })}
      />
      <small className="quiet">
        {where === 'here' ? 'Goes on while you work.' : 'Goes on when this window is closed.'}
      </small>
    </div>
  );
}
