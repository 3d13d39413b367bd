/** The picture: the film's frame or the backdrop, with the text drawn over it by the painter. */
import { Suspense } from 'react';
import { lazyPart } from '../kit/loadWithRetry.ts';
import { useShown } from '../desk/store.ts';
import type { HandsProps } from './Hands.tsx';
import classes from './PictureView.module.css';

const Picture = lazyPart(() => import('./Picture.tsx'));
const Hands = lazyPart(() => import('./Hands.tsx'));

/** @param hands  what takes text in hand on it; it is only looked at where nothing is said */
export function PictureView({ hands }: { readonly hands?: HandsProps }) {
  const { width, height } = useShown((programme) => programme.facts.frame);
  const { colour } = useShown((programme) => programme.facts.backdrop);
  return (
    <div
      className={classes.frame}
      style={{
        ...{ '--shape': width / height },
        aspectRatio: `${width} / ${height}`,
        background: colour,
      }}
    >
      <Suspense fallback={null}>
        <Picture />
        {hands && <Hands {...hands} />}
      </Suspense>
    </div>
  );
}
