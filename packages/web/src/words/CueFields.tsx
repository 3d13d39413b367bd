/** Who speaks in the cue that is worked on, and what the editor noted on it. */
import { Autocomplete, TextInput } from '@mantine/core';
import { useEffect, useState, type Ref } from 'react';
import {
  setComment,
  setSpeaker,
  speakersIn,
} from '@cadence/core/programme/edits/text/emphasise.ts';
import type { Cue } from '@cadence/core/programme/programme.ts';
import { make } from '../desk/desk.ts';
import { currentCues, openNow, selectionNow } from '../desk/store.ts';
import classes from './WordsPlace.module.css';

interface Props {
  readonly cue: Cue;
  readonly commentField: Ref<HTMLInputElement>;
}

export function CueFields({ cue, commentField }: Props) {
  const [known, setKnown] = useState<string[]>([]);
  const speaker = speakersIn([cue])[0] ?? '';
  const [name, setName] = useState(speaker);
  const [comment, setWritten] = useState(cue.comment ?? '');
  useEffect(() => setName(speaker), [speaker]);
  useEffect(() => setWritten(cue.comment ?? ''), [cue.comment]);
  const keepName = (value: string) => {
    if (value.trim() === speaker) return;
    const chosen = selectionNow().map(({ id }) => id);
    make(setSpeaker(openNow().programme, chosen.includes(cue.id) ? chosen : [cue.id], value));
  };
  const keepComment = () => {
    if (comment.trim() !== (cue.comment ?? '') && openNow().programme.cues[cue.id])
      make(setComment(openNow().programme, cue.id, comment));
  };
  return (
    <div className={classes.cueFields}>
      <Autocomplete
        size="xs"
        aria-label="Speaker"
        placeholder="Speaker"
        data={known}
        value={name}
        onFocus={() => setKnown(speakersIn(currentCues(openNow().programme)))}
        onChange={setName}
        onOptionSubmit={keepName}
        onBlur={() => keepName(name)}
        onKeyDown={(event) => event.key === 'Enter' && keepName(name)}
      />
      <TextInput
        ref={commentField}
        size="xs"
        aria-label="Comment"
        placeholder="Comment"
        value={comment}
        onChange={(event) => setWritten(event.currentTarget.value)}
        onBlur={keepComment}
        onKeyDown={(event) => event.key === 'Enter' && keepComment()}
      />
    </div>
  );
}
