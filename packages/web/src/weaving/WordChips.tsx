/** The words of a cue with their times: each can be heard, moved a little and pinned. */
import { Menu } from '@mantine/core';
import { IconPin } from '@tabler/icons-react';
import { useRef } from 'react';
import { unpinWords, wordsIn } from '@cadence/core/programme/edits/weaveCues.ts';
import type { Cue } from '@cadence/core/programme/programme.ts';
import { timesOf } from '@cadence/core/programme/reworded.ts';
import { stateOf } from '@cadence/core/programme/wordState.ts';
import { frameLength } from '@cadence/core/time/frameRate.ts';
import { fromSeconds, subtract, toSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { make } from '../app/edit.ts';
import { openNow, useShown } from '../app/store.ts';
import { useTimeFollower } from '../playback/usePlayer.ts';
import { pin, playWord, weaveAgain } from './weaving.ts';
import classes from './WordChips.module.css';

const TENTH = fromSeconds(0.1);

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
        const state = stateOf(time);
        const pinned = state === 'pinned';
        return (
          <li key={place}>
            <Menu position="bottom-start" withinPortal>
              <Menu.Target>
                <button
                  type="button"
                  className={classes.chip}
                  data-state={state}
                  aria-label={`${word}, ${state}`}
                >
                  {pinned && <IconPin size={11} aria-hidden />}
                  <span>{word}</span>
                  <small>
                    {time ? `${toSeconds(subtract(time.start, cue.start)).toFixed(2)} s` : '–'}
                  </small>
                </button>
              </Menu.Target>
              <Menu.Dropdown>
                {time ? (
                  <>
                    <Menu.Item onClick={() => playWord(cue, place)}>Play it</Menu.Item>
                    <Menu.Divider />
                    {pinned ? (
                      <Menu.Item
                        onClick={() => make(unpinWords(openNow().programme, cue.id, [place]))}
                      >
                        Unpin
                      </Menu.Item>
                    ) : (
                      <Menu.Item onClick={() => pin(cue, place, ZERO)}>
                        Pin it where it is
                      </Menu.Item>
                    )}
                    {(
                      [
                        ['A frame earlier', -frame],
                        ['A frame later', frame],
                        ['A tenth of a second earlier', -TENTH],
                        ['A tenth of a second later', TENTH],
                      ] as const
                    ).map(([label, by]) => (
                      <Menu.Item key={label} onClick={() => pin(cue, place, by as Ticks)}>
                        {label}, pinned
                      </Menu.Item>
                    ))}
                  </>
                ) : (
                  <Menu.Item disabled>It was not heard in the sound.</Menu.Item>
                )}
              </Menu.Dropdown>
            </Menu>
          </li>
        );
      })}
      <li>
        <button type="button" className={classes.again} onClick={() => void weaveAgain(cue.id)}>
          Weave it again
        </button>
      </li>
    </ul>
  );
}
