/** The page is left, for another place in its history or for good: what is being typed is kept before that. */

/** Calls `keep` whenever the page is left. Returns a function that ends this. */
export function beforeLeaving(keep: () => void): () => void {
  window.addEventListener('pagehide', keep);
  window.addEventListener('popstate', keep);
  return () => {
    window.removeEventListener('pagehide', keep);
    window.removeEventListener('popstate', keep);
  };
}
