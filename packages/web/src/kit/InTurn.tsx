/** Parts of a page that are put in one after the other, so that none of them holds the page up. */
import { Children, startTransition, useEffect, useState, type ReactNode } from 'react';

/** Shows its children in order, each in a task of its own. */
export function InTurn({ children }: { readonly children: ReactNode }) {
  const all = Children.toArray(children);
  const [shown, setShown] = useState(1);
  useEffect(() => {
    if (shown >= all.length) return;
    const next = setTimeout(() => startTransition(() => setShown(shown + 1)));
    return () => clearTimeout(next);
  }, [shown, all.length]);
  return all.slice(0, shown);
}
