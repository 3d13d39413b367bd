/** Travel: the text on its sheet, the whole passage with the frame on it, and the equation. */
import { Button, Menu, SegmentedControl } from '@mantine/core';
import { IconChevronDown, IconPlus } from '@tabler/icons-react';
import { useEffect, useMemo, useState } from 'react';
import {
  cuesInOrder,
  cuesOfPassage,
  passagesInOrder,
  strandsInOrder,
} from '@cadence/core/programme/order.ts';
import type { Crawl, Passage, Roll } from '@cadence/core/programme/passage.ts';
import { isTravelling, type Cue, type Facts } from '@cadence/core/programme/programme.ts';
import { figuresOf, type TravelFigures } from '@cadence/core/scene/travelFigures.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { add, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { goTo } from '../desk/places.ts';
import { selectionNow, store, useApp, useShown } from '../desk/store.ts';
import { tookStrand } from '../desk/view.ts';
import { shelf } from '../picture/studio.ts';
import { showWindow } from '../desk/windows.ts';
import { Transport } from '../picture/Transport.tsx';
import { Swatch } from '../strands/Swatch.tsx';
import { Equation } from './Equation.tsx';
import { Fit } from './Fit.tsx';
import { LookForm } from './LookForm.tsx';
import { useKeptPassage, passageNow, useFonts, usePassage } from './now.ts';
import { NoRoom } from './NoRoom.tsx';
import { Placing } from './Placing.tsx';
import { Sheet } from './Sheet.tsx';
import { CrawlStrip } from './strip/CrawlStrip.tsx';
import { RollStrip } from './strip/RollStrip.tsx';
import type { Coming } from '@cadence/core/scene/coming.ts';
import { travel } from './travel.ts';
import classes from './TravelPlace.module.css';

export default function TravelPlace() {
  const facts = useShown((programme) => programme.facts);
  const { passage, cue } = usePassage();
  // The cue of the passage in hand is the one that keys work on.
  useEffect(() => {
    const { strand } = store.getState().view;
    // The one whose cue is selected elsewhere, or the last that was in hand.
    const wanted = selectionNow().at(-1)?.passage ?? passageNow()?.id;
    if (wanted) travel.take(wanted);
    // The other places go on with the strand that was in hand, unless cards were made or taken here.
    return () => {
      const { open, view } = store.getState();
      const kind = open?.programme.strands[view.strand]?.kind;
      if (kind && isTravelling(kind)) store.dispatch(tookStrand(strand));
    };
  }, []);
  const kept = useKeptPassage();
  // What is being typed is looked at when it is kept: all of a long sheet is not for every key.
  const fonts = useFonts(kept.passage);
  const figures = useFigures(facts, passage, cue, fonts);
  const keptFigures = useFigures(facts, kept.passage, kept.cue, fonts);
  if (!passage) return <Nothing />;
  if (!figures || !kept.passage || !keptFigures) return <p className="empty">Loading fonts …</p>;
  return (
    <Travelling
      facts={facts}
      passage={passage}
      cue={cue}
      figures={figures}
      fonts={fonts}
      kept={{ passage: kept.passage, cue: kept.cue, figures: keptFigures }}
    />
  );
}

/** The figures of a passage, once its fonts are there. */
const useFigures = (
  facts: Facts,
  passage: Passage | undefined,
  cue: Cue | undefined,
  fonts: number,
): TravelFigures | undefined =>
  useMemo(
    () => (passage && fonts > 0 ? figuresOf(facts, passage, cue, shelf) : undefined),
    [facts, passage, cue, fonts],
  );

function Nothing() {
  const programme = useShown((shown) => shown);
  const decks = strandsInOrder(programme).flatMap((strand) => {
    const cards = strand.kind === 'card' ? cuesInOrder(programme, strand.id).length : 0;
    return cards > 0 ? [{ strand, cards }] : [];
  });
  return (
    <main className="place">
      <div className="empty">
        <h2>{decks.length > 0 ? 'No roll or crawl yet' : 'No rolls, crawls or cards yet'}</h2>
        {decks.map(({ strand, cards }) => (
          <p key={strand.id}>
            {plural(cards, 'card')} on “{strand.title}”.{' '}
            <Button
              onClick={() => {
                store.dispatch(tookStrand(strand.id));
                goTo('timing');
              }}
            >
              Time them
            </Button>
          </p>
        ))}
        <p>
          A roll moves up the frame, such as closing credits. A crawl moves across it, such as news.
          Cards stand still. Type or paste the text. Speed and duration are worked out for you.
        </p>
        <div className={classes.begin}>
          <Button variant="filled" onClick={() => void travel.add('roll')}>
            Make a roll <kbd className="key">Alt R</kbd>
          </Button>
          <Button onClick={() => void travel.add('crawl')}>
            Make a crawl <kbd className="key">Alt L</kbd>
          </Button>
          <Button onClick={() => showWindow('cards')}>
            Make cards <kbd className="key">Alt A</kbd>
          </Button>
        </div>
      </div>
    </main>
  );
}

interface Props {
  readonly facts: Facts;
  readonly passage: Passage;
  readonly cue: Cue | undefined;
  readonly figures: TravelFigures;
  /** Counts up when letters came. */
  readonly fonts: number;
  /** As it is kept, whatever is tried out. */
  readonly kept: { passage: Passage; cue: Cue | undefined; figures: TravelFigures };
}

