/** The parts of a place, for going from one to the next by keyboard. */

const CAN_HAVE_FOCUS =
  ':is(button, input, textarea, select, a[href], [tabindex="0"]):not(:disabled, [tabindex="-1"])';

/** The first thing in a part that can have the focus, and is in none of the parts within it. */
function firstIn(
  part: HTMLElement,
  parts: readonly HTMLElement[],
): HTMLElement | SVGElement | undefined {
  const inner = parts.filter((other) => other !== part && part.contains(other));
  return [...part.querySelectorAll<HTMLElement | SVGElement>(CAN_HAVE_FOCUS)].find(
    (each) => each.getClientRects().length > 0 && !inner.some((other) => other.contains(each)),
  );
}

/** Goes so many parts of the place on, or back, from the one that has the focus. */
export function goToPart(by: 1 | -1): void {
  const all = [...document.querySelectorAll<HTMLElement>('main :is(section, aside)[aria-label]')];
  const parts = all.filter((part) => firstIn(part, all));
  const here = parts.findLastIndex((part) => part.contains(document.activeElement));
  const next =
    here < 0 ? (by > 0 ? 0 : parts.length - 1) : (here + by + parts.length) % parts.length;
  const part = parts[next];
  const first = part && firstIn(part, all);
  first?.focus();
  first?.scrollIntoView({ block: 'nearest' });
}
