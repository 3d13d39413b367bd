/** A cue's text edited where it lies on its row. */
import { useEffect, useRef, useState } from 'react';
import { setText } from '@cadence/core/programme/edits/text/reword.ts';
import type { Cue } from '@cadence/core/programme/programme.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { make } from '../../desk/desk.ts';
import { openNow } from '../../desk/store.ts';
import { pixelsOf, pointOf, type Page } from '@cadence/core/rows/page.ts';
import classes from './Rows.module.css';

interface Props {
  readonly cue: Cue;
  readonly page: Page;
  readonly close: () => void;
}

export function InPlaceText({ cue, page, close }: Props) {
  const [text, setWritten] = useState(() => plainText(cue.text));
  const area = useRef<HTMLTextAreaElement>(null);
  const latest = useRef({ text, given: false });
  latest.current.text = text;
  useEffect(() => {
    area.current?.focus();
    area.current?.select();
    // Whatever closes the text, what was typed is kept, unless Esc gave it up.
    const state = latest.current;
    return () => {
      if (!state.given && openNow().programme.cues[cue.id])
        make(setText(openNow().programme, cue.id, state.text));
    };
  }, [cue.id]);
  const { row, x } = pointOf(page, cue.start);
  const width = Math.max(240, pixelsOf(page, cue.end - cue.start));
  return (
    <textarea
      ref={area}
      className={classes.text}
      aria-label="Text of the cue"
      rows={Math.max(2, text.split('\n').length)}
      value={text}
      style={{
        left: Math.max(0, Math.min(x, page.width - width)),
        width: Math.min(width, page.width),
        top: row * page.shape.step + page.shape.inHand.top - 2,
      }}
      onChange={(event) => setWritten(event.currentTarget.value)}
      onBlur={close}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') latest.current.given = true;
        if (event.key === 'Escape' || (event.key === 'Enter' && !event.shiftKey)) {
          event.preventDefault();
          close();
          (area.current?.parentElement as HTMLElement | null)?.focus({ preventScroll: true });
        }
      }}
    />
  );
}
