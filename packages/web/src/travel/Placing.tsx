/** When a passage travels: where it begins and ends, and the ways to say so. */
import {
  afterLastPicture,
  makeRoom,
} from '@cadence/core/programme/edits/programme/passageEdits.ts';
import { Button, Menu } from '@mantine/core';
import { IconChevronDown } from '@tabler/icons-react';
import { heardBeats, soundsHeard, stretchOf } from '@cadence/core/programme/heard.ts';
import { marksInOrder } from '@cadence/core/programme/order.ts';
import type { Passage } from '@cadence/core/programme/passage.ts';
import type { Cue, Programme } from '@cadence/core/programme/programme.ts';
import type { Placing as Place } from '@cadence/core/programme/edits/programme/passages.ts';
import { frameAfter } from '@cadence/core/time/frameRate.ts';
import { add, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { openNow, useOpen, useShown } from '../desk/store.ts';
import { player } from '../playback/player.ts';
import { TimeField } from '../kit/TimeField.tsx';
import { travel } from './travel.ts';
import classes from './Placing.module.css';

const place = (placing: Place): void => travel.change(travel.place(placing));

/** The instant among some that is nearest to another. */
const nearest = (instants: readonly Ticks[], to: Ticks): Ticks | undefined =>
  [...instants].sort((a, b) => Math.abs(a - to) - Math.abs(b - to))[0];

/** The ways in which a passage can be put on the programme as it is. */
function waysTo(programme: Programme, cue: Cue | undefined): { says: string; to: () => Place }[] {
  const { facts, materials } = programme;
  const beats = heardBeats(programme).map(({ at }) => at);
  const film = materials[facts.picture ?? ''];
  const sounds = soundsHeard(programme);
  const ways = [
    { says: 'End with the programme', to: () => ({ end: facts.length }) },
    { says: 'Start after the last picture', to: () => ({ start: afterLastPicture(programme) }) },
    { says: 'Start at the playhead', to: () => ({ start: player.time }) },
    { says: 'End at the playhead', to: () => ({ end: player.time }) },
  ];
  if (film)
    ways.push({
      says: 'Match the film',
      to: () => ({ start: 0 as Ticks, end: frameAfter(film.length, facts.frameRate) }),
    });
  for (const sound of sounds.slice(0, 3)) {
    const { start, end } = stretchOf(sound);
    ways.push({
      says: `Match ${materials[sound.material]?.name ?? 'the sound'}`,
      to: () => ({ start, end }),
    });
  }
  if (cue && beats.length > 0)
    ways.push(
      {
        says: 'Start on the nearest beat',
        to: () => ({ start: nearest(beats, cue.start) ?? cue.start }),
      },
      { says: 'End on the nearest beat', to: () => ({ end: nearest(beats, cue.end) ?? cue.end }) },
    );
  return ways;
}

export function Placing({ passage, cue }: { passage: Passage; cue: Cue | undefined }) {
  const programme = useShown((shown) => shown);
  // As it is kept: what is tried out must not move the buttons under the pointer.
  const kept = useOpen((open) => open.programme.cues[cue?.id ?? '']);
  const length = useOpen((open) => open.programme.facts.length);
  const { frameRate, startTimecode } = programme.facts;
  const marks = marksInOrder(programme);
  const code = (at: Ticks) => formatTimecode(add(at, startTimecode), frameRate);
  const edit = (placing: Place) =>
    travel.place(placing)(openNow().programme, passage.id, travel.measure);
  return (
    <section className={classes.placing} aria-label="Times">
      {cue ? (
        <div className={classes.times}>
          <TimeField label="Start" beyond time={cue.start} move={(to) => edit({ start: to })} />
          <TimeField label="End" beyond time={cue.end} move={(to) => edit({ end: to })} />
        </div>
      ) : (
        <p className="quiet">Not placed yet. Choose when it is shown:</p>
      )}
      <Menu position="bottom-end" width={270}>
        <Menu.Target>
          <Button rightSection={<IconChevronDown size={14} />} variant={cue ? 'default' : 'filled'}>
            Place
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {waysTo(programme, cue).map(({ says, to }) => (
            <Menu.Item key={says} onClick={() => place(to())}>
              {says}
            </Menu.Item>
          ))}
          {marks.length > 0 && (
            <>
              {(['start', 'end'] as const).map((edge) => (
                <Menu.Sub key={edge}>
                  <Menu.Sub.Target>
                    <Menu.Sub.Item>
                      {edge === 'start' ? 'Start at a mark' : 'End at a mark'}
                    </Menu.Sub.Item>
                  </Menu.Sub.Target>
                  <Menu.Sub.Dropdown mah={320} style={{ overflowY: 'auto' }}>
                    {marks.slice(0, 60).map((mark) => (
                      <Menu.Item
                        key={mark.id}
                        rightSection={<span className="quiet">{code(mark.at)}</span>}
                        onClick={() => place({ [edge]: mark.at })}
                      >
                        {mark.name || 'Mark'}
                      </Menu.Item>
                    ))}
                  </Menu.Sub.Dropdown>
                </Menu.Sub>
              ))}
            </>
          )}
          {cue && passage.kind === 'crawl' && (
            <Menu.Item onClick={() => travel.repeatUntilEnd()}>
              Repeat until the programme ends
            </Menu.Item>
          )}
          {cue && (
            <>
              <Menu.Divider />
              <Menu.Item onClick={travel.takeOff}>Unplace, keep the text</Menu.Item>
            </>
          )}
        </Menu.Dropdown>
      </Menu>
      {kept && kept.end > length && (
        <Button onClick={() => travel.change(makeRoom)}>
          Extend the programme to {code(kept.end)}
        </Button>
      )}
    </section>
  );
}
