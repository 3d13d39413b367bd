/** Capitals and small letters, quotes, dashes, ellipses and figures made proper, each shown before it is done. */
import { SegmentedControl, Switch } from '@mantine/core';
import { useEffect, useMemo, useState } from 'react';
import { languageOf } from '@cadence/core/programme/edits/text/proof.ts';
import { retext, type Rewritten } from '@cadence/core/programme/edits/text/replaceText.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { closesSentence, keptIn, recase, type Casing } from '@cadence/core/text/language/casing.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { withProperMarks, type Proper } from '@cadence/core/text/punctuation.ts';
import { wordsOf } from '@cadence/core/text/words.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { currentCues } from '../desk/store.ts';
import { EditWindow } from '../kit/EditWindow.tsx';
import { proofWorker } from '../proof/proofWorker.ts';
import { BeforeAfter } from '../kit/BeforeAfter.tsx';
import { CASINGS } from '../kit/casings.ts';
import { useChosen } from '../kit/useChosen.tsx';

type Chosen = 'typed' | Casing;
const casings: readonly { value: Chosen; label: string }[] = [
  { value: 'typed', label: 'As typed' },
  ...CASINGS,
];

const marks: readonly { key: keyof Proper; label: string }[] = [
  { key: 'quotes', label: 'Quotes “ ” ’' },
  { key: 'dashes', label: 'Dashes –' },
  { key: 'ellipses', label: 'Ellipses …' },
  { key: 'figures', label: 'Figures 12,000 ½ 3 × 4' },
];

/** Names that a dictionary knows among the words of the text; none until it has been asked. */
function useNames(programme: Programme): readonly string[] {
  const [names, setNames] = useState<readonly string[]>([]);
  useEffect(() => {
    let stale = false;
    const all = currentCues(programme).flatMap(({ text }) =>
      wordsOf(plainText(text)).map((word) => word.text.replace(/^[^\p{L}]+|[^\p{L}]+$/gu, '')),
    );
    proofWorker()
      .namesAmong([...new Set(all)], languageOf(programme))
      .then(
        (found) => !stale && setNames(found),
        () => undefined,
      );
    return () => {
      stale = true;
    };
  }, [programme]);
  return names;
}

export default function Letters({ close }: { close: () => void }) {
  const { programme, ids, choice } = useChosen();
  const [what, setWhat] = useState<'letters' | 'marks'>('letters');
  const [casing, setCasing] = useState<Chosen>('typed');
  const [proper, setProper] = useState<Proper>({
    quotes: true,
    dashes: true,
    ellipses: true,
    figures: false,
  });
  const names = useNames(programme);
  const all = useMemo((): (Rewritten & { old: string })[] => {
    const row = currentCues(programme);
    const texts = row.map(({ text }) => plainText(text));
    const kept = keptIn(texts, [...names, ...(programme.facts.spelling?.right ?? [])]);
    const wanted = new Set(ids);
    return row.flatMap(({ id }, at) => {
      const old = texts[at] ?? '';
      const begins = at === 0 || closesSentence(texts[at - 1] ?? '');
      const text =
        what === 'marks'
          ? withProperMarks(old, proper)
          : casing === 'typed'
            ? old
            : recase(old, casing, kept, begins);
      return wanted.has(id) && text !== old ? [{ cue: id, text, old }] : [];
    });
  }, [programme, ids, what, casing, proper, names]);
  return (
    <EditWindow
      close={close}
      choices={
        <>
          <SegmentedControl
            size="xs"
            aria-label="Change"
            data={[
              { value: 'letters', label: 'Capitals' },
              { value: 'marks', label: 'Punctuation' },
            ]}
            value={what}
            onChange={(value) => setWhat(value as 'letters' | 'marks')}
          />
          {what === 'letters' ? (
            <SegmentedControl
              size="xs"
              aria-label="Capitals"
              data={[...casings]}
              value={casing}
              onChange={(value) => setCasing(value as Chosen)}
            />
          ) : (
            marks.map(({ key, label }) => (
              <Switch
                key={key}
                size="xs"
                label={label}
                checked={proper[key]}
                onChange={(event) => setProper({ ...proper, [key]: event.currentTarget.checked })}
              />
            ))
          )}
        </>
      }
      says={
        <>
          {all.length === 0
            ? 'Nothing would change.'
            : `${plural(all.length, 'cue')} would change.`}
          {what === 'letters' &&
            ' Abbreviations and names keep the capitals that they have elsewhere.'}
        </>
      }
      edit={(now) =>
        retext(now, all, what === 'marks' ? 'Fix punctuation' : `Set capitals: ${casing}`)
      }
      off={all.length === 0}
      does={`Change ${plural(all.length, 'cue')}`}
    >
      {choice}
      <BeforeAfter all={all.map(({ text, old }) => ({ before: [old], after: [text] }))} />
    </EditWindow>
  );
}
