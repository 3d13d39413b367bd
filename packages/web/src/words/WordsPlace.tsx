/** Words: the text of the programme, as lines to type while listening or as one manuscript. */
import { Button, Menu, SegmentedControl } from '@mantine/core';
import { IconChevronDown } from '@tabler/icons-react';
import {
  Suspense,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { useNavigate } from 'react-router';
import {
  isTravelling,
  LANGUAGES,
  type Language,
  type Strand,
} from '@cadence/core/programme/programme.ts';
import type { Finding } from '@cadence/core/check/finding.ts';
import { countsOf } from '@cadence/core/pace/reading.ts';
import { countAgain, languageOf, setLanguage } from '@cadence/core/programme/edits/text/proof.ts';
import { isBlank } from '@cadence/core/text/lines.ts';
import { make } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { lazyPart } from '../kit/loadWithRetry.ts';
import {
  currentCues,
  currentPieces,
  openNow,
  useApp,
  useAppDispatch,
  useOpen,
  useShown,
  useStrand,
} from '../desk/store.ts';
import { looked, selected } from '../desk/view.ts';
import { PictureView } from '../picture/PictureView.tsx';
import { player } from '../playback/player.ts';
import { SpeedChart } from '../proof/SpeedChart.tsx';
import { useFindings } from '../proof/useFindings.ts';
import { goTo } from '../desk/places.ts';
import { showWindow } from '../desk/windows.ts';
import { StrandMenu } from '../strands/StrandMenu.tsx';
import { CueFields } from './CueFields.tsx';
import { FindBar } from './FindBar.tsx';
import { Findings } from './Findings.tsx';
import { LineFigures } from './LineFigures.tsx';
import { Lines, type LinesHandle } from './Lines.tsx';
import { linesOfWords, type WordsLine } from './lines.ts';
import type { Place } from './manuscript/places.ts';
import type { ManuscriptHandle } from './manuscript/ManuscriptView.tsx';
import classes from './WordsPlace.module.css';

const ManuscriptView = lazyPart(() => import('./manuscript/ManuscriptView.tsx'));

const languages: Readonly<Record<Language, string>> = {
  'en-GB': 'British English',
  'en-US': 'American English',
  none: 'Another language (no spell check)',
};

interface Working {
  readonly line: WordsLine | null;
  readonly typed: string | null;
}

export default function WordsPlace() {
  const shown = useShown((now) => now);
  // What is typed comes first; what is told of it may come a moment later.
  const programme = useDeferredValue(shown);
  const strand = useStrand();
  const cues = currentCues(programme);
  const pieces = currentPieces(programme);
  const lines = useMemo(() => linesOfWords(cues, pieces), [cues, pieces]);
  const wordsAs = useApp((state) => state.view.wordsAs);
  const selection = useApp((state) => state.view.selection);
  const dispatch = useAppDispatch();
  const findings = useFindings();
  const [finding, setFinding] = useState(false);
  const [below, setBelow] = useState<'findings' | 'speed'>('findings');
  const [{ line: typedOn, typed }, setWorking] = useState<Working>({ line: null, typed: null });
  const working = useCallback(
    (part: Partial<Working>) => setWorking((now) => ({ ...now, ...part })),
    [],
  );
  const listening = useRef<LinesHandle>(null);
  const manuscript = useRef<ManuscriptHandle>(null);
  const commentField = useRef<HTMLInputElement>(null);
  const asText = wordsAs === 'text';
  const empty = lines.filter(({ cue }) => !cue || isBlank(cue.text)).length;
  const chosen = lines.find(({ cue }) => cue?.id === selection.at(-1)) ?? null;
  const active = asText ? chosen : typedOn;

  const show = useCallback(
    (place: Place) => {
      dispatch(selected([place.cue]));
      manuscript.current?.show(place);
      const cue = openNow().programme.cues[place.cue];
      if (cue && !player.state().playing) player.seek(cue.start);
    },
    [dispatch],
  );
  const mark = useCallback(
    (places: readonly Place[]) => manuscript.current?.mark('found', places),
    [],
  );
  const go = ({ cue, place }: Finding) => {
    show({ cue, from: place?.from ?? 0, to: place?.to ?? 0 });
    manuscript.current?.focus();
  };
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'f') return;
      event.preventDefault();
      setFinding(true);
    };
    document.addEventListener('keydown', key);
    return () => document.removeEventListener('keydown', key);
  }, []);

  if (isTravelling(strand.kind)) return <Travels strand={strand} />;
  if (lines.length === 0 && !asText)
    return (
      <NothingToType
        strand={strand}
        sound={programme.facts.sound !== null}
        write={() => dispatch(looked({ wordsAs: 'text' }))}
      />
    );
  return (
    <main className="place">
      <section className={`page ${classes.page}`} aria-label="Lines">
        <div className={`bar ${classes.bar}`}>
          <SegmentedControl
            size="xs"
            aria-label="View"
            data={[
              { value: 'lines', label: 'Type as you listen' },
              { value: 'text', label: 'As text' },
            ]}
            value={wordsAs}
            onChange={(value) => dispatch(looked({ wordsAs: value as 'lines' | 'text' }))}
          />
          <StrandMenu />
          <span className="quiet">
            {asText ? (
              <Counts />
            ) : (
              `${plural(lines.length, 'line')}, ${empty === 0 ? 'all written' : `${empty} empty`}`
            )}
          </span>
          <span className="spring" />
          <Button aria-expanded={finding} onClick={() => setFinding((now) => !now)}>
            Find
          </Button>
          <TextTools />
          {!asText && (
            <Button
              variant={empty > 0 ? 'filled' : 'default'}
              disabled={empty === 0}
              onClick={() => listening.current?.toNextEmpty()}
            >
              Next empty line
            </Button>
          )}
        </div>
        {finding && <FindBar close={() => setFinding(false)} show={show} mark={mark} />}
        {asText ? (
          <Suspense fallback={<p className="empty">Opening …</p>}>
            <ManuscriptView
              key={strand.id}
              ref={manuscript}
              findings={findings ?? []}
              find={() => setFinding(true)}
              comment={() => commentField.current?.focus()}
            />
          </Suspense>
        ) : (
          <Lines key={strand.id} ref={listening} working={working} />
        )}
        {!asText && empty === 0 && <Next />}
      </section>
      <aside className={`side ${classes.side}`}>
        <PictureView />
        <LineFigures line={active} typed={asText ? null : typed}>
          {active?.cue && (
            <CueFields key={active.cue.id} cue={active.cue} commentField={commentField} />
          )}
        </LineFigures>
        <section className={`card ${classes.across}`}>
          <SegmentedControl
            size="xs"
            aria-label="Panel"
            data={[
              {
                value: 'findings',
                label: findings === null ? 'Findings' : `Findings: ${findings.length}`,
              },
              { value: 'speed', label: 'Reading speed' },
            ]}
            value={below}
            onChange={(value) => setBelow(value as 'findings' | 'speed')}
          />
          {below === 'findings' ? (
            <Findings findings={findings} go={go} />
          ) : (
            <SpeedChart
              pick={(id) => {
                const cue = openNow().programme.cues[id];
                if (!cue) return;
                dispatch(selected([id]));
                player.play(cue);
              }}
            />
          )}
        </section>
      </aside>
    </main>
  );
}

