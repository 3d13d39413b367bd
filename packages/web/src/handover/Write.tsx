/** What leaves: the formats, what each cannot hold, and the files once they are written. */
import { Button, Checkbox } from '@mantine/core';
import { IconCheck } from '@tabler/icons-react';
import { useDeferredValue, useEffect, useEffectEvent, useMemo, useState } from 'react';
import type { Lost } from '@cadence/core/formats/captions.ts';
import { CAPTION_FORMATS } from '@cadence/core/formats/names.ts';
import { captionsOf, strandOfWords } from '@cadence/core/programme/captions.ts';
import { strandsInOrder } from '@cadence/core/programme/order.ts';
import type { Id, Programme, Strand } from '@cadence/core/programme/programme.ts';
import { fileUrl } from '../sync/api.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { formatBytes } from '../kit/format.ts';
import { isInWindow, nameOfStroke } from '../kit/keyStrokes.ts';
import { fileName, save } from '../kit/save.ts';
import { say, messageOf } from '../desk/say.ts';
import { openNow, store, useOpen, useApp, useStrand } from '../desk/store.ts';
import { looked, type Handover } from '../desk/view.ts';
import { wordsWorker } from '../bringing/wordsWorker.ts';
import { StrandMenu } from '../strands/StrandMenu.tsx';
import classes from './HandoverPlace.module.css';

interface SavedFile {
  readonly name: string;
  readonly note: string;
  readonly url: string;
}

type Choices = Omit<Handover, 'formats'>;

/** The choices that a format has, by its name. */
const CHOICES: Readonly<Record<string, { option: keyof Choices; label: string }>> = {
  srt: { option: 'placeCodes', label: 'Write positions as codes (some players show them as text)' },
  lrc: { option: 'clearLines', label: 'Write an empty line where the text ends' },
};

/** The captions to be written, and what a format may want to know beside them. */
function toWrite(programme: Programme, strand: Id, options: Choices) {
  const { frameRate, startTimecode: start, title } = programme.facts;
  return {
    captions: captionsOf(programme, strand),
    target: { frameRate, start, title, ...options },
  };
}

/** What each format cannot hold, worked out when the programme rests; undefined until it is. */
function useLosses(
  programme: Programme,
  strand: Id | undefined,
  options: Choices,
): Readonly<Record<string, readonly Lost[]>> | undefined {
  const [losses, setLosses] = useState<Readonly<Record<string, readonly Lost[]>>>();
  useEffect(() => {
    if (strand === undefined) return undefined;
    let stale = false;
    const { captions, target } = toWrite(programme, strand, options);
    void wordsWorker()
      .losses(captions, target)
      .then((found) => !stale && setLosses(found));
    return () => {
      stale = true;
    };
  }, [programme, strand, options]);
  return losses;
}

export function Write({ wrong }: { wrong: number }) {
  const programme = useDeferredValue(useOpen((open) => open.programme));
  const id = useOpen((open) => open.id);
  const [written, setWritten] = useState<readonly SavedFile[]>([]);
  const [busy, setBusy] = useState(false);
  const handover = useApp(({ view }) => view.handover);
  const { formats: chosen, placeCodes, clearLines } = handover;
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
  const losses = useLosses(programme, strand?.id, options);
  useEffect(() => () => written.forEach((file) => URL.revokeObjectURL(file.url)), [written]);

  const write = async () => {
    setBusy(true);
    try {
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
  const hasNothing = chosen.length === 0 || count === 0;
  const writeByKey = useEffectEvent((event: KeyboardEvent) => {
    if (nameOfStroke(event) !== 'Ctrl Enter' || isInWindow(event) || hasNothing || busy) return;
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
      {wrong > 0 && (
        <p className="quiet">{plural(wrong, 'error')} in the proof. You can still write.</p>
      )}
      <div className="bar">
        <Button variant="filled" disabled={hasNothing} loading={busy} onClick={() => void write()}>
          Write {plural(chosen.length, 'file')} <kbd className="key">Ctrl Enter</kbd>
        </Button>
        <Button component="a" href={fileUrl(id)} download>
          Save the programme as one file
        </Button>
      </div>
      <p className="quiet">
        {count === 0
          ? 'There is no text to write yet.'
          : `${plural(count, 'cue has', 'cues have')} text and will be written.`}
      </p>
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
    </>
  );
}

type Format = (typeof CAPTION_FORMATS)[number];

interface FormatProps {
  readonly format: Format;
  readonly lost: readonly Lost[] | undefined;
  readonly on: boolean;
  readonly toggle: () => void;
  readonly options: Choices;
  readonly choose: (changed: Partial<Handover>) => void;
}

function FormatCard({ format, lost, on, toggle, options, choose }: FormatProps) {
  const choice = CHOICES[format.name];
  return (
    <div className={`card ${classes.formatCard}`}>
      <label className={classes.format}>
        <Checkbox
          checked={on}
          onChange={toggle}
          color="var(--ink)"
          iconColor="var(--linen)"
          size="xs"
        />
        <span>
          <b>{format.title}</b>
          <small className="quiet">{lost ? holds(lost) : '…'}</small>
        </span>
      </label>
      {on && choice && (
        <Checkbox
          className={classes.choice ?? ''}
          checked={options[choice.option]}
          onChange={(event) => choose({ [choice.option]: event.currentTarget.checked })}
          color="var(--ink)"
          iconColor="var(--linen)"
          size="xs"
          label={choice.label}
        />
      )}
    </div>
  );
}

const holds = (lost: readonly Lost[]): string =>
  lost.length === 0
    ? 'Keeps everything.'
    : `Loses ${lost.map(({ kind, count, detail }) => `${kind} (${plural(count, 'cue')}${detail ? `: ${detail}` : ''})`).join(', ')}.`;

/** Writes a file and reads it back; what does not come back equal is said. */
async function writeFile(
  { name, mediaType }: Format,
  strand: Strand,
  { several, options }: { readonly several: boolean; readonly options: Choices },
): Promise<SavedFile> {
  const { programme } = openNow();
  const { captions, target } = toWrite(programme, strand.id, options);
  const { content, equal } = await wordsWorker().write(name, captions, target);
  const isText = typeof content === 'string';
  const blob = new Blob([isText ? content : (content as Uint8Array<ArrayBuffer>)], {
    type: isText ? `${mediaType};charset=utf-8` : mediaType,
  });
  const checked =
    equal === null
      ? ''
      : equal
        ? ', text read back: identical'
        : ', text read back: not identical, check it';
  return {
    // Where there are several strands, the name of the file says which one is in it.
    name: `${fileName(several ? `${programme.facts.title} ${strand.title}` : programme.facts.title)}.${name}`,
    note: `${formatBytes(blob.size)}${checked}`,
    url: URL.createObjectURL(blob),
  };
}
