/** The words of a cue with their times: each can be heard, moved a little and pinned. */
import { Button, Popover } from '@mantine/core';
import { IconPin } from '@tabler/icons-react';
import { useRef, useState } from 'react';
import { moveSyllable, splitInSyllables } from '@cadence/core/programme/edits/words/syllables.ts';
import { toggleHeld } from '@cadence/core/programme/edits/words/holds.ts';
import { pinWord, unpinWords } from '@cadence/core/programme/edits/words/weaveCues.ts';
import { wordsIn } from '@cadence/core/programme/woven/wordsIn.ts';
import type { Cue, WordTime } from '@cadence/core/programme/programme.ts';
import { languageOfStrand } from '@cadence/core/programme/languageOfStrand.ts';
import { syllablesFor } from '@cadence/core/text/language/syllables.ts';
import { timesOf } from '@cadence/core/programme/woven/reworded.ts';
import { stateOf } from '@cadence/core/programme/woven/wordState.ts';
import { frameLength } from '@cadence/core/time/frameRate.ts';
import {
  earlier,
  fromSeconds,
  later,
  subtract,
  toSeconds,
  ZERO,
  type Ticks,
} from '@cadence/core/time/ticks.ts';
import { make } from '../desk/desk.ts';
import { openNow, useShown } from '../desk/store.ts';
import { loadWithRetry } from '../kit/loadWithRetry.ts';
import { messageOf, say } from '../desk/say.ts';
import { TimeField } from '../kit/TimeField.tsx';
import { useTimeFollower } from '../playback/usePlayer.ts';
import { pin, playWord, weaveAgain } from './weaving.ts';
import classes from './WordChips.module.css';

const TENTH = fromSeconds(0.1);

/** The syllables of a word that is split; the word where it is not. */
function partsOf(word: string, time: WordTime | undefined): string[] {
  const edges = [0, ...(time?.syllables ?? []).map(({ from }) => from), word.length];
  return edges.slice(1).map((to, at) => word.slice(edges[at], to));
}

/** How long the notes of a word are held, in seconds. */
const heldFor = ({ start, end, held }: WordTime): number =>
  (held ?? []).reduce((sum, { from, to }) => sum + to - from, 0) * toSeconds(subtract(end, start));

interface SyllableProps {
  readonly part: string;
  readonly frame: Ticks;
  readonly move: (by: Ticks) => void;
}

const Syllable = ({ part, frame, move }: SyllableProps) => (
  <>
    <Button onClick={() => move(-frame as Ticks)}>“{part}” a frame earlier</Button>
    <Button onClick={() => move(frame)}>“{part}” a frame later</Button>
  </>
);

/** Splits a word in its syllables, by its language, or makes it one again. */
async function split({ id, strand }: Cue, place: number): Promise<void> {
  const language = languageOfStrand(openNow().programme, strand);
  const syllables = await loadWithRetry(() => syllablesFor(language));
  make(splitInSyllables(openNow().programme, id, place, syllables));
}

export function WordChips({ cue }: { cue: Cue }) {
  const frame = frameLength(useShown((programme) => programme.facts.frameRate));
  const words = wordsIn(cue);
  const times = timesOf(cue.words, words);
  const list = useRef<HTMLUListElement>(null);
  useTimeFollower((now) => {
    const said = times.findIndex((time) => time && time.start <= now && now < time.end);
    list.current?.querySelectorAll('li').forEach((chip, place) => {
      chip.toggleAttribute('data-said', place === said);
    });
  });
  if (cue.words.length === 0) return null;
  return (
    <ul ref={list} className={classes.chips} aria-label="Words">
      {words.map((word, place) => {
        const time = times[place];
        return (
          <li key={place}>
            <Chip cue={cue} place={place} word={word} time={time} frame={frame} />
          </li>
        );
      })}
      <li>
        <button type="button" className={classes.again} onClick={() => void weaveAgain(cue.id)}>
          Weave again
        </button>
      </li>
    </ul>
  );
}

interface ChipProps {
  readonly cue: Cue;
  readonly place: number;
  readonly word: string;
  readonly time: WordTime | undefined;
  readonly frame: Ticks;
}

/** A word, which opens what can be done with it. */
function Chip({ cue, place, word, time, frame }: ChipProps) {
  const [opened, setOpened] = useState(false);
  const state = stateOf(time);
  const pinned = state === 'pinned';
  const named = `${word}, ${state}`;
  /** Does something with the word, after which there is no more to choose. */
  const then = (run: () => void) => () => {
    run();
    setOpened(false);
  };
  return (
    <Popover
      opened={opened}
      onChange={setOpened}
      position="bottom-start"
      width={230}
      trapFocus
      returnFocus
    >
      <Popover.Target>
        <button
          type="button"
          className={classes.chip}
          data-state={state}
          aria-label={named}
          onClick={() => setOpened(!opened)}
        >
          {pinned && <IconPin size={11} aria-hidden />}
          <span>{partsOf(word, time).join('·')}</span>
          <small>{time ? `${toSeconds(subtract(time.start, cue.start)).toFixed(2)} s` : '–'}</small>
        </button>
      </Popover.Target>
      <Popover.Dropdown aria-label={named} className={classes.doing}>
        {time ? (
          <>
            {heldFor(time) > 0 && <p className="quiet">Held for {heldFor(time).toFixed(2)} s</p>}
            <Button onClick={then(() => playWord(cue, place))}>Play</Button>
            <div className={classes.typed}>
              <TimeField
                label="Start"
                time={time.start}
                move={(start) =>
                  pinWord(openNow().programme, cue.id, place, {
                    start,
                    end: later(time.end, start),
                  })
                }
              />
              <TimeField
                label="End"
                time={time.end}
                move={(end) =>
                  pinWord(openNow().programme, cue.id, place, {
                    start: earlier(time.start, end),
                    end,
                  })
                }
              />
            </div>
            {pinned ? (
              <Button onClick={then(() => make(unpinWords(openNow().programme, cue.id, [place])))}>
                Unpin
              </Button>
            ) : (
              <Button onClick={then(() => pin(cue, place, ZERO))}>Pin here</Button>
            )}
            {(
              [
                ['Pin a frame earlier', -frame],
                ['Pin a frame later', frame],
                ['Pin 0.1 s earlier', -TENTH],
                ['Pin 0.1 s later', TENTH],
              ] as const
            ).map(([label, by]) => (
              <Button key={label} onClick={then(() => pin(cue, place, by as Ticks))}>
                {label}
              </Button>
            ))}
            <Button
              onClick={then(() => {
                split(cue, place).catch((error: unknown) =>
                  say.problem(`The word was not split: ${messageOf(error)}`),
                );
              })}
            >
              {time.syllables ? 'Merge syllables' : 'Split into syllables'}
            </Button>
            <Button onClick={then(() => make(toggleHeld(openNow().programme, cue.id, place)))}>
              {heldFor(time) > 0 ? 'Not held' : 'Mark as held'}
            </Button>
            {time.syllables?.map((_, which) => (
              <Syllable
                key={which}
                part={partsOf(word, time)[which + 1] ?? ''}
                move={(by) => make(moveSyllable(openNow().programme, cue.id, place, which, by))}
                frame={frame}
              />
            ))}
          </>
        ) : (
          <p className="quiet">Not heard in the sound</p>
        )}
      </Popover.Dropdown>
    </Popover>
  );
}
