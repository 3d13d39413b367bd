import { useElementSize } from '@mantine/hooks';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { frameAt } from '@cadence/core/time/frameRate.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import type { DrawingList } from '@cadence/core/scene/drawing.ts';
import { safeAreaOf } from '@cadence/core/scene/safeArea.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { NO_PICTURES, type Pictures } from '@cadence/paint/stage.ts';
import { openNow, useApp, useShown } from '../desk/store.ts';
import { player } from '../playback/player.ts';
import { useTimeFollower } from '../playback/usePlayer.ts';
import { say, messageOf } from '../desk/say.ts';
import { drawWithBeside } from './beside.ts';
import { shownOnly } from './shownOnly.ts';
import { shelf, stage } from './studio.ts';
import classes from './PictureView.module.css';

/** Texts whose characters are known to be covered, and in which family. */
const prepared = new WeakMap<object, string>();

/** What the player shows of a film, if anything. */
const played = (): HTMLVideoElement | undefined =>
  (player.video?.readyState ?? 0) >= 2 ? (player.video ?? undefined) : undefined;

/** Draws the scene at the player's time, once for each frame of the programme. */
export default function Picture() {
  const whole = useShown((shown) => shown);
  const strand = useApp((state) => state.view.strand);
  const only = useApp((state) => state.view.only);
  const programme = useMemo(() => shownOnly(whole, only, strand), [whole, only, strand]);
  const safeArea = useApp((state) => state.view.safeArea);
  const safeBy = useApp((state) => state.view.safeBy);
  const beside = useApp((state) => state.view.beside);
  const { ref, width } = useElementSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [fonts, setFonts] = useState(0);
  const [trouble, setTrouble] = useState('');
  // A crawl has no width, and so nothing to be drawn, until its letters are there.
  const { passages } = programme;
  useEffect(() => {
    let stale = false;
    for (const passage of Object.values(passages))
      stage.passage(openNow().programme, passage).then(
        (fresh) => fresh && !stale && setFonts((count) => count + 1),
        (error: unknown) => say.problem(`A font was not loaded: ${messageOf(error)}`),
      );
    return () => {
      stale = true;
    };
  }, [passages]);
  const last = useRef(-1);
  const pictures = useRef<Pictures>(NO_PICTURES);
  const fetching = useRef<{ again: (() => void) | undefined } | null>(null);

  const draw = useCallback(
    function draw(time: Ticks) {
      const element = canvas.current;
      const context = element?.getContext('2d');
      if (!context || !element?.width) return;
      const list = sceneAt(programme, time, shelf);
      prepareFor(programme, list, () => setFonts((count) => count + 1));
      setTrouble(troubleIn(list));
      const scale = element.width / list.width;
      // While it plays, the player's picture is drawn; else the exact frame, and until it is decoded the one before.
      const { playing } = player.state();
      const film = list.items.find(({ kind }) => kind === 'picture');
      const isHeld = film?.kind === 'picture' && pictures.current.of.has(film.material);
      const standIn = playing || !isHeld ? played() : undefined;
      const show = (found: Pictures, instead: HTMLVideoElement | undefined) => {
        const on = (to: CanvasRenderingContext2D, items: DrawingList) =>
          stage.draw(to, items, found, scale, instead);
        if (beside && !playing) drawWithBeside(context, list, programme, time, on);
        else on(context, list);
      };
      show(pictures.current, standIn);
      if (fetching.current) {
        fetching.current.again = () => draw(player.time);
        return;
      }
      const mine: { again: (() => void) | undefined } = { again: undefined };
      fetching.current = mine;
      if (!playing) element.ariaBusy = 'true';
      const isPlayed = playing && standIn !== undefined;
      void stage.pictures(list, programme, !isPlayed).then((found) => {
        fetching.current = null;
        const isLost = found.without.some(({ kind }) => kind === 'film');
        const same = samePictures(found, pictures.current);
        pictures.current = found;
        if (mine.again) {
          mine.again();
          return;
        }
        if (!isPlayed) element.ariaBusy = 'false';
        if (!same || isLost) show(found, isPlayed || isLost ? played() : undefined);
      });
    },
    [programme, beside],
  );

  const { frameRate } = programme.facts;
  const playing = useRef(false);
  useTimeFollower((time) => {
    const frame = frameAt(time, frameRate);
    playing.current = player.state().playing;
    // While it plays, one drawing a frame; otherwise a jump may have brought the same frame anew.
    if (frame === last.current && playing.current) return;
    last.current = frame;
    draw(time);
  });
  useEffect(() => draw(player.time), [draw, width, fonts]);

  const { frame } = programme.facts;
  const scale = Math.min(2, window.devicePixelRatio);
  const pixels = Math.round(width * scale);
  const scaled = width / frame.width;
  return (
    <div ref={ref}>
      <canvas
        ref={canvas}
        role="img"
        aria-label="Picture with text"
        width={pixels}
        height={Math.round((pixels * frame.height) / frame.width)}
      />
      {trouble && (
        <p className={classes.trouble} role="alert">
          {trouble}
        </p>
      )}
      {safeArea &&
        safeAreaOf(safeBy).insets.map(({ name, inset }) => (
          <div
            key={name}
            className={classes.safe}
            style={{ inset: `${inset * frame.height * scaled}px ${inset * width}px` }}
            aria-hidden
          >
            <span>{name}</span>
          </div>
        ))}
    </div>
  );
}

/** Whether nothing of a picture has changed since. */
function samePictures({ of }: Pictures, before: Pictures): boolean {
  return of.size === before.of.size && [...of].every(([id, each]) => before.of.get(id) === each);
}

/** What the editor should know of the text that is seen; empty if all is well. */
function troubleIn(list: DrawingList): string {
  for (const item of list.items) {
    if (item.kind !== 'text') continue;
    if (item.layout.outOfFrame > 0)
      return `The text runs ${item.layout.outOfFrame} px out of the frame.`;
    if (item.layout.missing.length > 0) return `No font has ${item.layout.missing.join(' ')}.`;
  }
  return '';
}

/** Loads what the texts of a scene lack, once for each text; then has it drawn again. */
function prepareFor(programme: Programme, list: DrawingList, redraw: () => void): void {
  for (const item of list.items) {
    if (item.kind !== 'text') continue;
    const text = programme.cues[item.cue]?.text;
    const { family } = item.layout.style;
    if (!text || prepared.get(text) === family) continue;
    prepared.set(text, family);
    void stage
      .ownFonts(programme)
      .then(() => shelf.prepare(family, text))
      .then(redraw)
      .catch(() => prepared.delete(text));
  }
}
