/** `pattern list` and `pattern apply`: the patterns that a programme can have, and giving one to a strand. */
import { randomUUID } from 'node:crypto';
import { applyPattern, bringPatterns } from '@cadence/core/programme/edits/patterns/patterns.ts';
import { patternsOfFile } from '@cadence/core/programme/patternFile.ts';
import type { Pattern, Programme } from '@cadence/core/programme/programme.ts';
import { apply } from '@cadence/core/programme/record/apply.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { readText } from './files.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import { patternOf, patternsAtHand } from '@cadence/core/programme/patterns.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { WrongUsage } from './failure.ts';
import { readProgramme } from './programmeFile.ts';
import { keep, strandIn } from './programmes.ts';

/** The JSON of `pattern list`: those of the programme first, then those of the shelf. */
export async function listCommand(file: string): Promise<object> {
  const programme = await readProgramme(file);
  const cues = Object.values(programme.cues);
  return {
    patterns: patternsAtHand(programme).map(({ id, name, note, movement: { comesIn, goes } }) => ({
      ...{ id, name, note: note ?? null },
      inProgramme: id in programme.patterns,
      cues: cues.filter((cue) => patternOf(programme, cue)?.id === id).length,
      comesIn: comesIn && { by: comesIn.by, when: comesIn.when },
      goes: goes && { by: goes.by, when: goes.when },
    })),
  };
}

/** The patterns of a file, fitted to a programme. @throws Unusable where it is none */
async function patternsIn(name: string, { facts }: Programme): Promise<Pattern[]> {
  const { text } = await readText(name);
  try {
    return patternsOfFile(text, facts);
  } catch (error) {
    const why = error instanceof Error ? error.message.replace(/\.$/, '') : '';
    throw new Unusable('unreadable', `This is no file of patterns: ${why}.`, name);
  }
}

/** The JSON of `pattern apply`: a strand is given the pattern, with all its cues. */
export async function applyCommand(
  file: string,
  out: string,
  name: string,
  strandName: string | undefined,
): Promise<object> {
  const programme = await readProgramme(file);
  const isFile = /\.json$/i.test(name);
  const known = isFile ? await patternsIn(name, programme) : patternsAtHand(programme);
  const pattern = isFile
    ? known[0]
    : known.find((each) => each.name.toLowerCase() === name.trim().toLowerCase());
  if (!pattern)
    throw new WrongUsage(
      `--pattern takes the name of a pattern: ${known.map((each) => `“${each.name}”`).join(', ')}.`,
    );
  const strand = strandIn(programme, strandName);
  const brought = isFile ? bringPatterns(programme, [pattern], randomUUID) : undefined;
  const there = apply(programme, brought?.changes ?? []);
  const given = there.patterns[brought?.brought[0] ?? ''] ?? pattern;
  const { name: step, changes } = applyPattern(there, given, { strand: strand.id });
  const edit = { name: step, changes: [...(brought?.changes ?? []), ...changes] };
  const made = await keep(programme, edit, out);
  const cues = cuesInOrder(made, strand.id).map((cue) => ({
    id: cue.id,
    start: toSeconds(cue.start),
    end: toSeconds(cue.end),
    text: plainText(cue.text),
  }));
  return { file: out, pattern: given.name, strand: strand.title, cues };
}