/** Where the work goes on once every line is written. */
const Next = () => (
  <div className={classes.next} role="status">
    <b>Every line is written.</b>
    <span className="spring" />
    <Button onClick={() => showWindow('weave')}>Weave words on the sound</Button>
    <Button onClick={() => goTo('timing')}>Time the cues</Button>
    <Button variant="filled" onClick={() => goTo('handover')}>
      Check and write files
    </Button>
  </div>
);

/** How much text there is, and how long it takes to read. */
function Counts() {
  const programme = useDeferredValue(useOpen((open) => open.programme));
  const { facts } = programme;
  const cues = currentCues(programme);
  const { words, characters, minutes } = useMemo(
    () =>
      countsOf(
        cues.map(({ text }) => text),
        facts.profile.charactersASecond,
      ),
    [cues, facts.profile],
  );
  const read = minutes < 1 ? `${Math.round(minutes * 60)} s` : `${minutes.toFixed(1)} min`;
  return (
    <>
      {plural(words, 'word')}, {plural(characters, 'character')}, {read} to read
    </>
  );
}

/** What can be done with the text as a whole. */
function TextTools() {
  const language = useOpen((open) => languageOf(open.programme));
  const passed = useOpen((open) => open.programme.facts.passedOver?.length ?? 0);
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <Button rightSection={<IconChevronDown size={14} />}>Text tools</Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item rightSection={<kbd className="key">Z</kbd>} onClick={() => showWindow('weave')}>
          Weave words on the sound …
        </Menu.Item>
        <Menu.Item
          rightSection={<kbd className="key">Alt Z</kbd>}
          onClick={() => showWindow('woven')}
        >
          Weave report …
        </Menu.Item>
        <Menu.Item
          rightSection={<kbd className="key">Shift C</kbd>}
          onClick={() => showWindow('cutCues')}
        >
          Cut cues …
        </Menu.Item>
        <Menu.Item
          rightSection={<kbd className="key">W</kbd>}
          onClick={() => showWindow('fitLines')}
        >
          Fit lines …
        </Menu.Item>
        <Menu.Item
          rightSection={<kbd className="key">Shift W</kbd>}
          onClick={() => showWindow('mergeCues')}
        >
          Merge short cues …
        </Menu.Item>
        <Menu.Item
          rightSection={<kbd className="key">Y</kbd>}
          onClick={() => showWindow('letters')}
        >
          Capitals and punctuation …
        </Menu.Item>
        <Menu.Divider />
        <Menu.Label>Spelling</Menu.Label>
        {LANGUAGES.map((each) => (
          <Menu.RadioItem
            key={each}
            value={each}
            checked={each === language}
            closeMenuOnClick
            onChange={() => make(setLanguage(openNow().programme, each))}
          >
            {languages[each]}
          </Menu.RadioItem>
        ))}
        <Menu.Item onClick={() => showWindow('rightWords')}>
          Dictionary of this programme …
        </Menu.Item>
        {passed > 0 && (
          <Menu.Item onClick={() => make(countAgain(openNow().programme))}>
            Restore {plural(passed, 'ignored finding')}
          </Menu.Item>
        )}
      </Menu.Dropdown>
    </Menu>
  );
}

/** A strand of passages has no cues with words of their own. */
function Travels({ strand }: { strand: Strand }) {
  const navigate = useNavigate();
  return (
    <main className="place">
      <div className="empty">
        <StrandMenu />
        <h2>“{strand.title}” is written in Travel</h2>
        <p>Choose another strand to write words here.</p>
        <Button onClick={() => void navigate('../travel')}>Go to Travel</Button>
      </div>
    </main>
  );
}

const NothingToType = ({
  strand,
  sound,
  write,
}: {
  strand: Strand;
  sound: boolean;
  write: () => void;
}) => (
  <main className="place">
    <div className="empty">
      <StrandMenu />
      <h2>{strand.kind === 'card' ? 'No cards yet' : 'No lines yet'}</h2>
      <p>
        {strand.kind === 'card'
          ? 'Write or paste a text, one paragraph a card. Or press N in Timing where a card starts.'
          : sound
            ? 'No speech was found in the sound. Find it again in Material with other settings, or draw cues in Timing.'
            : 'Bring in a film or a sound first. A line appears here for every piece of speech.'}
      </p>
      <Button onClick={write}>Write or paste a text</Button>
    </div>
  </main>
);
