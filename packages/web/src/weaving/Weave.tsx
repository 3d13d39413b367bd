/** Weaves the words of cues: what is to be woven, how far it has come, and what was found before it is taken. */
import { Button, NumberInput, Select, Switch } from '@mantine/core';
import { useMemo, useState } from 'react';
import { apply } from '@cadence/core/programme/apply.ts';
import { toWeave, weaveCues, type Weaving } from '@cadence/core/programme/edits/weaveCues.ts';
import { soundsHeard } from '@cadence/core/programme/heard.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { reportedWords, shifted } from '@cadence/core/programme/wovenReport.ts';
import { add, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { SURE } from '@cadence/core/weave/confidence.ts';
import type { Woven } from '@cadence/core/weave/weaver.ts';
import { make } from '../app/edit.ts';
import { plural } from '../app/format.ts';
import { say } from '../app/say.ts';
import { currentStrand, openNow } from '../app/store.ts';
import classes from '../app/windows.module.css';
import { useChosen } from '../words/useChosen.tsx';
import { useRun } from './useRun.tsx';
import { languageFor, weave } from './weaving.ts';

const LANGUAGES = [
  { value: 'en', label: 'English' },
  { value: 'es', label: 'Spanish' },
  { value: 'fr', label: 'French' },
  { value: 'de', label: 'German' },
  { value: 'it', label: 'Italian' },
  { value: 'und', label: 'Another' },
];

export default function Weave({ close }: { close: () => void }) {
  const { programme, ids, choice } = useChosen();
  const strand = currentStrand(programme);
  const weaving = useMemo(() => toWeave(programme, strand, ids), [programme, strand, ids]);
  const sounds = soundsHeard(programme);
  const [material, setMaterial] = useState(sounds[0]?.material ?? '');
  const [language, setLanguage] = useState(languageFor(programme));
  const [follows, setFollows] = useState(true);
  const [lead, setLead] = useState(0);
  const [tail, setTail] = useState(3);
  const run = useRun<readonly Woven[]>();
  const begin = () => run.begin((told) => weave(programme, strand, ids, material, language, told));
  const count = weaving.words.length;
  const woven = run.found?.length === count ? run.found : undefined;
  const take = () => {
    const now = openNow().programme;
    const same = toWeave(now, strand, ids).words.join(' ') === weaving.words.join(' ');
    if (!woven || !same) say.note('The words have changed meanwhile. Weave them again.');
    else make(weaveCues(now, weaving, woven, follows ? { lead, tail } : undefined));
    close();
  };
  if (sounds.length === 0 || count === 0)
    return (
      <div className={classes.form}>
        <p role="status">
          {count === 0
            ? 'There are no words yet. Bring a script in, or type one in Words.'
            : 'There is no sound yet. Bring one in, in Material.'}
        </p>
        <div className={classes.foot}>
          <span className="spring" />
          <Button onClick={close}>Close</Button>
        </div>
      </div>
    );
  return (
    <div className={classes.form}>
      <div className={classes.choices}>
        {sounds.length > 1 && (
          <Select
            size="xs"
            label="On the sound"
            data={sounds.map((sound) => ({
              value: sound.material,
              label: programme.materials[sound.material]?.name ?? sound.material,
            }))}
            value={material}
            allowDeselect={false}
            disabled={run.running}
            onChange={(value) => {
              setMaterial(value ?? material);
              run.again();
            }}
          />
        )}
        <Select
          size="xs"
          w={130}
          label="Language"
          data={LANGUAGES}
          value={language}
          allowDeselect={false}
          disabled={run.running}
          onChange={(value) => {
            setLanguage(value ?? language);
            run.again();
          }}
        />
        <FrameCount label="Before its first word" count={lead} set={setLead} off={!follows} />
        <FrameCount label="After its last word" count={tail} set={setTail} off={!follows} />
      </div>
      <Switch
        size="xs"
        label="Cues begin and end with their words"
        checked={follows}
        onChange={(event) => setFollows(event.currentTarget.checked)}
      />
      {choice}
      {run.state ||
        (woven ? (
          <>
            <Found woven={woven} words={weaving.words} />
            <Moved programme={programme} weaving={weaving} woven={woven} />
          </>
        ) : (
          <p className="quiet" role="status">
            {plural(count, 'word')} in {plural(weaving.cues.length, 'cue')} will be heard for.{' '}
            {weaving.pins.length > 0 && `${plural(weaving.pins.length, 'pin')} will not move.`}
          </p>
        ))}
      {run.foot({
        close,
        take: () => (woven ? take() : void begin()),
        children: woven ? 'Take the times' : `Weave ${plural(count, 'word')}`,
      })}
    </div>
  );
}

interface FrameCountProps {
  readonly label: string;
  readonly count: number;
  readonly set: (count: number) => void;
  readonly off: boolean;
}

const FrameCount = ({ label, count, set, off }: FrameCountProps) => (
  <NumberInput
    size="xs"
    w={150}
    label={label}
    suffix={count === 1 ? ' frame' : ' frames'}
    min={0}
    max={50}
    value={count}
    disabled={off}
    onChange={(value) => typeof value === 'number' && set(value)}
  />
);

/** What was found: how much of it is sure, and what is not. */
function Found({ woven, words }: { woven: readonly Woven[]; words: readonly string[] }) {
  const { frameRate, startTimecode } = openNow().programme.facts;
  const said = woven.filter(({ start }) => start !== null);
  const pinned = said.filter(({ source }) => source === 'pinned').length;
  const doubtful = woven.flatMap(({ start, confidence }, at) =>
    start !== null && confidence < SURE ? [{ word: words[at] ?? '', start, confidence }] : [],
  );
  const sure = said.length - doubtful.length - pinned;
  return (
    <>
      <p role="status">
        <b>{plural(sure, 'word')} sure</b>, {doubtful.length} doubtful
        {pinned > 0 && `, ${String(pinned)} pinned`}
        {said.length < woven.length && `, ${String(woven.length - said.length)} not heard`}.
      </p>
      {doubtful.length > 0 && (
        <div className={classes.preview}>
          <table aria-label="Doubtful words">
            <thead>
              <tr>
                <th>Doubtful</th>
                <th>At</th>
                <th>Sure by</th>
              </tr>
            </thead>
            <tbody>
              {doubtful.slice(0, 100).map(({ word, start, confidence }, at) => (
                <tr key={at}>
                  <td>{word}</td>
                  <td>{formatTimecode(add(start, startTimecode), frameRate)}</td>
                  <td>{Math.round(100 * confidence)} %</td>
                </tr>
              ))}
            </tbody>
          </table>
          {doubtful.length > 100 && (
            <p className={classes.more}>And {plural(doubtful.length - 100, 'word')} more.</p>
          )}
        </div>
      )}
    </>
  );
}

interface MovedProps {
  readonly programme: Programme;
  readonly weaving: Weaving;
  readonly woven: readonly Woven[];
}

/** How far the words move from where they were woven before. */
function Moved({ programme, weaving, woven }: MovedProps) {
  const told = useMemo(() => {
    const after = apply(programme, weaveCues(programme, weaving, woven).changes);
    const strand = currentStrand(programme);
    return shifted(reportedWords(programme, strand), reportedWords(after, strand));
  }, [programme, weaving, woven]);
  if (!told || told.worst === 0) return null;
  const seconds = (time: Ticks) => `${toSeconds(time).toFixed(2)} s`;
  return (
    <p className="quiet">
      Since they were woven last, half of the words move by less than {seconds(told.median)};
      furthest goes “{told.word.text}”, by {seconds(told.worst)}.
    </p>
  );
}
