/** The list of programmes. */
import {
  ActionIcon,
  Button,
  FileButton,
  Menu,
  Modal,
  NativeSelect,
  TextInput,
} from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { IconDots, IconMoon, IconSearch, IconSun } from '@tabler/icons-react';
import { useMantineColorScheme } from '@mantine/core';
import { Suspense, useCallback, useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ListedProgramme } from '@cadence/core/programme/wire.ts';
import { fileUrl, materialUrl, server, stillUrl } from '../sync/api.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { formatLength, formatWhen } from '../kit/format.ts';
import { Mark } from '../kit/Mark.tsx';
import { Swatch } from '../strands/Swatch.tsx';
import { handOver } from '../desk/handed.ts';
import { say, messageOf } from '../desk/say.ts';
import { lazyPart } from '../kit/loadWithRetry.ts';
import classes from './ProgrammesPlace.module.css';

/** Comes after the list: nothing is dropped at once. */
const DropAnywhere = lazyPart(() => import('../kit/DropAnywhere.tsx'));

/** Does something at the server and says so if it fails. */
const attempt = (work: () => Promise<unknown>): void => {
  work().catch((error: unknown) => say.problem(messageOf(error)));
};

const ORDERS = {
  changed: {
    label: 'Last changed first',
    compare: (a: ListedProgramme, b: ListedProgramme) => b.changed - a.changed,
  },
  title: {
    label: 'By name',
    compare: (a: ListedProgramme, b: ListedProgramme) =>
      a.title.localeCompare(b.title, undefined, { numeric: true }),
  },
  length: {
    label: 'Longest first',
    compare: (a: ListedProgramme, b: ListedProgramme) => b.length - a.length,
  },
} as const;
type Order = keyof typeof ORDERS;

interface ProgrammesPlaceProps {
  /** Called when a place of a programme is about to be opened, as far as one can tell. */
  readonly fetchAhead: (place: string) => void;
}

