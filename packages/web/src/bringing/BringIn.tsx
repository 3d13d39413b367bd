/** The window that shows what was understood of a file of words, before it is taken. */
import { Button, Loader, NativeSelect, Progress } from '@mantine/core';
import { modals } from '@mantine/modals';
import { IconAlertTriangle } from '@tabler/icons-react';
import { proxy } from 'comlink';
import { useEffect, useState } from 'react';
import { newId } from '../desk/desk.ts';
import { formatBytes } from '../kit/format.ts';
import { messageOf } from '../desk/say.ts';
import { openNow, useApp } from '../desk/store.ts';
import type { Understood } from '../workers/words.worker.ts';
import { wordsWorker, stopWords } from './wordsWorker.ts';
import { Awaited } from './Awaited.tsx';
import { Taking, titles } from './Taking.tsx';
import classes from './BringIn.module.css';

export function openBringIn(file: File): void {
  const modalId = newId();
  modals.open({
    modalId,
    title: `Bring in ${file.name}`,
    size: 780,
    children: <BringIn file={file} close={() => modals.close(modalId)} />,
  });
}

/** Encodings that files come in; others that were found are offered too. */
const ENCODINGS = [
  ...['utf-8', 'utf-16le', 'utf-16be', 'windows-1252', 'windows-1250', 'windows-1251'],
  ...['windows-1253', 'windows-1254', 'windows-1255', 'windows-1256', 'iso-8859-2', 'macintosh'],
  ...['shift_jis', 'euc-jp', 'gb18030', 'big5', 'euc-kr'],
];

interface Props {
  readonly file: File;
  readonly close: () => void;
}

export function BringIn({ file, close }: Props) {
  const [encoding, setEncoding] = useState<string>();
  const [found, setFound] = useState<Understood>();
  const [problem, setProblem] = useState<string>();
  const [share, setShare] = useState(0);
  const [id] = useState(newId);
  useEffect(() => () => void wordsWorker().forget(id), [id]);
  useEffect(() => {
    let stale = false;
    setProblem(undefined);
    const { frameRate } = openNow().programme.facts;
    wordsWorker()
      .read(
        id,
        file,
        file.name,
        { frameRate, ...(encoding !== undefined && { encoding }) },
        proxy((part: number) => {
          if (!stale) setShare(part);
        }),
      )
      .then(
        (understood) => !stale && setFound(understood),
        (error: unknown) => !stale && setProblem(messageOf(error)),
      );
    return () => {
      stale = true;
    };
  }, [id, file, encoding]);
  const [waits, setWaits] = useState(true);
  const listening = useApp(({ arrivals }) =>
    arrivals.find(({ state, isHeard }) => isHeard && state === 'reading'),
  );
  // Captions have times of their own, and lists need none.
  const isScript = found?.contents[0] === 'script' && !found.travelling?.isLikely;
  const awaited = waits && isScript ? listening : undefined;
  const shown = encoding ?? found?.encoding;
  return (
    <div className={classes.form}>
      {problem !== undefined && (
        <p className="notice" role="alert">
          <IconAlertTriangle size={18} /> {problem} Nothing was changed.
        </p>
      )}
      {!found && problem === undefined && (
        <div className={classes.reading} role="status">
          <Loader size="sm" color="var(--woad)" /> Reading {file.name}, {formatBytes(file.size)}
          <span className="spring" />
          <Progress
            w={120}
            color="var(--woad)"
            value={share * 100}
            aria-label="Progress of reading"
          />
          <Button
            onClick={() => {
              stopWords();
              close();
            }}
          >
            Stop
          </Button>
        </div>
      )}
      {shown !== undefined && !awaited && (
        <NativeSelect
          size="xs"
          w={180}
          className={classes.encoding ?? ''}
          label={encoding === undefined ? 'Encoding (detected)' : 'Encoding'}
          data={[...new Set([shown, ...ENCODINGS])]}
          value={shown}
          onChange={(event) => setEncoding(event.currentTarget.value)}
        />
      )}
      {found && problem === undefined && found.contents.length === 0 && (
        <p role="alert">
          {titles[found.format]}. Nothing in it can become cues or marks.
          {found.format === 'midi' &&
            ' To use its tempo map, take beats in hand in Timing and press “Tempo map …”.'}
        </p>
      )}
      {awaited && <Awaited arrival={awaited} goOn={() => setWaits(false)} />}
      {found && problem === undefined && found.contents.length > 0 && !awaited && (
        <Taking id={id} file={file} found={found} close={close} />
      )}
    </div>
  );
}
