/** Finds speech again in the stretch that is picked, after saying what would change. */
import { useMemo, useState } from 'react';
import { DEFAULT_SPEECH } from '@cadence/core/listen/speech.ts';
import { setPieces } from '@cadence/core/programme/edits/pieces.ts';
import { materialTime } from '@cadence/core/programme/heard.ts';
import { piecesInOrder } from '@cadence/core/programme/order.ts';
import { overlap } from '@cadence/core/time/range.ts';
import { make, newId } from '../desk/desk.ts';
import { plural } from '../kit/format.ts';
import { pickedNow, pickedStretch } from '../desk/handActions.ts';
import { openNow, useShown } from '../desk/store.ts';
import { useHeard } from '../listening/heard.ts';
import { SpeechFields, usePieces } from '../listening/speechSettings.tsx';
import { WindowFoot } from '../kit/WindowFoot.tsx';
import classes from '../kit/windows.module.css';

export default function FindAgain({ close }: { close: () => void }) {
  const programme = useShown((shown) => shown);
  const [settings, setSettings] = useState(DEFAULT_SPEECH);
  const [{ material, stretch }] = useState(() => ({
    material: programme.pieces[pickedNow()[0] ?? '']?.material ?? null,
    stretch: pickedStretch(),
  }));
  const heard = useHeard(programme.materials[material ?? '']?.hash);
  const found = usePieces(heard, settings);
  const planned = useMemo(() => {
    if (!found || !stretch || material === null) return undefined;
    const inMaterial = {
      start: materialTime(programme, material, stretch.start),
      end: materialTime(programme, material, stretch.end),
    };
    const edit = setPieces(programme, material, found, newId, inMaterial);
    const made = edit.changes.filter(({ was }) => was === null).length;
    const kept = piecesInOrder(programme, material).filter(
      (piece) => piece.kept && overlap(piece, inMaterial),
    ).length;
    return { edit, made, gone: edit.changes.length - made, kept };
  }, [found, stretch, material, programme]);
  const take = () => {
    if (planned && openNow().programme === programme) make(planned.edit);
    close();
  };
  return (
    <div className={classes.form}>
      <div className={classes.choices}>
        <SpeechFields settings={settings} change={setSettings} />
      </div>
      <p className="quiet" role="status">
        {planned
          ? `${plural(planned.made, 'piece')} in the place of ${planned.gone}.${
              planned.kept > 0
                ? ` ${plural(planned.kept, 'corrected piece')} stay as they are.`
                : ''
            }`
          : 'Listening …'}
      </p>
      <WindowFoot close={close} take={take} off={!planned}>
        Find again
      </WindowFoot>
    </div>
  );
}
