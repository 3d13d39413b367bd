/** Finds speech again in the stretch that is picked, after saying what would change. */
import { useCallback, useMemo, useState } from 'react';
import { DEFAULT_SPEECH } from '@cadence/core/listen/speech/speech.ts';
import { setPieces } from '@cadence/core/programme/edits/found/pieces.ts';
import { materialTime } from '@cadence/core/programme/heard.ts';
import { piecesInOrder } from '@cadence/core/programme/order.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { overlap } from '@cadence/core/time/range.ts';
import { newId } from '../../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { pickedNow, pickedStretch } from '../../desk/actions.ts';
import { useShown } from '../../desk/store.ts';
import { useHeard } from '../../listening/heard.ts';
import { SpeechFields, usePieces } from '../../listening/speechSettings.tsx';
import { EditWindow } from '../../kit/EditWindow.tsx';

export default function FindAgain({ close }: { close: () => void }) {
  const programme = useShown((shown) => shown);
  const [settings, setSettings] = useState(DEFAULT_SPEECH);
  const [{ material, stretch }] = useState(() => ({
    material: programme.pieces[pickedNow()[0] ?? '']?.material ?? null,
    stretch: pickedStretch(),
  }));
  const heard = useHeard(programme.materials[material ?? '']?.hash);
  const found = usePieces(heard, settings);
  const planIn = useCallback(
    (now: Programme) => {
      if (!found || !stretch || material === null) return undefined;
      const inMaterial = {
        start: materialTime(now, material, stretch.start),
        end: materialTime(now, material, stretch.end),
      };
      const edit = setPieces(now, material, found, newId, inMaterial);
      const made = edit.changes.filter(({ was }) => was === null).length;
      const kept = piecesInOrder(now, material).filter(
        (piece) => piece.kept && overlap(piece, inMaterial),
      ).length;
      return { edit, made, gone: edit.changes.length - made, kept };
    },
    [found, stretch, material],
  );
  const planned = useMemo(() => planIn(programme), [planIn, programme]);
  return (
    <EditWindow
      close={close}
      choices={<SpeechFields settings={settings} change={setSettings} />}
      says={
        planned
          ? `${plural(planned.made, 'piece')} would replace ${planned.gone}.${
              planned.kept > 0 ? ` ${plural(planned.kept, 'corrected piece')} would stay.` : ''
            }`
          : 'Listening …'
      }
      edit={(now) => planIn(now)?.edit ?? { name: '', changes: [] }}
      off={!planned}
      does="Find again"
    />
  );
}
