/** The frame around every place of a programme: top bar, saved state, keys, links. */
import { ActionIcon, Button, Menu, Tooltip, useMantineColorScheme } from '@mantine/core';
import {
  IconArrowBackUp,
  IconArrowForwardUp,
  IconCheck,
  IconMoon,
  IconSearch,
  IconSettings,
  IconSun,
} from '@tabler/icons-react';
import { Suspense, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { SAFE_AREAS } from '@cadence/core/scene/safeArea.ts';
import { isBlank } from '@cadence/core/text/lines.ts';
import { lastGroup, nextGroup } from '@cadence/core/programme/record/history.ts';
import { heardPieces, soundsHeard } from '@cadence/core/programme/heard.ts';
import { patternOf } from '@cadence/core/programme/patterns.ts';
import { cuesInOrder, cuesOfPassage, strandsInOrder } from '@cadence/core/programme/order.ts';
import { isTravelling, type Programme } from '@cadence/core/programme/programme.ts';
import { materialUrl } from '../sync/api.ts';
import { act } from '../desk/actions.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { formatFrame, formatLength, formatWhen } from '../kit/format.ts';
import { answerKey, showKeys } from './keys.ts';
import { followLink, useKeptLink } from './links.ts';
import { Mark } from '../kit/Mark.tsx';
import { Damage, OlderOnServer } from './ServerState.tsx';
import { closeProgramme, openProgramme } from '../desk/desk.ts';
import { Dropping } from './Dropping.tsx';
import { say, messageOf } from '../desk/say.ts';
import { goTo, goToPlacesWith, PLACES, type PlaceName } from '../desk/places.ts';
import { makeTravellingWith } from '../desk/travelling.ts';
import { takeHanded } from '../desk/handed.ts';
import { bringIn } from '../bringing/bringIn.ts';
import { openWindowsWith, showWindow } from '../desk/windows.ts';
import { showCommands, showCommandsWith } from './commands.ts';
import { lazyPart } from '../kit/loadWithRetry.ts';
import { openWindow } from './windows.ts';
import { openNow, store, useApp, useOpen, useShown } from '../desk/store.ts';
import { followWithClicks } from './clicks.ts';
import { followWithKeys, prepareKeys } from './keySounds.ts';
import { player } from '../playback/player.ts';
import { sectionsFollow } from '../listening/sectionsFollow.ts';
import { settling } from '../weaving/settling.ts';
import { tapping } from '../timing/tapping.ts';
import { linesOfWords } from '../words/lines.ts';
import { Broken } from '../kit/Broken.tsx';

openWindowsWith(openWindow);
// Travel is loaded with what is made in it.
makeTravellingWith(async (kind, file) => {
  if (file) await (await import('../travel/bringInSheet.ts')).makeOfSheet(file, kind);
  else await (await import('../travel/travel.ts')).travel.add(kind);
  goTo('travel');
});
const Commands = lazyPart(() => import('./Commands.tsx'));

/** The share of passages that are on the programme with text. */
function travelDone(programme: Programme): number {
  const all = Object.values(programme.passages);
  const done = all.filter(
    ({ id, sheet }) => sheet.trim() !== '' && cuesOfPassage(programme, id).length > 0,
  );
  return all.length > 0 ? done.length / all.length : 0;
}

/** The share of cues with text that have a pattern. */
function patternsDone(programme: Programme): number {
  const cues = Object.values(programme.cues).filter(
    ({ passage, text }) => !passage && !isBlank(text),
  );
  const worn = cues.filter((cue) => patternOf(programme, cue)).length;
  return cues.length > 0 ? worn / cues.length : 0;
}

/** How far each place's part of the work is done, from 0 to 1. */
function progressOf(programme: Programme): Record<PlaceName, number> {
  // That of the strand with the most cues: what is typed on another does not undo it.
  const [cues = []] = strandsInOrder(programme)
    .filter(({ kind }) => !isTravelling(kind))
    .map(({ id }) => cuesInOrder(programme, id))
    .sort((a, b) => b.length - a.length);
  const lines = linesOfWords(cues, heardPieces(programme));
  const written = lines.filter((line) => line.cue && !isBlank(line.cue.text)).length;
  const words = lines.length > 0 ? written / lines.length : 0;
  const material = programme.facts.sound
    ? 1
    : Object.keys(programme.materials).length > 0
      ? 0.5
      : 0;
  return {
    material,
    words,
    timing: lines.length > 0 ? cues.length / lines.length : 0,
    travel: travelDone(programme),
    patterns: patternsDone(programme),
    handover: words === 1 ? 0.5 : 0,
  };
}

/** Gives the player what the programme sounds and looks like; it does nothing where that is the same. */
function loadPlayer(programme: Programme): void {
  const { facts, materials } = programme;
  const url = (id: string | null) => {
    const hash = materials[id ?? '']?.hash;
    return hash === undefined ? null : materialUrl(hash);
  };
  const sounds = soundsHeard(programme).flatMap((sound) => {
    const source = url(sound.material);
    return source === null ? [] : [{ source, sound }];
  });
  const film = url(facts.picture);
  const length = materials[facts.picture ?? '']?.length ?? facts.length;
  player.load({
    sounds,
    picture: film === null ? null : { source: film, length },
    length: facts.length,
  });
}

export default function Shell() {
  const { id = '' } = useParams();
  const [problem, setProblem] = useState<string | null>(null);
  const [followed, setFollowed] = useState(false);
  const ready = useApp((state) => state.open?.id === id) && followed;

  useEffect(() => {
    let stale = false;
    openProgramme(id)
      .then(() => {
        if (stale) return;
        loadPlayer(openNow().programme);
        followLink(new URLSearchParams(window.location.search));
        setFollowed(true);
      })
      .catch((error: unknown) => !stale && setProblem(messageOf(error)));
    return () => {
      stale = true;
      setFollowed(false);
      player.pause();
      closeProgramme();
    };
  }, [id]);

  if (problem !== null)
    return (
      <div className="empty">
        <h2>This programme cannot be opened</h2>
        <p>{problem}</p>
        <Button component={Link} to="/">
          To the list of programmes
        </Button>
      </div>
    );
  return ready ? <Opened /> : <p className="empty">Opening the programme …</p>;
}

function Opened() {
  const programme = useOpen((open) => open.programme);
  const leftOut = useOpen((open) => open.leftOut);
  const { pathname } = useLocation();
  useKeptLink();

  const [finding, setFinding] = useState(false);
  const navigate = useNavigate();
  useEffect(() => {
    showCommandsWith(() => setFinding(true));
    goToPlacesWith((place) => void navigate(`/p/${openNow().id}/${place}`));
  }, [navigate]);

  useEffect(() => {
    loadPlayer(programme);
    prepareKeys(programme);
  }, [programme]);
  useEffect(() => {
    const { speed, loop } = store.getState().view;
    player.setSpeed(speed);
    player.setLooping(loop);
    document.addEventListener('keydown', answerKey);
    const stopTapping = tapping.listen();
    const stopSettling = settling();
    const stopSections = sectionsFollow();
    const stopClicks = followWithClicks();
    const stopKeys = followWithKeys();
    return () => {
      document.removeEventListener('keydown', answerKey);
      stopTapping();
      stopSettling();
      stopSections();
      stopClicks();
      stopKeys();
    };
  }, []);
  useEffect(() => {
    const files = takeHanded(openNow().id);
    if (files.length > 0) bringIn(files);
  }, []);
  useEffect(() => {
    if (leftOut > 0)
      say.note(`${plural(leftOut, 'change')} could not be applied after changes made elsewhere.`);
  }, [leftOut]);

  return (
    <Dropping>
      <div className="shell">
        <TopBar />
        {finding && (
          <Suspense>
            <Commands close={() => setFinding(false)} />
          </Suspense>
        )}
        <OlderOnServer />
        <Damage />
        <ErrorBoundary FallbackComponent={Broken} resetKeys={[pathname]}>
          <Suspense fallback={<p className="empty">Opening …</p>}>
            <Outlet />
          </Suspense>
        </ErrorBoundary>
      </div>
    </Dropping>
  );
}

function TopBar() {
  const facts = useShown((programme) => programme.facts);
  const programme = useDeferredValue(useOpen((open) => open.programme));
  const progress = useMemo(() => progressOf(programme), [programme]);
  return (
    <header className="top">
      <div className="top-left">
        <Tooltip label="To the list of programmes">
          <Link to="/" aria-label="To the list of programmes">
            <Mark />
          </Link>
        </Tooltip>
        <div className="title">
          <h1>{facts.title}</h1>
          <small>
            {formatFrame(facts.frame, facts.frameRate)}, {formatLength(facts.length)}
          </small>
        </div>
      </div>
      <nav className="places" aria-label="Places">
        {PLACES.map(({ path, name }) => (
          <NavLink key={path} to={path} className={({ isActive }) => (isActive ? 'on' : '')}>
            {name}
            <i aria-hidden>
              <b style={{ width: `${progress[path] * 100}%` }} />
            </i>
          </NavLink>
        ))}
      </nav>
      <div className="top-right">
        <KeptState />
        <UndoButtons />
        <MoreMenu />
        <Tooltip label="Find a command (Ctrl K)">
          <ActionIcon aria-label="Find a command" onClick={showCommands}>
            <IconSearch size={18} stroke={1.6} />
          </ActionIcon>
        </Tooltip>
        <Tooltip label="All keys (?)">
          <ActionIcon aria-label="All keys" onClick={showKeys} fw={600} fz={16}>
            ?
          </ActionIcon>
        </Tooltip>
      </div>
    </header>
  );
}

function KeptState() {
  const waiting = useOpen((open) => open.pending.length);
  const reached = useOpen((open) => open.reached);
  const keptAt = useOpen((open) => open.keptAt);
  const older = useOpen((open) => open.olderOnServer !== null);
  if (older)
    return (
      <span role="status" className="kept waiting">
        Not saved: see below
      </span>
    );
  if (!reached && waiting > 0)
    return (
      <span role="status" className="kept waiting">
        Not saved yet: {plural(waiting, 'change')} waiting
      </span>
    );
  const text =
    waiting > 0 ? 'Saving …' : keptAt === null ? 'All saved' : `Saved ${formatWhen(keptAt)}`;
  return (
    <span role="status" className="kept">
      {text}
    </span>
  );
}

function UndoButtons() {
  const last = useOpen((open) => lastGroup(open.history).at(-1)?.name);
  const next = useOpen((open) => nextGroup(open.history)[0]?.name);
  return (
    <>
      <Tooltip label={last ? `Undo: ${last}` : 'Nothing to undo'}>
        <ActionIcon
          aria-label={last ? `Undo: ${last}` : 'Undo'}
          disabled={!last}
          bg="none"
          onClick={act.undo}
        >
          <IconArrowBackUp size={19} stroke={1.6} />
        </ActionIcon>
      </Tooltip>
      <Tooltip label={next ? `Redo: ${next}` : 'Nothing to redo'}>
        <ActionIcon
          aria-label={next ? `Redo: ${next}` : 'Redo'}
          disabled={!next}
          bg="none"
          onClick={act.redo}
        >
          <IconArrowForwardUp size={19} stroke={1.6} />
        </ActionIcon>
      </Tooltip>
    </>
  );
}

function MoreMenu() {
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const dark = colorScheme === 'dark';
  const safeArea = useApp((state) => state.view.safeArea);
  const safeBy = useApp((state) => state.view.safeBy);
  const navigate = useNavigate();
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <ActionIcon aria-label="Set up">
          <IconSettings size={18} stroke={1.6} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => showWindow('setup')}>Set up programme …</Menu.Item>
        <Menu.Item rightSection={<kbd className="key">A</kbd>} onClick={act.toggleSafeArea}>
          {safeArea ? 'Hide the safe area' : 'Show the safe area'}
        </Menu.Item>
        <Menu.Label>Safe area by</Menu.Label>
        {SAFE_AREAS.map(({ name }) => (
          <Menu.Item
            key={name}
            aria-label={name === safeBy ? `${name}, chosen` : name}
            leftSection={name === safeBy ? <IconCheck size={15} /> : <span className="spring" />}
            onClick={() => act.setSafeBy(name)}
          >
            {name}
          </Menu.Item>
        ))}
        <Menu.Divider />
        <Menu.Item
          leftSection={dark ? <IconSun size={15} /> : <IconMoon size={15} />}
          onClick={() => setColorScheme(dark ? 'light' : 'dark')}
        >
          {dark ? 'Light' : 'Night'}
        </Menu.Item>
        <Menu.Item onClick={() => void navigate('/')}>All programmes</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
