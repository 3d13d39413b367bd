/** Finding and replacing in the text of all strands. */
import { ActionIcon, Button, Switch, TextInput, Tooltip } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { replaceText, type Replacement } from '@cadence/core/programme/edits/text/replaceText.ts';
import { cuesInOrder, strandsInOrder } from '@cadence/core/programme/order.ts';
import type { Cue, Programme } from '@cadence/core/programme/programme.ts';
import { replacementFor, type Match, type Search } from '@cadence/core/text/find.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { make } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { messageOf } from '../desk/say.ts';
import { openNow, useOpen } from '../desk/store.ts';
import { findAll } from '../proof/proofWorker.ts';
import type { Place } from './manuscript/places.ts';
import classes from './WordsPlace.module.css';

interface Found extends Match {
  readonly cue: Cue;
}

const cuesOf = (programme: Programme): Cue[] =>
  strandsInOrder(programme).flatMap(({ id }) => cuesInOrder(programme, id));

interface Props {
  readonly close: () => void;
  /** Shows a match, and marks all of them. */
  readonly show: (place: Place) => void;
  readonly mark: (places: readonly Place[]) => void;
}

export function FindBar({ close, show, mark }: Props) {
  const cues = useOpen((open) => open.programme.cues);
  const [search, setSearch] = useState<Search>({
    text: '',
    pattern: false,
    matchCase: false,
    wholeWords: false,
  });
  const [by, setBy] = useState('');
  const [found, setFound] = useState<readonly Found[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const [at, setAt] = useState(-1);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);

  useEffect(() => {
    let stale = false;
    const all = cuesOf(openNow().programme);
    const texts = all.map(({ text }) => plainText(text));
    // What was found counts until something else has been.
    findAll(texts, search).then(
      (matches) => {
        if (stale) return;
        setProblem(null);
        setFound(
          matches.flatMap((each, place) =>
            each.map((match): Found => ({ ...match, cue: all[place] as Cue })),
          ),
        );
      },
      (error: unknown) => {
        if (stale) return;
        setFound([]);
        setProblem(messageOf(error));
      },
    );
    return () => {
      stale = true;
    };
  }, [search, cues]);
  const places = useMemo(
    () => found.map(({ cue, from, to }): Place => ({ cue: cue.id, from, to })),
    [found],
  );
  useEffect(() => mark(places), [mark, places]);
  useEffect(() => () => mark([]), [mark]);

  const go = (by: 1 | -1) => {
    if (places.length === 0) return;
    const next = at < 0 && by < 0 ? places.length - 1 : (at + by + places.length) % places.length;
    setAt(next);
    const place = places[next];
    if (place) show(place);
  };
  const replacementsOf = (all: readonly Found[]): Replacement[] =>
    all.map((match) => ({
      cue: match.cue.id,
      from: match.from,
      to: match.to,
      by: replacementFor(plainText(match.cue.text), match, by, search),
    }));
  const here = found[at];
  const replaceHere = () => {
    if (!here) {
      go(1);
      return;
    }
    make(replaceText(openNow().programme, replacementsOf([here]), 'Replace text'));
    // The next one comes to stand in its place.
    setAt(at - 1);
  };
  const inCues = new Set(places.map(({ cue }) => cue)).size;
  const count =
    search.text === ''
      ? 'All strands'
      : places.length === 0
        ? 'Nothing found'
        : `${at >= 0 ? `${Math.min(at, places.length - 1) + 1} of ` : ''}${places.length} in ${plural(inCues, 'cue')}`;
  const toggle = (key: 'pattern' | 'matchCase' | 'wholeWords', label: string) => (
    <Switch
      size="xs"
      label={label}
      checked={search[key]}
      onChange={(event) => {
        const { checked } = event.currentTarget;
        setSearch((now) => ({ ...now, [key]: checked }));
        setAt(-1);
      }}
    />
  );
  return (
    <form
      className={classes.find}
      aria-label="Find and replace"
      onKeyDown={(event) => {
        if (event.key === 'Escape') {
          event.preventDefault();
          close();
        }
      }}
      onSubmit={(event) => {
        event.preventDefault();
        go(1);
      }}
    >
      <TextInput
        ref={field}
        size="xs"
        aria-label="Find"
        placeholder="Find"
        value={search.text}
        error={problem !== null}
        onChange={(event) => {
          const { value } = event.currentTarget;
          setSearch((now) => ({ ...now, text: value }));
          setAt(-1);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && event.shiftKey) {
            event.preventDefault();
            go(-1);
          }
        }}
      />
      <Button type="submit" size="xs" disabled={places.length === 0}>
        Next
      </Button>
      <Button size="xs" disabled={places.length === 0} onClick={() => go(-1)}>
        Previous
      </Button>
      <span className={`quiet ${classes.findCount}`} role="status">
        {count}
      </span>
      <Tooltip label="Close (Esc)">
        <ActionIcon aria-label="Close search" onClick={close}>
          <IconX size={16} stroke={1.7} />
        </ActionIcon>
      </Tooltip>
      <TextInput
        size="xs"
        aria-label="Replace with"
        placeholder={search.pattern ? 'Replace with; $1 is the first group' : 'Replace with'}
        value={by}
        onChange={(event) => setBy(event.currentTarget.value)}
      />
      <Button size="xs" disabled={places.length === 0} onClick={replaceHere}>
        Replace
      </Button>
      <Button
        size="xs"
        disabled={places.length === 0}
        onClick={() => make(replaceText(openNow().programme, replacementsOf(found)))}
      >
        Replace all
      </Button>
      <span className={classes.findHow}>
        {toggle('matchCase', 'Same case')}
        {toggle('wholeWords', 'Whole words')}
        {toggle('pattern', 'Pattern')}
      </span>
      {problem !== null && (
        <span className={classes.findProblem} role="alert">
          {problem}
        </span>
      )}
    </form>
  );
}
