/** The settings by which speech is found, and what they would find. */
import { useEffect, useState } from 'react';
import type { KeptHeard } from '@cadence/core/listen/heardFile.ts';
import type { SpeechSettings } from '@cadence/core/listen/speech/speech.ts';
import type { Range } from '@cadence/core/time/range.ts';
import { FigureField } from '../kit/FigureField.tsx';
import { listeningWorker } from './heard.ts';

/** What finding speech with these settings gives; undefined until it is there. */
export function usePieces(
  heard: KeptHeard | undefined,
  settings: SpeechSettings,
): readonly Range[] | undefined {
  const [found, setFound] = useState<readonly Range[]>();
  useEffect(() => {
    if (!heard) return;
    let stale = false;
    void listeningWorker()
      .find(heard.speech, settings)
      .then((pieces) => !stale && setFound(pieces));
    return () => {
      stale = true;
    };
  }, [heard, settings]);
  return found;
}

interface SpeechFieldsProps {
  readonly settings: SpeechSettings;
  readonly change: (settings: SpeechSettings) => void;
}

export function SpeechFields({ settings, change }: SpeechFieldsProps) {
  const set = (part: Partial<SpeechSettings>) => change({ ...settings, ...part });
  return (
    <>
      <FigureField
        label="Shortest pause, s"
        value={settings.shortestPause}
        bounds={[0.05, 5]}
        step={0.05}
        change={(shortestPause) => set({ shortestPause })}
      />
      <FigureField
        label="Shortest piece, s"
        value={settings.shortestPiece}
        bounds={[0.02, 5]}
        step={0.05}
        change={(shortestPiece) => set({ shortestPiece })}
      />
      <FigureField
        label="How strict, %"
        value={Math.round(settings.strictness * 100)}
        bounds={[5, 95]}
        step={5}
        change={(share) => set({ strictness: share / 100 })}
      />
    </>
  );
}
