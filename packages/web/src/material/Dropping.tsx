/** Takes files that are dropped anywhere on a programme, or pasted. */
import { Dropzone } from '@mantine/dropzone';
import { useEffect, type ReactNode } from 'react';
import { bringIn } from './bringIn.ts';

export function Dropping({ children }: { children: ReactNode }) {
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      bringIn(files);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, []);
  return (
    <>
      {children}
      <Dropzone.FullScreen onDrop={bringIn} styles={{ inner: { pointerEvents: 'none' } }}>
        <div className="empty" style={{ height: '80vh', justifyContent: 'center' }}>
          <h2>Drop it here</h2>
          <p>Sound, film, pictures, fonts, SRT, WebVTT, LRC or CSV</p>
        </div>
      </Dropzone.FullScreen>
    </>
  );
}
