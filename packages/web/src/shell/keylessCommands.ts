/** Commands that have no key of their own. */
import { STRAND_TITLES } from '@cadence/core/programme/defaults.ts';
import { TEXT_KINDS } from '@cadence/core/programme/programme.ts';
import { countAgain } from '@cadence/core/programme/edits/text/proof.ts';
import { strands } from '../desk/actions.ts';
import { make } from '../desk/desk.ts';
import { goTo, isIn } from '../desk/places.ts';
import { openNow, store } from '../desk/store.ts';
import { showWindow } from '../desk/windows.ts';
import { fileUrl } from '../sync/api.ts';
import { passageInHand } from '../desk/passageInHand.ts';
import type { KeyGroup } from './keys/key.ts';
import { inTravel, type TravelActions } from './keys/strandKeys.ts';

/** What can be done, as the list of commands has it. */
export interface Command {
  readonly does: string;
  readonly group: KeyGroup;
  /** What else people call it. */
  readonly words: string;
  readonly keys?: string;
  /** Why it cannot be done now, as a sentence. */
  readonly why?: string | undefined;
  readonly run: () => void;
}

type Keyless = Omit<Command, 'group'>;

const ofTheProgramme = (): Keyless[] => [
  {
    does: 'Bring in a film, a sound or words',
    words: 'import open load file media video audio music subtitles captions script lyrics',
    run: () => goTo('material'),
  },
  {
    does: 'Find speech in the sound',
    words: 'detect voice silence pieces segments vad',
    run: () => goTo('material'),
  },
  {
    does: 'Find the pulse of a song',
    words: 'detect tempo bpm beats rhythm music',
    run: () => goTo('material'),
  },
  {
    does: 'Type as you listen',
    words: 'transcribe write subtitles captions transcript',
    run: () => goTo('words'),
  },
  {
    does: 'Write caption files',
    words: 'export save deliver srt vtt webvtt ttml stl lrc csv subtitles output download',
    run: () => goTo('handover'),
  },
  {
    does: 'Write a film',
    words:
      'export render video movie mp4 webm h264 burn deliver output stills png wav sound transparent alpha',
    run: () => goTo('handover'),
  },
  {
    does: 'Save the programme as one file',
    words: 'backup archive download copy project',
    run: () => location.assign(fileUrl(openNow().id)),
  },
  {
    does: 'Set up the programme',
    words: 'settings preferences options frame rate fps size length timecode limits project',
    run: () => showWindow('setup'),
  },
  {
    does: 'Edit the dictionary of this programme',
    words: 'spelling words names spell check vocabulary',
    run: () => showWindow('rightWords'),
  },
  {
    does: 'Restore ignored findings',
    words: 'proof errors warnings passed again check',
    why: openNow().programme.facts.passedOver?.length ? undefined : 'No finding is ignored.',
    run: () => make(countAgain(openNow().programme)),
  },
  {
    does: 'Make marks from timecodes',
    words: 'paste markers list times import',
    run: () => showWindow('pasteMarks'),
  },
  {
    does: 'Bring in a tempo map',
    words: 'midi beats bpm import',
    run: () => showWindow('tempoMap'),
  },
  {
    does: 'Carry cues over to another sound',
    words: 'conform retime replace recut version new audio swap',
    run: () => showWindow('carry'),
  },
  {
    does: 'List the cues changed by carrying over',
    words: 'conform report lost shortened removed',
    run: () => showWindow('carried'),
  },
];

const ofStrands = (): Keyless[] =>
  TEXT_KINDS.map((kind) => ({
    does: `New strand: ${STRAND_TITLES[kind]}`,
    words: 'add track layer lane create',
    run: () => strands.add(kind),
  }));

/** What is done with the passage in hand, by its kind. */
function ofTravel(): Keyless[] {
  const kind = passageInHand(openNow().programme, store.getState().view)?.kind;
  const needs = (wanted: 'roll' | 'crawl') =>
    kind === wanted ? undefined : `Take a ${wanted} in hand in Travel first.`;
  const there = (run: (travel: TravelActions) => void) => ({
    ...inTravel(run),
    why: !isIn('travel')
      ? 'Go to Travel first.'
      : kind === undefined
        ? 'There is no roll or crawl yet.'
        : undefined,
  });
  return [
    {
      does: 'Order the sections of the roll',
      words: 'credits sort rearrange reorder move groups headings',
      why: needs('roll'),
      run: () => showWindow('sections'),
    },
    {
      does: 'Choose items of a news feed',
      words: 'rss atom ticker headlines crawl import',
      why: needs('crawl'),
      run: () => showWindow('feed'),
    },
    {
      does: 'Duplicate the roll or crawl',
      words: 'copy clone passage credits ticker',
      ...there((travel) => travel.copy()),
    },
    {
      does: 'Delete the roll or crawl',
      words: 'remove erase passage credits ticker',
      ...there((travel) => travel.remove()),
    },
    {
      does: 'Repeat the crawl until the programme ends',
      words: 'loop ticker again fill endless',
      ...there((travel) => travel.repeatUntilEnd()),
      ...(kind === 'roll' && { why: needs('crawl') }),
    },
  ];
}

/** All of them, as they can be done now. */
export function keylessCommands(): Command[] {
  const inGroup = (group: KeyGroup, all: readonly Keyless[]): Command[] =>
    all.map((each) => ({ ...each, group }));
  return [
    ...inGroup('Travel', ofTravel()),
    ...inGroup('Programme', [...ofTheProgramme(), ...ofStrands()]),
  ];
}