function Travelling({ facts, passage, cue, figures, fonts, kept }: Props) {
  const [tab, setTab] = useState<'travels' | 'looks'>('travels');
  // Where it is on the programme nowhere, it is shown as if it began with it.
  const shown = useMemo<Cue>(
    () =>
      cue ?? {
        id: 'none',
        strand: '',
        start: 0 as Ticks,
        end: facts.length,
        text: [],
        style: {},
        words: [],
      },
    [cue, facts.length],
  );
  const coming = useMemo<Coming>(
    () => ({ facts, passage, cue: shown, figures }),
    [facts, passage, shown, figures],
  );
  return (
    <main className="place">
      <section className={classes.left} aria-label="Text">
        <Sheet coming={coming} placed={cue !== undefined} />
      </section>
      <section className={classes.middle} aria-label="Overview">
        {passage.kind === 'roll' ? (
          <RollStrip coming={coming as Coming & { passage: Roll }} />
        ) : (
          <CrawlStrip coming={coming as Coming & { passage: Crawl }} />
        )}
        <div className={classes.transport} data-keys tabIndex={-1}>
          <Transport />
        </div>
      </section>
      <aside className={classes.right} aria-label="Motion and look">
        <div className={classes.head}>
          <PassageMenu passage={passage} />
          <span className="spring" />
          <SegmentedControl
            aria-label="Show"
            data={[
              { value: 'travels', label: 'Motion' },
              { value: 'looks', label: 'Look' },
            ]}
            value={tab}
            onChange={(value) => setTab(value as typeof tab)}
          />
        </div>
        {tab === 'looks' ? (
          <LookForm passage={passage} />
        ) : (
          <>
            <Equation facts={facts} passage={passage} figures={figures} kept={kept.figures} />
            <Facts facts={facts} passage={passage} figures={figures} />
            <NoRoom passage={kept.passage} facts={facts} fonts={fonts} />
            <Placing passage={passage} cue={cue} />
            {kept.cue && (
              <Fit facts={facts} passage={kept.passage} cue={kept.cue} figures={kept.figures} />
            )}
          </>
        )}
      </aside>
    </main>
  );
}

const LIMIT = 'The limit is the reading speed of this programme. Change it in Set up.';

/** What is true of it as it travels. */
function Facts({
  facts,
  passage,
  figures,
}: {
  facts: Facts;
  passage: Passage;
  figures: TravelFigures;
}) {
  const { inSight, longest, wordsAMinute, charactersASecond } = figures;
  const crawl = passage.kind === 'crawl';
  return (
    <dl className={`facts ${classes.facts}`}>
      <dt>Each {crawl ? 'word' : 'line'} is visible for</dt>
      <dd>{inSight.toFixed(1)} s</dd>
      {longest && !crawl && (
        <>
          <dt title={`${longest.of.text}\n${LIMIT}`}>
            Longest line needs, at {facts.profile.charactersASecond} characters a second
          </dt>
          <dd>{longest.needs.toFixed(1)} s</dd>
        </>
      )}
      {crawl && (
        <>
          <dt title={LIMIT}>
            Reading speed, limit {facts.profile.charactersASecond} characters a second
          </dt>
          <dd>{charactersASecond.toFixed(1)}</dd>
        </>
      )}
      {crawl && (
        <>
          <dt>Words a minute</dt>
          <dd>{Math.round(wordsAMinute)}</dd>
        </>
      )}
    </dl>
  );
}

function PassageMenu({ passage }: { passage: Passage }) {
  const programme = useShown((shown) => shown);
  const { frameRate, startTimecode } = programme.facts;
  useApp((state) => state.view.passage);
  return (
    <Menu position="bottom-start" width={300}>
      <Menu.Target>
        <Button
          aria-label={`Passage in hand: ${passage.title}`}
          leftSection={<Swatch kind={passage.kind} />}
          rightSection={<IconChevronDown size={14} />}
          className={classes.passage}
        >
          {passage.title}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {passagesInOrder(programme).map((each) => {
          const start = cuesOfPassage(programme, each.id)[0]?.start;
          return (
            <Menu.RadioItem
              key={each.id}
              value={each.id}
              checked={each.id === passage.id}
              closeMenuOnClick
              rightSection={
                <span className="quiet">
                  {start === undefined
                    ? 'not placed'
                    : formatTimecode(add(start, startTimecode), frameRate)}
                </span>
              }
              onChange={travel.take}
            >
              <span className={classes.titled}>
                <Swatch kind={each.kind} /> {each.title}
              </span>
            </Menu.RadioItem>
          );
        })}
        <Menu.Divider />
        <Menu.Item
          leftSection={<IconPlus size={14} />}
          rightSection={<kbd className="key">Alt R</kbd>}
          onClick={() => void travel.add('roll')}
        >
          New roll
        </Menu.Item>
        <Menu.Item
          leftSection={<IconPlus size={14} />}
          rightSection={<kbd className="key">Alt L</kbd>}
          onClick={() => void travel.add('crawl')}
        >
          New crawl
        </Menu.Item>
        <Menu.Item
          leftSection={<IconPlus size={14} />}
          rightSection={<kbd className="key">Alt A</kbd>}
          onClick={() => showWindow('cards')}
        >
          Cards from a list …
        </Menu.Item>
        <Menu.Divider />
        {passage.kind === 'roll' ? (
          <Menu.Item onClick={() => showWindow('sections')}>Order sections …</Menu.Item>
        ) : (
          <Menu.Item onClick={() => showWindow('feed')}>Items from a feed …</Menu.Item>
        )}
        <Menu.Item onClick={travel.copy}>Duplicate this passage</Menu.Item>
        <Menu.Item onClick={travel.remove}>Delete this passage</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
