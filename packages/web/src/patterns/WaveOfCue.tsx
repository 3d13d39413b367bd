/** What is heard while a cue lasts, over its threads. */
import { useElementSize } from '@mantine/hooks';
import { useEffect, useRef } from 'react';
import { materialTime } from '@cadence/core/programme/heard.ts';
import type { Cue } from '@cadence/core/programme/programme.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { drawWave, lifted } from '../kit/drawWave.ts';
import { useDyes } from '../kit/dyes.ts';
import { useHeard } from '../listening/heard.ts';
import { useShown } from '../desk/store.ts';
import { ACROSS, FROM, WIDE } from './draftSizes.ts';
import classes from './PatternsPlace.module.css';

const HEIGHT = 40;

export function WaveOfCue({ cue }: { cue: Cue }) {
  const sound = useShown((programme) => programme.facts.sound);
  const hash = useShown((programme) => programme.materials[sound ?? '']?.hash);
  const from = useShown((programme) => toSeconds(materialTime(programme, sound, cue.start)));
  const span = toSeconds(cue.end) - toSeconds(cue.start);
  const heard = useHeard(hash);
  const dyes = useDyes();
  const { ref, width } = useElementSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || width === 0) return;
    const scale = window.devicePixelRatio;
    context.setTransform(scale, 0, 0, scale, 0, 0);
    context.clearRect(0, 0, width, HEIGHT);
    if (!heard) return;
    context.translate((FROM / WIDE) * width, 0);
    const area = { width: (ACROSS / WIDE) * width, top: 0, height: HEIGHT, silence: true };
    drawWave(context, heard.peaks, { from, span }, area, dyes.slate, lifted);
  }, [heard, from, span, width, dyes]);
  if (hash === undefined) return null;
  return (
    <div ref={ref} className={classes.wave}>
      <canvas
        ref={canvas}
        role="img"
        aria-label="Waveform of the cue"
        width={Math.round(width * window.devicePixelRatio)}
        height={Math.round(HEIGHT * window.devicePixelRatio)}
        style={{ width, height: HEIGHT }}
      />
    </div>
  );
}
