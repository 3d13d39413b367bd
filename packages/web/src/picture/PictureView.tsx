/** The picture: the film's frame or the backdrop, with the text drawn over it by the painter. */
import { Suspense } from 'react';
import { lazyPart } from '../kit/loadWithRetry.ts';
import { useShown } from '../desk/store.ts';
import classes from './PictureView.module.css';

const Picture = lazyPart(() => import('./Picture.tsx'));

export function PictureView() {
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
      </Suspense>
    </div>
  );
}
