/** What would make a passage fit where it does not: each way seen before it is taken. */
import {
  makeRoom,
  setJourney,
  together,
  type PassageEdit,
} from '@cadence/core/programme/edits/programme/passageEdits.ts';
import { UnstyledButton } from '@mantine/core';
import { IconAlertTriangle } from '@tabler/icons-react';
import { useMemo } from 'react';
import type { Passage } from '@cadence/core/programme/passage.ts';
import type { Cue, Facts } from '@cadence/core/programme/programme.ts';
import { fitWithin, leftOutToFit, type TravelFigures } from '@cadence/core/scene/travelFigures.ts';
import { framesOf } from '@cadence/core/scene/travelling.ts';
import { frames } from '@cadence/core/time/frameRate.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { shelf } from '../picture/studio.ts';
import { formatSpeed } from './figures.ts';
import { travel } from './travel.ts';
import classes from './Fit.module.css';

interface Props {
  readonly facts: Facts;
  readonly passage: Passage;
  readonly cue: Cue;
  readonly figures: TravelFigures;
}

interface Trouble {
  readonly says: string;
  /** Frames that there are for it. */
  readonly room: number;
  /** The speed that is held, or that it may have, in pixels a frame. */
  readonly speed: number;
}

/** What is wrong: it is not through in the time that there is, or too fast to be read. */
function troubleOf({ facts, passage, cue, figures }: Props): Trouble | undefined {
  const { frameRate, length } = facts;
  const fps = frameRate.num / frameRate.den;
  const { speed, frames: had } = figures.travel;
  const until = cue.start < length && cue.end > length ? length : cue.end;
  const room = framesOf({ start: cue.start, end: until }, facts);
  const short = figures.needed - room;
  if (short > 0) {
    const left = `${(room / fps).toFixed(1)} s`;
    return {
      says:
        until < cue.end
          ? `Needs ${(figures.needed / fps).toFixed(1)} s, but the programme ends after ${left}.`
          : `Needs ${(figures.needed / fps).toFixed(1)} s, but has ${left}. The end is cut off.`,
      room,
      speed,
    };
  }
  const { longest, inSight, readable, charactersASecond } = figures;
  if (speed <= readable) return undefined;
  const limit = facts.profile.charactersASecond;
  return {
    says:
      passage.kind === 'crawl' || !longest
        ? `Too fast to read: ${charactersASecond.toFixed(1)} characters a second, limit ${limit}.`
        : `Too fast to read: “${longest.of.text}” needs ${longest.needs.toFixed(1)} s and is visible for ${inSight.toFixed(1)} s.`,
    room: had,
    speed: readable,
  };
}

export function Fit(props: Props) {
  const { facts, passage, cue, figures } = props;
  const trouble = troubleOf(props);
  const { says, room = 0, speed = 1 } = trouble ?? {};
  const ways = useMemo(() => {
    if (says === undefined) return [];
    const { travel: now } = figures;
    const fps = facts.frameRate.num / facts.frameRate.den;
    const fit = fitWithin(facts, passage, { frames: room, speed }, shelf);
    if (!fit) return [];
    const within = { start: cue.start, end: add(cue.start, frames(room, facts.frameRate)) };
    /** Several edits in one: each sees what the one before has made. */
    const held = { ...passage.journey, speed, follows: 'time' as const, keeps: 'start' as const };
    const found: { says: string; edit: PassageEdit }[] = [];
    // Where it is too fast to be read, it is not to be faster still.
    if (fit.speed !== undefined && fit.speed > now.speed)
      found.push({
        says: `Run at ${formatSpeed(fit.speed)} px a frame`,
        edit: together(setJourney({ follows: 'speed' }), travel.place(within)),
      });
    if (fit.size !== undefined)
      found.push({
        says: `Set the text at ${fit.size} px`,
        edit: together(setJourney(held), travel.setSize(fit.size)),
      });
    const out = leftOutToFit(passage, fit.most, facts.frame, shelf);
    if (out && out.lines.length > 0)
      found.push({
        says: `Leave out the last ${plural(out.lines.length, passage.kind === 'roll' ? 'line' : 'item')}`,
        edit: together(setJourney(held), travel.setSheet(out.sheet, 'Leave out what does not fit')),
      });
    const more = (fit.moreFrames / fps).toFixed(1);
    found.push({
      says: `Add ${more} s`,
      edit: together(setJourney(held), makeRoom),
    });
    return found;
  }, [says, room, speed, passage, cue, facts, figures]);
  if (says === undefined || ways.length === 0) return null;
  return (
    <section className={classes.fit} role="alert" aria-label="Ways to fit">
      <p>
        <IconAlertTriangle size={18} stroke={1.7} aria-hidden />
        {says}
      </p>
      {ways.map((way) => (
        <UnstyledButton
          key={way.says}
          className={classes.way}
          onPointerEnter={() => travel.tryOut(way.edit)}
          onPointerLeave={() => travel.tryOut(null)}
          onFocus={() => travel.tryOut(way.edit)}
          onBlur={() => travel.tryOut(null)}
          onClick={() => travel.change(way.edit)}
        >
          {way.says}
        </UnstyledButton>
      ))}
    </section>
  );
}
