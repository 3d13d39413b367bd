/** A whole sound's outline in a small picture, with its pieces tinted. */
import { useElementSize } from '@mantine/hooks';
import { useEffect, useRef, type MouseEvent } from 'react';
import type { Peaks } from '@cadence/core/listen/signal/peaks.ts';
import { drawWave, even } from '../kit/drawWave.ts';
import type { Piece } from '@cadence/core/programme/programme.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { useDyes } from '../kit/dyes.ts';

interface Props {
  readonly peaks: Peaks | undefined;
  /** In seconds. */
  readonly duration: number;
  readonly height: number;
  readonly pieces?: readonly Piece[];
  readonly label: string;
  onPick?(seconds: number): void;
  /** The pointer is dragged over an instant, or lifted. */
  onHear?(seconds: number | null): void;
}

export function Waveform({ peaks, duration, height, pieces = [], label, onPick, onHear }: Props) {
  const { ref, width } = useElementSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  const dragged = useRef(false);
  const dyes = useDyes();
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || width === 0) return;
    const draw = () => {
      const scale = window.devicePixelRatio;
      context.setTransform(scale, 0, 0, scale, 0, 0);
      context.clearRect(0, 0, width, height);
      context.fillStyle = dyes.piece;
      for (const piece of pieces) {
        const [from, to] = [toSeconds(piece.start), toSeconds(piece.end)];
        context.fillRect((from / duration) * width, 0, ((to - from) / duration) * width, height);
      }
      if (!peaks) return;
      const stretch = { from: 0, span: duration };
      const area = { width, top: 0, height, silence: true };
      drawWave(context, peaks, stretch, area, dyes.slate, even);
    };
    // In a task of its own: what changes with it takes its time too.
    const next = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(next);
  }, [peaks, duration, width, height, pieces, dyes]);
  const at = (event: MouseEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return ((event.clientX - box.left) / box.width) * duration;
  };
  return (
    <div ref={ref} style={{ height, minWidth: 0 }}>
      <canvas
        ref={canvas}
        role="img"
        aria-label={label}
        width={Math.round(width * window.devicePixelRatio)}
        height={Math.round(height * window.devicePixelRatio)}
        style={{ width, height, display: 'block' }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          dragged.current = false;
        }}
        onPointerMove={(event) => {
          if (event.buttons !== 1) return;
          dragged.current = true;
          onHear?.(at(event));
        }}
        onPointerUp={() => onHear?.(null)}
        onClick={(event) => !dragged.current && onPick?.(at(event))}
      />
    </div>
  );
}
