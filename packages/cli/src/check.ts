/** `check` and `pace reading`: what is wrong with a programme or with captions, and how fast they are to be read. */
import type { Finding } from '@cadence/core/check/finding.ts';
import { findingsOf } from '@cadence/core/check/findings.ts';
import type { Caption } from '@cadence/core/formats/captions.ts';
import { PROFILES, type ReadingProfile } from '@cadence/core/pace/profile.ts';
import { readingOf } from '@cadence/core/pace/reading.ts';
import { newProgramme } from '@cadence/core/programme/defaults.ts';
import { languageOf } from '@cadence/core/programme/edits/text/proof.ts';
import {
  LANGUAGES,
  type Cue,
  type Language,
  type Programme,
} from '@cadence/core/programme/programme.ts';
import { spellerFor } from '@cadence/node/spelling.ts';
import { frameAfter, type FrameRate } from '@cadence/core/time/frameRate.ts';
import { ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { rateOf, readWords, type CaptionOptions } from './captions.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { WrongUsage } from './failure.ts';
import { secondsOf } from './output.ts';
import { stageFiles } from '@cadence/node/stageFiles.ts';
import { Stage } from '@cadence/paint/stage.ts';
import { folderOf, readProgramme } from './programmeFile.ts';

export interface CheckOptions extends CaptionOptions {
  readonly profile?: string | undefined;
  readonly language?: string | undefined;
}

/** A language that was asked for, or the one that is meant. */
function languageAsked({ language }: CheckOptions, meant: Language): Language {
  if (language === undefined) return meant;
  const known = LANGUAGES.find((each) => each === language);
  if (!known) throw new WrongUsage(`--language takes ${LANGUAGES.join(', ')}, not ${language}.`);
  return known;
}

export function profileOf({ profile: name = 'usual' }: CheckOptions): [string, ReadingProfile] {
  const profile = Object.hasOwn(PROFILES, name) ? PROFILES[name] : undefined;
  if (!profile)
    throw new WrongUsage(`--profile takes ${Object.keys(PROFILES).join(', ')}, not ${name}.`);
  return [name, profile];
}

/** The captions of a file, as they stand there, as cues of a programme that is just as long. */
async function asProgramme(
  file: string,
  options: CheckOptions,
  profile: ReadingProfile,
): Promise<{ programme: Programme; captions: readonly Caption[] }> {
  const { captions } = await readWords(file, options);
  if (captions.length === 0)
    throw new Unusable('no cues', 'There is no timed text in this file.', file);
  const empty = newProgramme('file', file, 'cues');
  const frameRate: FrameRate = rateOf(options);
  const last = captions.reduce<Ticks>((most, { end }) => (end > most ? end : most), ZERO);
  const cues = captions.map(({ start, end, text, place }, at): Cue => {
    return { id: String(at), strand: 'cues', start, end, text, style: place ?? {}, words: [] };
  });
  return {
    captions,
    programme: {
      ...empty,
      facts: { ...empty.facts, frameRate, profile, length: frameAfter(last, frameRate) },
      cues: Object.fromEntries(cues.map((cue) => [cue.id, cue])),
    },
  };
}

/** @param isFile  whether cues are named by their place in the file */
const findingJson = ({ at, cue, ...finding }: Finding, isFile: boolean): object => ({
  ...finding,
  at: secondsOf(at),
  cue: isFile ? Number(cue) : cue,
});

/** The JSON of `check`. */
export async function checkCommand(file: string, options: CheckOptions): Promise<object> {
  const [, profile] = profileOf(options);
  if (/\.json$/i.test(file)) {
    const read = await readProgramme(file);
    const asked = options.profile === undefined ? read.facts.profile : profile;
    const programme = { ...read, facts: { ...read.facts, profile: asked } };
    const speller = await spellerFor(languageAsked(options, languageOf(programme)));
    const stage = new Stage(stageFiles(folderOf(file, undefined)));
    await stage.fonts(programme);
    const findings = findingsOf(programme, stage.shelf, speller);
    return { findings: findings.map((finding) => findingJson(finding, false)) };
  }
  const { programme } = await asProgramme(file, options, profile);
  // Nobody knows what language a file of captions is in.
  const speller = await spellerFor(languageAsked(options, 'none'));
  const findings = findingsOf(programme, undefined, speller);
  return { findings: findings.map((finding) => findingJson(finding, true)) };
}

/** The JSON of `pace reading`. */
export async function paceReadingCommand(file: string, options: CheckOptions): Promise<object> {
  const [name, profile] = profileOf(options);
  const { programme, captions } = await asProgramme(file, options, profile);
  return {
    cues: captions.map((caption, at) => {
      const next = captions[at + 1];
      const reading = readingOf(caption, next?.start);
      const finite = (value: number) => (Number.isFinite(value) ? value : null);
      return {
        start: secondsOf(caption.start),
        end: secondsOf(caption.end),
        cps: finite(reading.charactersASecond),
        wpm: finite(reading.wordsAMinute),
        lines: reading.lines,
        longestLine: reading.longestLine,
        gap: reading.gap === undefined ? null : secondsOf(reading.gap),
      };
    }),
    profile: {
      name,
      ...profile,
      shortestStay: secondsOf(profile.shortestStay),
      longestStay: secondsOf(profile.longestStay),
    },
    findings: findingsOf(programme).map((finding) => findingJson(finding, true)),
  };
}
