/** Goes on with what is being written, in whatever place; the window's title shows how far it is. */
import { useEffect } from 'react';
import { useJobs } from '../writing/useJobs.ts';

export default function WritingShare() {
  const { going } = useJobs();
  const share = going && `${Math.floor(100 * going.share)} %`;
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
