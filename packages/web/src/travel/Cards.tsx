/** Makes cards of a list of names or lines: seen before they are made. */
import { Select, Switch, Textarea } from '@mantine/core';
import { useMemo, useState } from 'react';
import {
  cardsOf,
  linesThatFit,
  makeCards,
  type CardPlan,
  type Stays,
} from '@cadence/core/programme/edits/programme/cards.ts';
import { rollLook } from '@cadence/core/programme/passage.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { newStrand } from '@cadence/core/programme/defaults.ts';
import { heardBeats } from '@cadence/core/programme/heard.ts';
import { marksInOrder } from '@cadence/core/programme/order.ts';
import { itemsOf } from '@cadence/core/scene/crawl.ts';
import { sheetOf } from '@cadence/core/scene/travelling.ts';
import { frameBefore } from '@cadence/core/time/frameRate.ts';
import { add, subtract, toSeconds } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { newId } from '../desk/desk.ts';
import { shapeAsSet } from '@cadence/core/scene/layout.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { offer } from '../desk/offer.tsx';
import { goTo } from '../desk/places.ts';
import { openNow, useOpen } from '../desk/store.ts';
import type { WindowProps } from '../desk/windows.ts';
import { FigureField } from '../kit/FigureField.tsx';
import { EditWindow } from '../kit/EditWindow.tsx';
import { useShelf } from '../picture/useShelf.ts';
import { OVER_BLACK, OverSelect } from '../picture/OverSelect.tsx';
import { player } from '../playback/player.ts';
import { strands } from '../desk/actions.ts';
import { passageNow } from './now.ts';
import classes from './Cards.module.css';

type By = 'reading' | 'shares' | 'beats' | 'bars' | 'marks';

export default function Cards({ close }: WindowProps) {
  const programme = useOpen((open) => open.programme);
  const { facts } = programme;
  const { frameRate, startTimecode } = facts;
  const style = useMemo(
    () => newStrand('card', '', facts.frame.height).style,
    [facts.frame.height],
  );
  const [text, setText] = useState(() => {
    const passage = passageNow();
    if (!passage) return '';
    return passage.kind === 'roll'
      ? passage.sheet
      : itemsOf(sheetOf(passage))
          .map((item) => item.text)
          .join('\n');
  });
  const lines = useMemo(() => text.split('\n'), [text]);
  const shaped = useMemo(() => lines.map((line) => [{ text: line }]), [lines]);
  const shelf = useShelf(style.family, shaped);
  const room = useMemo(
    () =>
      shelf
        ? {
            longestLine: facts.frame.width - 2 * style.margin,
            measure: (line: string) => shapeAsSet([{ text: line }], style, shelf).width,
          }
        : undefined,
    [shelf, facts.frame.width, style],
  );
  const fits = linesThatFit(facts, style);
  const [most, setMost] = useState(Math.min(6, fits));
  const [by, setBy] = useState<By>('reading');
  const [seconds, setSeconds] = useState(30);
  const [fade, setFade] = useState(0);
  const { roleColour } = rollLook(facts.frame.height);
  const [framed, setFramed] = useState(false);
  const [over, setOver] = useState(OVER_BLACK);
  const [from] = useState(() => frameBefore(player.time, frameRate));
  const fps = frameRate.num / frameRate.den;
  const plan = useMemo<CardPlan>(() => {
    const instants = {
      beats: () => heardBeats(programme).map(({ at }) => at),
      bars: () =>
        heardBeats(programme)
          .filter(({ bar }) => bar !== null)
          .map(({ at }) => at),
      marks: () => marksInOrder(programme).map(({ at }) => at),
    };
    const stays: Stays =
      by === 'reading'
        ? { by }
        : by === 'shares'
          ? { by, frames: Math.max(1, Math.round(seconds * fps)) }
          : { by: 'instants', instants: instants[by]() };
    return {
      lines,
      room,
      most,
      from,
      stays,
      fade,
      framed,
      ...over,
    };
  }, [programme, lines, room, most, from, by, seconds, fps, fade, framed, over]);
  const cards = useMemo(() => cardsOf(programme, plan), [programme, plan]);
  const end = cards.at(-1)?.end;
  const code = (at: typeof from) => formatTimecode(add(at, startTimecode), frameRate);
  return (
    <EditWindow
      close={close}
      choices={
        <>
          <FigureField
            width={130}
            label={`Lines a card (up to ${fits})`}
            bounds={[1, fits]}
            value={most}
            change={setMost}
          />
          <Select
            size="xs"
            w={190}
            label="Duration"
            allowDeselect={false}
            data={[
              { value: 'reading', label: 'Reading speed' },
              { value: 'shares', label: 'Equal shares of a total' },
              { value: 'beats', label: 'Until the next beat' },
              { value: 'bars', label: 'Until the next bar' },
              { value: 'marks', label: 'Until the next mark' },
            ]}
            value={by}
            onChange={(value) => value && setBy(value as By)}
          />
          {by === 'shares' && (
            <FigureField
              width={90}
              label="Total"
              suffix=" s"
              bounds={[0.2, 3600]}
              step={1}
              value={seconds}
              change={setSeconds}
            />
          )}
          <FigureField
            width={130}
            label="Fade (0: cut)"
            suffix=" frames"
            bounds={[0, 200]}
            value={fade}
            change={setFade}
          />
          <OverSelect over={over} set={setOver} />
          <Switch
            size="xs"
            label="First card larger, last card smaller"
            checked={framed}
            onChange={(event) => setFramed(event.currentTarget.checked)}
          />
        </>
      }
      more={
        <Textarea
          label="List"
          size="xs"
          rows={6}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
          data-autofocus
        />
      }
      says={
        cards.length === 0
          ? 'Paste or type the list above, an entry a line.'
          : `${plural(cards.length, 'card')} from ${code(from)} until ${code(end ?? from)}, ${toSeconds(
              subtract(end ?? from, from),
            ).toFixed(1)} s.`
      }
      edit={(now) => makeCards(now, plan, newId)}
      made={takeStrand}
      off={cards.length === 0}
      does={cards.length === 0 ? 'Make cards' : `Make ${plural(cards.length, 'card')}`}
      beside={
        end !== undefined && end > facts.length ? 'The last card ends after the programme.' : ''
      }
    >
      <ol className={classes.cards} aria-label="Cards" tabIndex={0}>
        {cards.slice(0, 60).map((card, at) => (
          <li key={`${card.start} ${at}`}>
            <span>
              {card.lines.map(({ text: line, role }, of) => (
                <span key={of}>
                  <i style={{ color: roleColour }}>{line.slice(0, role)}</i>
                  {line.slice(role)}
                </span>
              ))}
            </span>
            <small>{toSeconds(subtract(card.end, card.start)).toFixed(2)} s</small>
          </li>
        ))}
      </ol>
    </EditWindow>
  );
}

/** Takes the strand of new cards in hand, says that they are made, and offers to go on with them. */
function takeStrand({ changes }: Edit): void {
  const made = changes.flatMap(({ entity, becomes }) =>
    entity === 'cue' && becomes && 'strand' in becomes && becomes.strand ? [becomes] : [],
  );
  const strand = made[0]?.strand;
  if (strand === undefined) return;
  strands.take(strand);
  const { title } = openNow().programme.strands[strand] ?? {};
  offer(`${plural(made.length, 'card')} made on “${title ?? ''}”.`, 'Time them', () =>
    goTo('timing'),
  );
}
