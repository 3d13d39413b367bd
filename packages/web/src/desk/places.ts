/** The places of a programme. The shell, which knows their addresses, goes there. */

export const PLACES = [
  { path: 'material', name: 'Material' },
  { path: 'words', name: 'Words' },
  { path: 'timing', name: 'Timing' },
  { path: 'travel', name: 'Travel' },
  { path: 'patterns', name: 'Patterns' },
  { path: 'handover', name: 'Handover' },
] as const;

export type PlaceName = (typeof PLACES)[number]['path'];

type Go = (place: PlaceName) => void;
let go: Go = () => undefined;

/** Says who goes to places; called by the shell. */
export function goToPlacesWith(goes: Go): void {
  go = goes;
}

export const goTo: Go = (place) => go(place);

export const isIn = (place: PlaceName): boolean => window.location.pathname.endsWith(`/${place}`);
