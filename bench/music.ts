/**
 * How well music is heard: `npx tsx bench/music.ts FOLDER …`.
 *
 * Each FOLDER holds sounds (`NAME.wav` or `NAME.flac`) with their truth in `NAME.truth.json`, as `training/music.py`
 * makes them. Beats and bar lines count within 70 ms after the first three seconds, strokes of drums within 30 ms, and
 * the starts of sections within 1.5 s, one to one; soft strokes count neither way. Of sections also whether two places
 * of a song that are alike are found to be alike.
 */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Listener } from '@cadence/core/listen/listening.ts';
import { DRUMS, type Drum } from '@cadence/core/listen/pulse/drums.ts';
import { barLinesOf, findPulse } from '@cadence/core/listen/pulse/pulse.ts';
import { findStrokes } from '@cadence/core/listen/pulse/strokes.ts';
import { findSections } from '@cadence/core/listen/structure/sections.ts';
import { openSound } from '@cadence/node/sound.ts';

interface Truth {
  readonly beats: readonly number[];
  readonly bars: readonly number[];
  readonly metre: string;
  readonly drums: boolean;
  readonly strokes?: Readonly<Record<Drum | 'soft', readonly number[]>>;
  readonly sections?: readonly {
    readonly start: number;
    readonly end: number;
    readonly kind: string;
  }[];
}

/** What was found, what of it is right, and what there is. */
class Tally {
  right = 0;
  found = 0;
  there = 0;

  /** Two lists in order, matched one to one. */
  add(found: readonly number[], there: readonly number[], within: number): number {
    let [a, b, right] = [0, 0, 0];
    while (a < found.length && b < there.length) {
      const off = (found[a] as number) - (there[b] as number);
      if (Math.abs(off) <= within) {
        right++;
        a++;
        b++;
      } else if (off < 0) a++;
      else b++;
    }
    this.right += right;
    this.found += found.length;
    this.there += there.length;
    return found.length + there.length > 0 ? (2 * right) / (found.length + there.length) : 1;
  }

  toString(): string {
    const share = (of: number) => (of > 0 ? this.right / of : 0).toFixed(3);
    const f = (2 * this.right) / Math.max(1, this.found + this.there);
    return `F ${f.toFixed(3)}, of what is found ${share(this.found)}, of what is there ${share(this.there)} (${this.there})`;
  }
}

const mean = (values: readonly number[]) =>
  values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);

async function judge(folder: string): Promise<void> {
  const pulses = new Map<string, { beats: number[]; bars: number[]; metre: number[] }>();
  const drums = new Map([...DRUMS, 'hat'].map((drum) => [drum, new Tally()]));
  const [starts, alike] = [new Tally(), new Tally()];
  for (const name of readdirSync(folder)
    .filter((file) => file.endsWith('.truth.json'))
    .sort()) {
    const base = join(folder, name.replace('.truth.json', ''));
    const file = [`${base}.wav`, `${base}.flac`].find(existsSync);
    const truth = JSON.parse(readFileSync(join(folder, name), 'utf8')) as Truth;
    if (file === undefined || !(truth.beats?.length > 0)) continue;
    const sound = await openSound(file);
    const listener = new Listener(sound.sampleRate, ['pulse']);
    for await (const channels of sound.chunks()) await listener.push(channels);
    const heard = await listener.finish();
    const found = findPulse(heard.pulse);
    const from = Math.max(3, (truth.beats[0] as number) - 0.07);
    const to = (truth.beats.at(-1) as number) + 0.07;
    const inside = (times: readonly number[]) => times.filter((at) => at >= from && at <= to);
    const lines = barLinesOf(found);
    const key = truth.drums ? 'with drums' : 'without drums';
    const pulse = pulses.get(key) ?? { beats: [], bars: [], metre: [] };
    pulses.set(key, pulse);
    const beats = found.beats.map(({ at }) => at);
    pulse.beats.push(new Tally().add(inside(beats), inside(truth.beats), 0.07));
    pulse.bars.push(new Tally().add(inside(lines), inside(truth.bars), 0.07));
    pulse.metre.push(found.metre === truth.metre ? 1 : 0);
    if (truth.strokes) countStrokes(drums, truth.strokes, findStrokes(heard.pulse));
    if (truth.sections)
      countSections(starts, alike, truth, findSections(heard.pulse, heard.level, lines));
  }
  console.log(folder);
  for (const [key, { beats, bars, metre }] of pulses)
    console.log(
      `${key} (${beats.length}): beats F ${mean(beats).toFixed(3)}, bars F ${mean(bars).toFixed(3)}, metre right ${mean(metre).toFixed(3)}`,
    );
  for (const [drum, tally] of drums)
    if (tally.there > 0) console.log(drum.padEnd(7), String(tally));
  if (starts.there > 0) console.log(`starts of sections ${starts}\nplaces that are alike ${alike}`);
}

function countStrokes(
  tallies: ReadonlyMap<string, Tally>,
  truth: Readonly<Record<Drum | 'soft', readonly number[]>>,
  found: readonly { readonly at: number; readonly drum: Drum }[],
): void {
  const groups: [string, readonly Drum[]][] = DRUMS.map((drum) => [drum, [drum]]);
  for (const [name, own] of [...groups, ['hat', ['closed', 'open']] as [string, Drum[]]]) {
    const there = own.flatMap((drum) => truth[drum]).sort((a, b) => a - b);
    const near = (at: number, times: readonly number[]) =>
      times.some((one) => Math.abs(one - at) <= 0.03);
    const times = found.filter(({ drum }) => own.includes(drum)).map(({ at }) => at);
    const counted = times.filter((at) => near(at, there) || !near(at, truth.soft));
    tallies.get(name)?.add(counted, there, 0.03);
  }
}

function countSections(
  starts: Tally,
  alike: Tally,
  { sections = [] }: Truth,
  found: ReturnType<typeof findSections>,
): void {
  const changes = sections.filter(({ kind }, at) => at > 0 && kind !== sections[at - 1]?.kind);
  starts.add(
    found.slice(1).map(({ start }) => start),
    changes.map(({ start }) => start),
    1.5,
  );
  const places = Array.from(
    { length: Math.floor(((sections.at(-1)?.end ?? 0) - (sections[0]?.start ?? 0)) / 2) },
    (_, at) => (sections[0]?.start ?? 0) + 1 + 2 * at,
  );
  const at = <T extends { start: number; end: number }>(all: readonly T[], time: number) =>
    all.find(({ start, end }) => time >= start && time < end);
  places.forEach((one, place) => {
    for (const other of places.slice(place + 2)) {
      const same = at(sections, one)?.kind === at(sections, other)?.kind;
      const told = at(found, one)?.letter === at(found, other)?.letter;
      alike.right += Number(same && told);
      alike.found += Number(told);
      alike.there += Number(same);
    }
  });
}

for (const folder of process.argv.slice(2)) await judge(folder);
