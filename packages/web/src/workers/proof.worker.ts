/** Proof-reads texts and finds in them, away from the page. */
import { expose } from 'comlink';
import type { Finding } from '@cadence/core/check/finding.ts';
import { measured } from '@cadence/core/check/findings.ts';
import { proofread } from '@cadence/core/check/proofread.ts';
import { sheetSlips, type SheetSlip } from '@cadence/core/check/sheetSlips.ts';
import { newProgramme } from '@cadence/core/programme/defaults.ts';
import { languageOf } from '@cadence/core/programme/edits/text/proof.ts';
import type { Cue, Id, Language, Programme } from '@cadence/core/programme/programme.ts';
import { findIn, type Match, type Search } from '@cadence/core/text/find.ts';
import { readSheet } from '@cadence/core/text/sheet/sheet.ts';
import {
  namesAmong,
  rightWords,
  spellerFrom,
  type Speller,
} from '@cadence/core/text/language/spelling.ts';

const files = { 'en-GB': 'british', 'en-US': 'american' } as const;
const spellers = new Map<Language, Promise<Speller>>();

async function textOf(path: string): Promise<string> {
  const response = await fetch(path);
  if (!response.ok) throw new Error(`The dictionary could not be loaded (${response.status}).`);
  return response.text();
}

/** The speller for a language; the dictionary is loaded with the first word. */
async function spellerFor(language: Language): Promise<Speller | undefined> {
  if (language === 'none') return undefined;
  let speller = spellers.get(language);
  if (!speller) {
    const path = `/dictionaries/${files[language]}`;
    speller = Promise.all([textOf(`${path}.aff`), textOf(`${path}.dic`)]).then(([affixes, list]) =>
      spellerFrom(affixes, list),
    );
    speller.catch(() => spellers.delete(language));
    spellers.set(language, speller);
  }
  return speller;
}

/** What the worker was told of the programme. */
let known: Programme = newProgramme('none', '', 'none');

/** What changed in a programme since the worker was last told. */
export interface News extends Pick<Programme, 'facts' | 'strands'> {
  readonly changed: readonly Cue[];
  readonly gone: readonly Id[];
}

/** What is found in the cues for which something else was found the last time. */
export type Found = readonly (readonly [cue: Id, findings: readonly Finding[]])[];

/** What the page was told of each cue, as JSON. */
let sent = new Map<Id, string>();

/** Follows what changed in the programme, and gives what is found in its times and its text that is new. */
async function read({ facts, strands, changed, gone }: News): Promise<Found> {
  const cues = { ...known.cues };
  for (const id of gone) Reflect.deleteProperty(cues, id);
  for (const cue of changed) cues[cue.id] = cue;
  known = { ...known, facts, strands, cues };
  const now = known;
  const speller = await spellerFor(languageOf(now));
  const byCue = new Map<Id, Finding[]>(Object.keys(now.cues).map((id) => [id, []]));
  for (const finding of [...measured(now), ...proofread(now, speller)])
    byCue.get(finding.cue)?.push(finding);
  const before = sent;
  sent = new Map();
  const found: [Id, Finding[]][] = [];
  for (const [id, findings] of byCue) {
    const json = findings.length > 0 ? JSON.stringify(findings) : '';
    if (json !== '') sent.set(id, json);
    if (json !== (before.get(id) ?? '')) found.push([id, findings]);
  }
  return found;
}

/** What may have been meant by a word. */
const suggest = async (word: string, language: Language): Promise<readonly string[]> =>
  (await spellerFor(language))?.suggest(word) ?? [];

/** The matches in each of several texts. */
const find = (texts: readonly string[], search: Search): Match[][] =>
  texts.map((text) => findIn(text, search));

/** Of words, those that are names. */
async function namesIn(words: readonly string[], language: Language): Promise<string[]> {
  const speller = await spellerFor(language);
  return speller ? namesAmong(words, speller) : [];
}

/** What may be wrong in a sheet. */
async function sheet(
  { text, separator }: { text: string; separator: string | null },
  language: Language,
  right: readonly string[],
): Promise<SheetSlip[]> {
  const speller = await spellerFor(language);
  return sheetSlips(readSheet(text, separator ?? undefined), speller, rightWords(right));
}

const proof = { sheet, read, suggest, find, namesAmong: namesIn };
export type Proof = typeof proof;
expose(proof);
