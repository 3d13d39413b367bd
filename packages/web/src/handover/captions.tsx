/** Caption files: the formats, what each cannot hold, and the files once they are written. */
import { Checkbox } from '@mantine/core';
import { useEffect, useState } from 'react';
import type { Lost } from '@cadence/core/formats/captions.ts';
import type { CAPTION_FORMATS } from '@cadence/core/formats/names.ts';
import { captionsOf } from '@cadence/core/programme/captions.ts';
import type { Id, Programme, Strand } from '@cadence/core/programme/programme.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { wordsWorker } from '../bringing/wordsWorker.ts';
import { openNow } from '../desk/store.ts';
import type { Handover } from '../desk/view.ts';
import { formatBytes } from '../kit/format.ts';
import { fileName } from '../kit/save.ts';
import { ChoiceCard } from './ChoiceCard.tsx';

export interface SavedFile {
  readonly name: string;
  readonly note: string;
  readonly url: string;
}

export type Choices = Omit<Handover, 'formats' | 'leaves'>;

/** The choices that a format has, by its name. */
const CHOICES: Readonly<Record<string, { option: keyof Choices; label: string }>> = {
  srt: { option: 'placeCodes', label: 'Write positions as codes (some players show them as text)' },
  lrc: { option: 'clearLines', label: 'Write an empty line where the text ends' },
};

/** The captions to be written, and what a format may want to know beside them. */
function toWrite(programme: Programme, strand: Id, options: Choices) {
  const { frameRate, startTimecode: start, title } = programme.facts;
  return {
    captions: captionsOf(programme, strand),
    target: { frameRate, start, title, ...options },
  };
}

/** What each format cannot hold, worked out when the programme rests; undefined until it is. */
export function useLosses(
  programme: Programme,
  strand: Id | undefined,
  options: Choices,
): Readonly<Record<string, readonly Lost[]>> | undefined {
  const [losses, setLosses] = useState<Readonly<Record<string, readonly Lost[]>>>();
  useEffect(() => {
    if (strand === undefined) return undefined;
    let stale = false;
    const { captions, target } = toWrite(programme, strand, options);
    void wordsWorker()
      .losses(captions, target)
      .then((found) => !stale && setLosses(found));
    return () => {
      stale = true;
    };
  }, [programme, strand, options]);
  return losses;
}

export type Format = (typeof CAPTION_FORMATS)[number];

interface FormatProps {
  readonly format: Format;
  readonly lost: readonly Lost[] | undefined;
  readonly on: boolean;
  readonly toggle: () => void;
  readonly options: Choices;
  readonly choose: (changed: Partial<Handover>) => void;
}

export function FormatCard({ format, lost, on, toggle, options, choose }: FormatProps) {
  const choice = CHOICES[format.name];
  return (
    <ChoiceCard title={format.title} note={lost ? holds(lost) : '…'} on={on} toggle={toggle}>
      {choice && (
        <Checkbox
          checked={options[choice.option]}
          onChange={(event) => choose({ [choice.option]: event.currentTarget.checked })}
          color="var(--ink)"
          iconColor="var(--linen)"
          size="xs"
          label={choice.label}
        />
      )}
    </ChoiceCard>
  );
}

const holds = (lost: readonly Lost[]): string =>
  lost.length === 0
    ? 'Keeps everything.'
    : `Loses ${lost.map(({ kind, count, detail }) => `${kind} (${plural(count, 'cue')}${detail ? `: ${detail}` : ''})`).join(', ')}.`;

/** Writes a file and reads it back; what does not come back equal is said. */
export async function writeFile(
  { name, mediaType }: Format,
  strand: Strand,
  { several, options }: { readonly several: boolean; readonly options: Choices },
): Promise<SavedFile> {
  const { programme } = openNow();
  const { captions, target } = toWrite(programme, strand.id, options);
  const { content, equal } = await wordsWorker().write(name, captions, target);
  const isText = typeof content === 'string';
  const blob = new Blob([isText ? content : (content as Uint8Array<ArrayBuffer>)], {
    type: isText ? `${mediaType};charset=utf-8` : mediaType,
  });
  const checked =
    equal === null
      ? ''
      : equal
        ? ', text read back: identical'
        : ', text read back: not identical, check it';
  return {
    // Where there are several strands, the name of the file says which one is in it.
    name: `${fileName(several ? `${programme.facts.title} ${strand.title}` : programme.facts.title)}.${name}`,
    note: `${formatBytes(blob.size)}${checked}`,
    url: URL.createObjectURL(blob),
  };
}
