/** Goes on with what is being written, in whatever place; the window's title shows how far it is. */
import { useEffect } from 'react';
import { useJobs, useServerJobs } from '../writing/useJobs.ts';

export default function WritingShare() {
  const { going } = useJobs();
  const there = useServerJobs().find(({ state }) => state === 'writing')?.progress;
  const progress = going ?? there;
  const share = progress ? `${Math.floor(100 * progress.share)} %` : null;
  useEffect(() => {
    if (share === null) return undefined;
    const title = document.title;
    document.title = `${share} · ${title}`;
    return () => {
      document.title = title;
    };
  }, [share]);
  return null;
}