export function ProgrammesPlace({ fetchAhead }: ProgrammesPlaceProps) {
  const [list, setList] = useState<readonly ListedProgramme[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [search, setSearch] = useState('');
  const [order, setOrder] = useState<Order>('changed');
  const [renaming, setRenaming] = useState<ListedProgramme | null>(null);
  const navigate = useNavigate();

  const refresh = useCallback(async () => {
    try {
      setList(await server.programmes());
      setProblem(null);
    } catch (error) {
      setProblem(messageOf(error));
    }
  }, []);
  useEffect(() => {
    document.title = 'Woven Cadence';
    void refresh();
    const again = () => void refresh();
    window.addEventListener('focus', again);
    return () => window.removeEventListener('focus', again);
  }, [refresh]);

  const create = () =>
    attempt(async () => {
      const { id } = await server.create(freshTitle(list ?? []));
      await navigate(`/p/${id}/material`);
    });
  const importFile = (file: File | null) =>
    file &&
    attempt(async () => {
      const text = await file.text();
      let json: unknown;
      try {
        json = JSON.parse(text);
      } catch {
        throw new Error(`${file.name} is not a programme's file. Nothing was changed.`);
      }
      await server.importFile(json);
      await refresh();
    });
  /** Opens programmes' files, and makes one programme of all else. */
  const takeDropped = (files: readonly File[]) => {
    const isProgramme = ({ name }: File) => /\.json$/i.test(name);
    files.filter(isProgramme).forEach(importFile);
    const rest = files.filter((file) => !isProgramme(file));
    if (rest.length === 0) return;
    attempt(async () => {
      const { id } = await server.create(titleFor(rest));
      handOver(id, rest);
      await navigate(`/p/${id}/material`);
    });
  };
  const remove = (programme: ListedProgramme) =>
    attempt(async () => {
      await server.remove(programme.id);
      await refresh();
      const id = `gone-${programme.id}`;
      notifications.show({
        id,
        autoClose: 15_000,
        message: (
          <span>
            “{programme.title}” was deleted.{' '}
            <Button
              onClick={() =>
                attempt(async () => {
                  await server.restore(programme.id);
                  notifications.hide(id);
                  await refresh();
                })
              }
            >
              Restore
            </Button>
          </span>
        ),
      });
    });

  const wanted = search.trim().toLowerCase();
  const found = list
    ?.filter((programme) => programme.title.toLowerCase().includes(wanted))
    .toSorted(ORDERS[order].compare);
  return (
    <div className="shell">
      <header className="top">
        <div className="top-left">
          <Mark />
          <div className="title">
            <span>Woven Cadence</span>
            <small>On-screen text, timed by its sound</small>
          </div>
        </div>
        <span />
        <div className="top-right">
          <NightSwitch />
        </div>
      </header>
      <main className={classes.main}>
        <div className="bar">
          <h1 className={classes.heading}>Programmes</h1>
          <span className="spring" />
          <TextInput
            aria-label="Search programmes"
            placeholder="Search"
            size="xs"
            leftSection={<IconSearch size={14} />}
            value={search}
            onChange={(event) => setSearch(event.currentTarget.value)}
          />
          <NativeSelect
            aria-label="Sort programmes"
            size="xs"
            data={Object.entries(ORDERS).map(([value, { label }]) => ({ value, label }))}
            value={order}
            onChange={(event) => setOrder(event.currentTarget.value as Order)}
          />
          <FileButton accept=".json,application/json" onChange={importFile}>
            {(props) => <Button {...props}>Open a programme’s file</Button>}
          </FileButton>
          <Button variant="filled" onClick={create}>
            New programme
          </Button>
        </div>
        {problem !== null && (
          <div className="notice" role="alert">
            The list cannot be read: {problem}
            <Button onClick={() => void refresh()}>Try again</Button>
          </div>
        )}
        {list?.length === 0 && (
          <div className="empty">
            <h2>No programmes yet</h2>
            <p>
              Drop a film, a sound or a text here: it becomes a programme. Speech is found by
              itself.
            </p>
            <Button variant="filled" onClick={create}>
              New programme
            </Button>
          </div>
        )}
        {list !== null && list.length > 0 && found?.length === 0 && (
          <p className="empty">No programme is called “{search}”.</p>
        )}
        <ul className={classes.grid}>
          {found?.map((programme) => (
            <li key={programme.id} className={`card ${classes.card}`}>
              <Link
                to={`/p/${programme.id}/${placeFor(programme)}`}
                className={classes.link}
                onPointerEnter={() => fetchAhead(placeFor(programme))}
                onFocus={() => fetchAhead(placeFor(programme))}
              >
                <Still programme={programme} />
                <span className={classes.name}>{programme.title}</span>
                <span className="quiet">{programme.damage ?? stateOf(programme)}</span>
                <span className={`gauge ${classes.gauge}`} aria-hidden>
                  <b
                    style={{
                      width: `${(programme.written / Math.max(1, lineCount(programme))) * 100}%`,
                    }}
                  />
                </span>
                <span className="quiet">Changed {formatWhen(programme.changed)}</span>
              </Link>
              <Menu position="bottom-end">
                <Menu.Target>
                  <ActionIcon
                    className={classes.more}
                    aria-label={`Actions for ${programme.title}`}
                  >
                    <IconDots size={18} />
                  </ActionIcon>
                </Menu.Target>
                <Menu.Dropdown>
                  <Menu.Item onClick={() => setRenaming(programme)}>Rename …</Menu.Item>
                  <Menu.Item
                    onClick={() =>
                      attempt(async () => {
                        await server.duplicate(programme.id);
                        await refresh();
                      })
                    }
                  >
                    Duplicate
                  </Menu.Item>
                  <Menu.Item component="a" href={fileUrl(programme.id)} download>
                    Save as one file
                  </Menu.Item>
                  <Menu.Item color="var(--alarm)" onClick={() => remove(programme)}>
                    Delete
                  </Menu.Item>
                </Menu.Dropdown>
              </Menu>
            </li>
          ))}
        </ul>
      </main>
      <Suspense>
        <DropAnywhere
          take={takeDropped}
          what="Film, sound or text for a new programme, or a programme’s file"
        />
      </Suspense>
      {renaming && (
        <RenameForm
          programme={renaming}
          close={() => setRenaming(null)}
          rename={(title) =>
            attempt(async () => {
              await server.rename(renaming.id, title);
              setRenaming(null);
              await refresh();
            })
          }
        />
      )}
    </div>
  );
}

/** How long it is and how far it has come, in words. */
const stateOf = (programme: ListedProgramme): string => {
  const written = `${programme.written} of ${plural(lineCount(programme), 'line')} written`;
  const empty = programme.materials > 0 ? 'no cues yet' : 'no material yet';
  return `${formatLength(programme.length)}, ${programme.cues > 0 ? written : empty}`;
};

/** How many lines there are to write: cues, and as far as one can tell pieces that have none yet. */
const lineCount = ({ cues, pieces }: ListedProgramme): number => Math.max(cues, pieces);

/** Where the work on a programme goes on. */
function placeFor(programme: ListedProgramme): string {
  if (programme.materials === 0) return 'material';
  return programme.cues > 0 && programme.written >= lineCount(programme) ? 'timing' : 'words';
}

/** The name of the largest of some files, as a title. */
function titleFor(files: readonly File[]): string {
  const [largest] = [...files].sort((a, b) => b.size - a.size);
  return (largest?.name.replace(/\.\w+$/, '') ?? '').trim() || 'Programme';
}

function freshTitle(list: readonly ListedProgramme[]): string {
  const taken = new Set(list.map((programme) => programme.title));
  let count = 1;
  while (taken.has(`Programme ${count}`)) count++;
  return `Programme ${count}`;
}

function Still({ programme }: { programme: ListedProgramme }) {
  const [missing, setMissing] = useState(false);
  const { still, image = null } = programme;
  // What is seen first: the film, or the picture behind the text.
  const source = still !== null ? stillUrl(still) : image && materialUrl(image);
  const shown = source !== null && !missing;
  const { words = '', kinds = [] } = programme;
  return (
    <span className={classes.still} style={{ background: programme.backdrop }}>
      {shown && <img src={source} alt="" onError={() => setMissing(true)} />}
      {!shown && words !== '' && <span className={classes.words}>{words}</span>}
      {!shown && kinds.length > 0 && (
        <span className={classes.cloths}>
          {kinds.map((kind) => (
            <Swatch key={kind} kind={kind} />
          ))}
        </span>
      )}
    </span>
  );
}

function NightSwitch() {
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const dark = colorScheme === 'dark';
  return (
    <ActionIcon
      aria-label={dark ? 'Light theme' : 'Night theme'}
      onClick={() => setColorScheme(dark ? 'light' : 'dark')}
    >
      {dark ? <IconSun size={18} stroke={1.6} /> : <IconMoon size={18} stroke={1.6} />}
    </ActionIcon>
  );
}

interface RenameProps {
  readonly programme: ListedProgramme;
  readonly close: () => void;
  readonly rename: (title: string) => void;
}

function RenameForm({ programme, close, rename }: RenameProps) {
  const [title, setTitle] = useState(programme.title);
  const empty = title.trim() === '';
  return (
    <Modal opened onClose={close} title="Rename programme">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (!empty) rename(title.trim());
        }}
      >
        <TextInput
          data-autofocus
          label="Name"
          value={title}
          maxLength={300}
          error={empty && 'A programme needs a name.'}
          onChange={(event) => setTitle(event.currentTarget.value)}
        />
        <div className="bar" style={{ marginTop: 14, justifyContent: 'flex-end' }}>
          <Button onClick={close}>Cancel</Button>
          <Button type="submit" variant="filled" disabled={empty}>
            Rename
          </Button>
        </div>
      </form>
    </Modal>
  );
}
