/** The body of a window: the first field has the focus, and Enter in a field does what the window is for. */
import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';

/** What can have the focus first, in the order in which it is looked for. */
const FIRST = [
  '[data-autofocus]',
  // Enter opens the list of a combobox, and what is folded away takes no focus.
  'input[type=radio]:checked, input:not([type=radio], [type=file], [type=hidden], [role=combobox], :disabled, details:not([open]) *), textarea',
  'button[data-takes]:not(:disabled)',
  'button:not(:disabled)',
];

const takes = (body: HTMLElement | null): HTMLButtonElement | null =>
  body?.querySelector('button[data-takes]:not(:disabled)') ?? null;

/** Whether Enter in what has the focus is free: in a field of a line, with no list open, outside of a form. */
function isFree({ target, defaultPrevented, nativeEvent }: KeyboardEvent): boolean {
  return (
    !defaultPrevented &&
    !nativeEvent.isComposing &&
    target instanceof HTMLInputElement &&
    target.getAttribute('aria-expanded') !== 'true' &&
    !target.closest('form')
  );
}

interface WindowBodyProps {
  readonly className?: string | undefined;
  readonly children: ReactNode;
}

export function WindowBody({ className, children }: WindowBodyProps) {
  const body = useRef<HTMLDivElement>(null);
  useEffect(() => {
    for (const wanted of FIRST) {
      const first = body.current?.querySelector<HTMLElement>(wanted);
      if (!first) continue;
      first.focus();
      return;
    }
  }, []);
  const key = (event: KeyboardEvent): void => {
    if (event.key !== 'Enter' || !isFree(event) || !takes(body.current)) return;
    event.preventDefault();
    // A field that is left by Enter has given its value by then.
    setTimeout(() => takes(body.current)?.click());
  };
  return (
    <div ref={body} className={className} role="presentation" onKeyDown={key}>
      {children}
    </div>
  );
}
