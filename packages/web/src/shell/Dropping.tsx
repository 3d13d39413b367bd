/** Takes files that are dropped anywhere on a programme, or pasted. */
import { useCallback, useEffect, type ReactNode } from 'react';
import { useLocation } from 'react-router';
import { isPatternFile } from '@cadence/core/programme/fileFormat.ts';
import { bringIn, type TakeWords } from '../bringing/bringIn.ts';
import DropAnywhere from '../kit/DropAnywhere.tsx';

/** What takes pasted text for itself. */
const TYPED = 'input, textarea, [contenteditable="true"]';

/** In Travel a text is for the sheet. */
const forSheet: TakeWords = async (file) =>
  (await import('../travel/bringInSheet.ts')).bringInSheet(file);

export function Dropping({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  const take = useCallback(
    (files: readonly File[]) =>
      pathname.endsWith('/travel') ? bringIn(files, forSheet) : bringIn(files),
    [pathname],
  );
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length > 0) {
        event.preventDefault();
        take(files);
        return;
      }
      const text = event.clipboardData?.getData('text/plain') ?? '';
      const isTyping = event.target instanceof Element && event.target.closest(TYPED) !== null;
      if (isTyping || !isPatternFile(text)) return;
      event.preventDefault();
      void import('../bringing/patternFiles.ts').then(({ bringInPatterns }) =>
        bringInPatterns(text, 'What was pasted'),
      );
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [take]);
  return (
    <>
      {children}
      <DropAnywhere
        take={take}
        what="Sound, film, pictures, fonts, captions, patterns, lists and other text"
      />
    </>
  );
}
