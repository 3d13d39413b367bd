/** A mixdown at a loudness: measured first, then made again with the gain that brings it there. */
import { LoudnessMeter, type Level } from '../listen/signal/loudness.ts';
import type { Programme } from '../programme/programme.ts';
import type { Range } from '../time/range.ts';
import { loudnessGain, type LoudnessGain } from './loudnessGain.ts';
import { mixdown, type OpenSource } from './mixdown.ts';
import type { StereoChunk } from './stereo.ts';

export interface Levelled extends LoudnessGain {
  /** Of what {@link pieces} gives. */
  readonly level: Pick<Level, 'integratedLufs' | 'truePeakDb'>;
  pieces(): AsyncGenerator<StereoChunk>;
}

/** Watches pieces as they come, for what tells how far it is. */
export type Watch = (
  pieces: AsyncIterable<StereoChunk>,
  pass: 'measuring' | 'writing',
) => AsyncIterable<StereoChunk>;

/** A mixdown as it is, measured as it comes: its level is known at its end. */
export function measured(
  pieces: AsyncIterable<StereoChunk>,
  rate: number,
): { pieces(): AsyncGenerator<StereoChunk>; level(): Level } {
  const meter = new LoudnessMeter(rate);
  return {
    async *pieces() {
      for await (const piece of pieces) {
        meter.push(piece);
        yield piece;
      }
    },
    level: () => meter.level(),
  };
}

/**
 * @param rate    in samples a second
 * @param target  integrated loudness in LUFS; undefined leaves it as it is
 */
export async function levelled(
  programme: Programme,
  range: Range,
  rate: number,
  open: OpenSource,
  target?: number,
  watch: Watch = (pieces) => pieces,
): Promise<Levelled> {
  const pass = (doing: 'measuring' | 'writing') =>
    watch(mixdown(programme, range, rate, open), doing);
  const first = measured(pass('measuring'), rate);
  for await (const _piece of first.pieces());
  const level = first.level();
  const found = loudnessGain(level, target);
  const factor = 10 ** (found.gain / 20);
  const raised = (value: number | null) => (value === null ? null : value + found.gain);
  return {
    ...found,
    level: {
      integratedLufs: raised(level.integratedLufs),
      truePeakDb: raised(level.truePeakDb),
    },
    async *pieces() {
      for await (const [left, right] of pass('writing')) {
        if (found.gain === 0) yield [left, right];
        else yield [left.map((sample) => sample * factor), right.map((sample) => sample * factor)];
      }
    },
  };
}
