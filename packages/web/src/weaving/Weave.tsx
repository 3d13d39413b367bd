/** Weaves the words of cues: what is to be woven, how far it has come, and what was found before it is taken. */
import { NumberInput, SegmentedControl, Select, Switch } from '@mantine/core';
import { useCallback, useEffect, useEffectEvent, useMemo, useState } from 'react';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import type { Cut } from '@cadence/core/programme/edits/cues/cutCues.ts';
import { weaveAndCut } from '@cadence/core/programme/edits/words/weaveAndCut.ts';
import { toWeave } from '@cadence/core/programme/edits/words/weaveCues.ts';
import { soundsHeard } from '@cadence/core/programme/heard.ts';
import { captionsOf, strandOfWords } from '@cadence/core/programme/captions.ts';
import type { Id, Programme, Strand } from '@cadence/core/programme/programme.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import type { Woven } from '@cadence/core/weave/woven.ts';
import { make, newId } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { say } from '../desk/say.ts';
import { currentStrand, openNow, store } from '../desk/store.ts';
import { tookStrand } from '../desk/view.ts';
import { BEGIN, type WindowProps } from '../desk/windows.ts';
import classes from '../kit/windows.module.css';
import { useChosen } from '../kit/useChosen.tsx';
import { CloseFoot, WindowFoot } from '../kit/WindowFoot.tsx';
import { useRun } from './useRun.tsx';
import { SungAgain, WeaveResult } from './WeaveResult.tsx';
import { languageFor, weaveAll, type FoundWords } from './weaving.ts';

const LANGUAGES = [
  { value: 'en', label: 'English' },
  { value: 'es', label: 'Spanish' },
  { value: 'fr', label: 'French' },
  { value: 'de', label: 'German' },
  { value: 'it', label: 'Italian' },
  { value: 'und', label: 'Other' },
];

/** A cue stays until the next where the pause between is no longer than this. */
const HOLD = fromSeconds(0.5);

/** The strand with words, where the one in hand holds rolls or crawls. */
function otherWords(programme: Programme, inHand: Id): Strand | undefined {
  const strand = programme.strands[inHand];
  const other = strand && strandOfWords(programme, strand);
  return other === strand || !other || captionsOf(programme, other.id).length === 0
    ? undefined
    : other;
}

export default function Weave({ close, show, about }: WindowProps) {
  const { programme, ids, choice } = useChosen();
  const strand = currentStrand(programme);
  const other = useMemo(() => otherWords(programme, strand), [programme, strand]);
  const weaving = useMemo(() => toWeave(programme, strand, ids), [programme, strand, ids]);
  const sounds = soundsHeard(programme);
  const [material, setMaterial] = useState(sounds[0]?.material ?? '');
  const [language, setLanguage] = useState(languageFor(programme));
  const [follows, setFollows] = useState(true);
  const [lead, setLead] = useState(0);
  const [tail, setTail] = useState(3);
  const [then, setThen] = useState<'stay' | 'sense' | 'words'>(about === BEGIN ? 'sense' : 'stay');
  const [each, setEach] = useState(1);
  const cut = useMemo((): Cut | undefined => {
    if (then === 'stay') return undefined;
    return then === 'sense' ? { by: then } : { by: then, count: each, hold: HOLD };
  }, [then, each]);
  const run = useRun<FoundWords>();
  const [addsRepeats, setAddsRepeats] = useState(false);
  const begin = () =>
    run.begin((onProgress) => weaveAll(programme, strand, ids, material, language, onProgress));
  const count = weaving.words.length;
  const atOnce = useEffectEvent(() => {
    if (about === BEGIN && sounds.length > 0 && count > 0) void begin();
  });
  useEffect(() => atOnce(), []);
  const found = run.found?.woven.length === count ? run.found : undefined;
  const repeats = addsRepeats ? found?.repeats : undefined;
  const edit = useCallback(
    (now: Programme, times: readonly Woven[]): Edit => {
      const follow = follows ? { lead, tail } : undefined;
      return weaveAndCut(now, weaving, times, { strand, follow, cut, repeats }, newId);
    },
    [weaving, strand, follows, lead, tail, cut, repeats],
  );
  const take = () => {
    const now = openNow().programme;
    const same = toWeave(now, strand, ids).words.join(' ') === weaving.words.join(' ');
    if (!found || !same) say.note('The words changed meanwhile. Weave them again.');
    else make(edit(now, found.woven));
    close();
  };
  if (sounds.length === 0 || count === 0)
    return (
      <div className={classes.form}>
        <p role="status">
          {count > 0
            ? 'There is no sound yet. Bring one in, in Material.'
            : other
              ? `“${programme.strands[strand]?.title ?? ''}” holds rolls or crawls. There are words on “${other.title}”.`
              : 'There are no words yet. Bring in a script, or type one in Words.'}
        </p>
        {other && count === 0 ? (
          <WindowFoot
            close={close}
            off={false}
            take={() => {
              store.dispatch(tookStrand(other.id));
              show('weave');
            }}
          >
            Weave those
          </WindowFoot>
        ) : (
          <CloseFoot close={close} />
        )}
      </div>
    );
  return (
    <div className={classes.form}>
      <div className={classes.choices}>
        {sounds.length > 1 && (
          <Select
            size="xs"
            label="Sound"
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
        <FrameCount label="Lead-in" count={lead} set={setLead} off={!follows} />
        <FrameCount label="Lead-out" count={tail} set={setTail} off={!follows} />
      </div>
      <Switch
        size="xs"
        label="Tie cue edges to their words"
        checked={follows}
        onChange={(event) => setFollows(event.currentTarget.checked)}
      />
      <div className={classes.choices}>
        <SegmentedControl
          size="xs"
          aria-label="Then"
          data={[
            { value: 'stay', label: 'Keep cues' },
            { value: 'sense', label: 'Cut by sense and pauses' },
            { value: 'words', label: 'Cut by word count' },
          ]}
          value={then}
          onChange={(value) => setThen(value as typeof then)}
        />
        {then === 'words' && (
          <NumberInput
            size="xs"
            w={120}
            aria-label="Words a cue"
            suffix={each === 1 ? ' word' : ' words'}
            min={1}
            max={20}
            value={each}
            onChange={(value) => typeof value === 'number' && value >= 1 && setEach(value)}
          />
        )}
      </div>
      {choice}
      {run.state ||
        (found ? (
          <>
            <WeaveResult
              programme={programme}
              weaving={weaving}
              woven={found.woven}
              {...(cut && { edit })}
            />
            <SungAgain
              programme={programme}
              weaving={weaving}
              repeats={found.repeats}
              adds={addsRepeats}
              setAdds={setAddsRepeats}
            />
          </>
        ) : (
          <p className="quiet" role="status">
            {plural(count, 'word')} in {plural(weaving.cues.length, 'cue')} will be woven.{' '}
            {weaving.pins.length > 0 &&
              `${plural(weaving.pins.length, 'pin stays', 'pins stay')} fixed. `}
            {weaving.taps.length > 0 &&
              `${plural(weaving.taps.length, 'tapped word is', 'tapped words are')} looked for near ${weaving.taps.length === 1 ? 'its tap' : 'their taps'}.`}
          </p>
        ))}
      {run.foot({
        close,
        take: () => (found ? take() : void begin()),
        children: found ? 'Use these times' : `Weave ${plural(count, 'word')}`,
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
