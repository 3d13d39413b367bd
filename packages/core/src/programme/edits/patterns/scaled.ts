/** A pattern for a frame of another height, or another frame rate. */
import type {
  Caret,
  ComesIn,
  Duration,
  Goes,
  Move,
  Movement,
  Stay,
} from '../../../movement/movement.ts';
import type { Pattern } from '../../programme.ts';

/** A pattern on a frame so many times as high: every length in pixels goes with it. */
export function scaledPattern({ look, movement }: Pattern, scale: number): Partial<Pattern> {
  const moved = <P extends { readonly moves: readonly Move[] }>(phase: P | null): P | null =>
    phase && {
      ...phase,
      moves: phase.moves.map((move) =>
        move.from !== undefined && (move.what === 'blur' || move.in === 'px')
          ? { ...move, from: move.from * scale }
          : move,
      ),
    };
  const scaled = (values: readonly number[]) => values.map((value) => value * scale);
  const { size, margin, outlineWidth, shadow } = look;
  return {
    look: {
      ...look,
      ...(size !== undefined && { size: Math.round(size * scale) }),
      ...(margin !== undefined && { margin: Math.round(margin * scale) }),
      ...(outlineWidth !== undefined && { outlineWidth: outlineWidth * scale }),
      ...(shadow && {
        shadow: {
          ...shadow,
          ...{ across: shadow.across * scale, down: shadow.down * scale },
          blur: shadow.blur * scale,
        },
      }),
    },
    movement: {
      comesIn: moved(movement.comesIn),
      stays: movement.stays.map((stay) =>
        stay.moves === 'blur' && stay.at
          ? { ...stay, at: stay.at.map((each) => ({ ...each, values: scaled(each.values) })) }
          : stay,
      ),
      goes: moved(movement.goes),
    },
  };
}

/** A movement at so many times as many frames a second: what is counted in frames takes as long as before. */
export function pacedMovement({ comesIn, stays, goes }: Movement, ratio: number): Movement {
  const count = (frames: number): number => {
    const paced = Math.round(frames * ratio);
    return frames > 0 ? Math.max(1, paced) : paced;
  };
  const length = <D extends Duration | null | undefined>(duration: D): D =>
    duration?.in === 'frames' ? { ...duration, count: count(duration.count) } : duration;
  const caret = ({ on, off, stays: after, ...rest }: Caret): Caret => ({
    ...rest,
    ...{ on: count(on), off: count(off) },
    ...(after !== undefined && { stays: after === null ? null : count(after) }),
  });
  return {
    comesIn:
      comesIn &&
      ({
        ...comesIn,
        takes: length(comesIn.takes),
        over: length(comesIn.over),
        early: count(comesIn.early),
        after: count(comesIn.after),
        ...(comesIn.caret && { caret: caret(comesIn.caret) }),
      } satisfies ComesIn),
    stays: stays.map((stay): Stay =>
      stay.period ? { ...stay, period: length(stay.period) } : stay,
    ),
    goes: goes && ({ ...goes, takes: length(goes.takes) } satisfies Goes),
  };
}
