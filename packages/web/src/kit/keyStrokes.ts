/** Key strokes by their names, and whether they are meant for something that has the focus. */

const names: Readonly<Record<string, string>> = {
  ' ': 'Space',
  ArrowLeft: 'Left',
  ArrowRight: 'Right',
  ArrowUp: 'Up',
  ArrowDown: 'Down',
  PageUp: 'Page Up',
  PageDown: 'Page Down',
  Escape: 'Esc',
  Backspace: 'Delete',
  '=': '+',
  '{': 'Shift [',
  '}': 'Shift ]',
};

/** The name of a key stroke, as in the table. */
export function nameOfStroke(
  event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>,
): string {
  const { key } = event;
  const name = names[key] ?? (key.length === 1 ? key.toUpperCase() : key);
  // Shift is part of a printed character, such as "?", but not of a letter or a named key.
  const shifted = event.shiftKey && (key.length > 1 || /[a-z]/i.test(key) || key === ' ');
  const modifiers = [
    (event.ctrlKey || event.metaKey) && 'Ctrl',
    event.altKey && 'Alt',
    shifted && 'Shift',
  ].filter((modifier) => modifier !== false);
  return [...modifiers, name].join(' ');
}

/** Whether a key stroke belongs to what has the focus: a text, a menu, a dialogue, a button. */
export function isTaken(event: KeyboardEvent): boolean {
  const target = event.target instanceof HTMLElement ? event.target : document.body;
  // Nothing is typed into a list to choose from: it wants plain keys only.
  const isList = target.matches('input[readonly]') && !target.closest('[role=dialog]');
  if (isList && (event.ctrlKey || event.metaKey)) return false;
  if (
    target.closest(
      `input:not(${SWITCHES}), textarea, select, [contenteditable], [role=dialog], [role=menu], [role=listbox]`,
    )
  )
    return true;
  // Space does nothing on a link of its own.
  if (target.closest('a')) return event.key === 'Enter';
  if (target.matches('input') && event.key.startsWith('Arrow')) return true;
  const onControl = target.closest(`button, input, [tabindex]:not([data-keys])`) !== null;
  return onControl && ['Enter', ' '].includes(event.key);
}

/** Inputs that nothing is typed into. */
const SWITCHES = '[type=radio], [type=checkbox]';

/** Whether a key stroke is in a window over a place. */
export const isInWindow = ({ target }: KeyboardEvent): boolean =>
  target instanceof HTMLElement && target.closest('[role=dialog]') !== null;
