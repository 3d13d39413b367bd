/** The waveform of the line that is typed on, with the playhead in it and edges that can be dragged. */
import { useElementSize } from '@mantine/hooks';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import { drawWave, lifted } from '../kit/drawWave.ts';
import { trimCue, type Edge } from '@cadence/core/programme/edits/cues/trimCue.ts';
import { materialTime } from '@cadence/core/programme/heard.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { nearestFrame } from '@cadence/core/time/frameRate.ts';
import { add, fromSeconds, toSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { useDyes } from '../kit/dyes.ts';
import { draft, keepDraft } from '../desk/desk.ts';
import { openNow, useShown } from '../desk/store.ts';
import { useHeard } from '../listening/heard.ts';
import { player } from '../playback/player.ts';
import { useTimeFollower } from '../playback/usePlayer.ts';
import type { WordsLine } from './lines.ts';
import { KeyHints } from './KeyHints.tsx';
import classes from './WordsPlace.module.css';

const HEIGHT = 62;
/** Sound shown on either side of the line, as a share of its length, and the least in seconds. */
const BESIDE = 0.2;
const BESIDE_AT_LEAST = 0.4;
const REACH = 8;

export function PieceStrip({ line }: { line: WordsLine | null }) {
  const facts = useShown((programme) => programme.facts);
  const hash = useShown((programme) => programme.materials[facts.sound ?? '']?.hash);
  const heard = useHeard(hash);
  // Where the main sound lies against the programme, in seconds.
  const shift = useShown((programme) =>
    toSeconds(materialTime(programme, programme.facts.sound, ZERO)),
  );
  const dyes = useDyes();
  const { ref, width } = useElementSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  const thread = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<{ edge: Edge; from: number; span: number } | null>(null);

  const [start, end] = line ? [toSeconds(line.start), toSeconds(line.end)] : [0, 1];
  const beside = Math.max(BESIDE_AT_LEAST, (end - start) * BESIDE);
  // While an edge is in the hand the view stands still under it.
  const from = drag?.from ?? Math.max(0, start - beside);
  const span = drag?.span ?? end + beside - from;
  const x = (seconds: number) => ((seconds - from) / span) * width;

  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || width === 0) return;
    const scale = window.devicePixelRatio;
    context.setTransform(scale, 0, 0, scale, 0, 0);
    context.clearRect(0, 0, width, HEIGHT);
    const across = (seconds: number) => ((seconds - from) / span) * width;
    const [left, right] = [across(start), across(end)];
    if (line) {
      context.fillStyle = dyes.piece;
      context.fillRect(left, 0, right - left, HEIGHT);
    }
    if (heard)
      drawWave(
        context,
        heard.peaks,
        { from: from + shift, span },
        { width, top: 0, height: HEIGHT, silence: true },
        dyes.slate,
        lifted,
      );
    if (line) {
      context.fillStyle = dyes.woad;
      context.fillRect(left - 1, 0, 2, HEIGHT);
      context.fillRect(right - 1, 0, 2, HEIGHT);
    }
  }, [heard, shift, width, from, span, start, end, line, dyes]);

  const place = (time: Ticks) => {
    if (!thread.current) return;
    const at = x(toSeconds(time));
    thread.current.style.transform = `translateX(${at}px)`;
    thread.current.style.visibility = at >= -1 && at <= width + 1 ? 'visible' : 'hidden';
  };
  useTimeFollower(place);
  useEffect(() => place(player.time));

  const at = (event: PointerEvent): number => {
    const box = canvas.current?.getBoundingClientRect();
    return box ? from + ((event.clientX - box.left) / box.width) * span : from;
  };
  const edgeNear = (event: PointerEvent): Edge | null => {
    const seconds = at(event);
    const reach = (REACH / Math.max(1, width)) * span;
    if (!line?.cue) return null;
    if (Math.abs(seconds - start) < reach) return 'start';
    return Math.abs(seconds - end) < reach ? 'end' : null;
  };
  const code = (time: Ticks) =>
    formatTimecode(add(nearestFrame(time, facts.frameRate), facts.startTimecode), facts.frameRate);

  return (
    <div className={classes.strip}>
      <div ref={ref} style={{ height: HEIGHT, position: 'relative' }}>
        <canvas
          ref={canvas}
          role="img"
          aria-label={
            line ? `Waveform of the line, ${code(line.start)} to ${code(line.end)}` : 'Waveform'
          }
          width={Math.round(width * window.devicePixelRatio)}
          height={Math.round(HEIGHT * window.devicePixelRatio)}
          style={{ width, height: HEIGHT }}
          onPointerDown={(event) => {
            event.preventDefault();
            const edge = edgeNear(event);
            event.currentTarget.setPointerCapture(event.pointerId);
            if (edge) setDrag({ edge, from, span });
            else player.seek(fromSeconds(at(event)));
          }}
          onPointerMove={(event) => {
            if (drag && line?.cue)
              draft(trimCue(openNow().programme, line.cue.id, drag.edge, fromSeconds(at(event))));
            else event.currentTarget.style.cursor = edgeNear(event) ? 'ew-resize' : 'text';
          }}
          onPointerUp={() => {
            if (drag) keepDraft();
            setDrag(null);
          }}
          onPointerCancel={() => {
            draft(null);
            setDrag(null);
          }}
        />
        <div
          ref={thread}
          aria-hidden
          style={{
            position: 'absolute',
            left: -13,
            top: -4,
            pointerEvents: 'none',
            visibility: 'hidden',
          }}
        >
          <svg
            width={26}
            height={HEIGHT + 6}
            viewBox={`-13 0 26 ${HEIGHT + 6}`}
            style={{ display: 'block' }}
          >
            <path d={`M0 4V${HEIGHT + 6}`} stroke="var(--madder)" strokeWidth={1.8} />
            <path d="M-13 4Q0 -5 13 4Q0 10 -13 4Z" fill="var(--madder)" />
          </svg>
        </div>
      </div>
      <KeyHints
        keys={[
          ['Enter', 'keep, play next'],
          ['Shift Enter', 'new line'],
          ['Tab', 'play again'],
          ['\\', 'split at the playhead'],
          ['Esc then ?', 'all keys'],
        ]}
      />
    </div>
  );
}
