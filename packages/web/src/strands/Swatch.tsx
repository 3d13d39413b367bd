/** A small piece of the cloth of a kind of strand. */
import { useLayoutEffect, useRef } from 'react';
import type { StrandKind } from '@cadence/core/programme/programme.ts';
import { clothOf } from '../kit/cloth.ts';
import { useDyes } from '../kit/dyes.ts';

const [WIDTH, HEIGHT] = [26, 14];

export function Swatch({ kind }: { kind: StrandKind }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const dyes = useDyes();
  const scale = window.devicePixelRatio;
  useLayoutEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    context.setTransform(scale, 0, 0, scale, 0, 0);
    context.fillStyle = clothOf(kind, context, dyes);
    context.fillRect(0, 0, WIDTH, HEIGHT);
  }, [kind, dyes, scale]);
  return (
    <canvas
      ref={canvas}
      width={WIDTH * scale}
      height={HEIGHT * scale}
      style={{ width: WIDTH, height: HEIGHT, borderRadius: 2, flex: 'none' }}
      aria-hidden
    />
  );
}
