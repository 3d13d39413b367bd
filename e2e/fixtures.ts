/** A server for each test, with the content it asks for. */
import { Buffer } from 'node:buffer';
import { spawn, type ChildProcess } from 'node:child_process';
import { cp, mkdtemp, rename, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test as base, type Locator, type Page } from '@playwright/test';
import { SERVER } from './bundle.ts';

export type Content = 'empty' | 'demo' | 'long';

/** A server that can be killed in the middle of its work and started again on the same port. */
export class Serving {
  readonly #data: string;
  readonly #content: Content;
  #child: ChildProcess | undefined;
  address = '';

  constructor(data: string, content: Content) {
    this.#data = data;
    this.#content = content;
  }

  async start(): Promise<void> {
    const port = this.address === '' ? '0' : new URL(this.address).port;
    const child = spawn(process.execPath, [SERVER, this.#data, port, this.#content], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.#child = child;
    this.address = await new Promise<string>((done, fail) => {
      child.stdout.once('data', (text: Buffer) => done(text.toString().trim()));
      child.once('exit', () => fail(new Error('The server ended before it listened.')));
    });
  }

  /** Ends the server at once, as a crash of the machine would. */
  async kill(): Promise<void> {
    const child = this.#child;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGKILL');
    await gone;
  }

  /** Copies its data folder, as somebody would who backs it up while it is stopped; gives what puts the copy back. */
  async backUp(): Promise<() => Promise<void>> {
    const copy = `${this.#data}-copy`;
    await cp(this.#data, copy, { recursive: true });
    return async () => {
      await rm(this.#data, { recursive: true, force: true });
      await rename(copy, this.#data);
    };
  }

  /** The programmes, as the server lists them. */
  async programmes(): Promise<{ id: string; title: string }[]> {
    return (await (await fetch(`${this.address}/api/programmes`)).json()) as {
      id: string;
      title: string;
    }[];
  }
}

interface Fixtures {
  content: Content;
  serving: Serving;
  /** The id of the first programme there is. */
  programme: string;
}

export const test = base.extend<Fixtures>({
  content: ['demo', { option: true }],
  serving: async ({ content }, use) => {
    const data = await mkdtemp(join(tmpdir(), 'cadence-e2e-'));
    const serving = new Serving(data, content);
    await serving.start();
    await use(serving);
    await serving.kill();
    await rm(data, { recursive: true, force: true });
  },
  baseURL: async ({ serving }, use) => {
    await use(serving.address);
  },
  programme: async ({ serving }, use) => {
    const [first] = await serving.programmes();
    await use(first?.id ?? '');
  },
  page: async ({ page }, use) => {
    // Whatever a test looks at, the page must not have thrown.
    const thrown: Error[] = [];
    page.on('pageerror', (error) => thrown.push(error));
    await use(page);
    expect(thrown).toEqual([]);
  },
});

export { expect };

/** Opens a place of a programme and waits until it can be used. */
export async function open(
  page: Page,
  programme: string,
  place: string,
  query = '',
): Promise<void> {
  await page.goto(`/p/${programme}/${place}${query}`);
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible();
}

const FRAMES_A_SECOND = 25;
/** The timecode at which the demo's programmes begin, in frames. */
const START_TIMECODE = 10 * 3600 * FRAMES_A_SECOND;

/**
 * Waits until so many seconds have been played after an instant of the programme, as its address says.
 *
 * @param from  in ticks
 */
export async function played(page: Page, from: number, seconds: number): Promise<void> {
  const frames = () => {
    const code = new URL(page.url()).searchParams.get('at') ?? '0:0:0:0';
    const [hours = 0, minutes = 0, whole = 0, rest = 0] = code.split(':').map(Number);
    return ((hours * 60 + minutes) * 60 + whole) * FRAMES_A_SECOND + rest;
  };
  const begun = Math.round((from / SECOND) * FRAMES_A_SECOND);
  await expect
    .poll(frames)
    .toBeGreaterThanOrEqual(START_TIMECODE + begun + seconds * FRAMES_A_SECOND);
}

/** Hands files to the page as the system would: by a drop, or from the clipboard. */
export async function hand(
  page: Page,
  how: 'drop' | 'paste',
  name: string,
  content: Buffer,
): Promise<void> {
  await page.evaluate(
    ([kind, fileName, base64]) => {
      const bytes = Uint8Array.from(atob(base64), (character) => character.charCodeAt(0));
      const data = new DataTransfer();
      data.items.add(new File([bytes], fileName));
      if (kind === 'paste') {
        window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
        return;
      }
      const event = (type: string) =>
        new DragEvent(type, { dataTransfer: data, bubbles: true, cancelable: true });
      document.body.dispatchEvent(event('dragenter'));
      requestAnimationFrame(() => {
        const target = [...document.querySelectorAll('*')].find((each) =>
          each.className.toString().includes('Dropzone-root'),
        );
        (target ?? document.body).dispatchEvent(event('drop'));
      });
    },
    [how, name, content.toString('base64')] as const,
  );
}

export const kept = (page: Page): Promise<void> =>
  expect(page.getByRole('status').first()).toHaveText(/^(?:All s|S)aved/);

/** What the server holds, read afresh; the cues are those of one strand, the first unless said. */
export async function held(serving: Serving, id: string, strand = 0): Promise<Held> {
  const answer = await fetch(`${serving.address}/api/programmes/${id}`);
  const { programme, version } = (await answer.json()) as Pick<Held, 'programme' | 'version'>;
  const of = strandsIn(programme)[strand]?.id;
  const cues = Object.values(programme.cues)
    .filter((cue) => cue.strand === of)
    .sort((a, b) => a.start - b.start);
  return { programme, version, cues, texts: cues.map(textOf) };
}

interface HeldStrand {
  readonly id: string;
  readonly title: string;
  readonly kind: string;
  readonly place?: number | null;
  readonly muted?: boolean | null;
  readonly pattern?: string | null;
}

interface HeldMovement {
  readonly comesIn: {
    readonly by: string;
    readonly early: number;
    readonly takes: { readonly count: number; readonly in: string } | null;
    readonly moves: readonly { readonly what: string }[];
  } | null;
  readonly stays?: readonly { readonly what: string; readonly amount?: number }[];
}

/** The strands of a programme, in order. */
export const strandsIn = ({ strands }: Held['programme']): HeldStrand[] =>
  Object.values(strands).sort((a, b) => (a.place ?? 0) - (b.place ?? 0));

interface HeldPassage {
  readonly id: string;
  readonly kind: string;
  readonly title: string;
  readonly sheet: string;
  readonly look: {
    readonly size?: number;
    readonly times?: number;
    readonly label?: string;
    readonly tilt?: number;
  };
  readonly journey: { readonly follows: string; readonly speed: number };
}

interface HeldCue {
  readonly id: string;
  readonly strand: string;
  readonly start: number;
  readonly end: number;
  readonly text: readonly (readonly { text: string }[])[];
  readonly style: {
    readonly behindImage?: string | null;
    readonly placed?: { readonly x: number; readonly y: number } | null;
    readonly breakAt?: number | null;
    readonly turn?: number | null;
  };
  readonly passage?: string | null;
  readonly pattern?: string | null;
  readonly movement?: Partial<HeldMovement> | null;
  readonly keys?: { readonly level: number } | null;
  readonly group?: { readonly standing: string } | null;
  readonly words: readonly HeldWord[];
}

interface HeldWord {
  readonly text: string;
  readonly start: number;
  readonly end: number;
  readonly source: string;
  readonly held?: readonly { readonly from: number; readonly to: number }[] | null;
}

export interface Held {
  readonly version: number;
  readonly programme: {
    strands: Record<string, HeldStrand>;
    cues: Record<string, HeldCue>;
    pieces: Record<string, { start: number; end: number; kept?: boolean }>;
    beats: Record<string, { at: number; bar: string | null; fixed: boolean; pin?: string | null }>;
    hits: Record<
      string,
      { start: number; end: number; kept: boolean; drums?: readonly string[] | null }
    >;
    marks: Record<string, { at: number; name: string; purpose: string }>;
    sounds: Record<string, { at: number; from: number; level: number; muted: boolean }>;
    materials: Record<
      string,
      {
        name: string;
        family: string | null;
        length: number;
        sections?: readonly { start: number }[] | null;
      }
    >;
    passages: Record<string, HeldPassage>;
    patterns: Record<
      string,
      { id: string; name: string; look: { readonly size?: number }; movement: HeldMovement }
    >;
    facts: {
      title: string;
      frame: { width: number; height: number };
      length: number;
      backdrop?: { down?: number };
    };
  };
  readonly cues: HeldCue[];
  readonly texts: string[];
}

const textOf = (cue: HeldCue): string =>
  cue.text.map((line) => line.map((span) => span.text).join('')).join('\n');

/** The rows of Timing, and a point on them. Eight seconds a row unless said. */
export class RowsOfTiming {
  readonly #page: Page;
  readonly rows: Locator;
  constructor(page: Page) {
    this.#page = page;
    this.rows = page.getByRole('application');
  }

  /** Where a second stands: in the lane, on the waveform, or on the ruler. */
  async point(
    second: number,
    band: 'lane' | 'wave' | 'tags' | 'words' = 'lane',
    span = 8,
  ): Promise<{ x: number; y: number }> {
    const box = await this.rows.boundingBox();
    if (!box) throw new Error('The rows are not to be seen.');
    const canvas = await this.rows.locator('canvas').first().boundingBox();
    const row = Math.floor(second / span);
    const y =
      box.y + row * (canvas?.height ?? 0) + { lane: 105, wave: 52, tags: 26, words: 85 }[band];
    return { x: box.x + ((second % span) / span) * (canvas?.width ?? 0), y };
  }

  async drag(
    from: number,
    to: number,
    options: {
      drop?: boolean;
      modifier?: 'Alt' | 'Shift';
      band?: 'lane' | 'wave' | 'tags' | 'words';
    } = {},
  ): Promise<void> {
    const { mouse, keyboard } = this.#page;
    const { band } = options;
    const [start, end] = [await this.point(from, band), await this.point(to, band)];
    await mouse.move(start.x, start.y);
    if (options.modifier) await keyboard.down(options.modifier);
    await mouse.down();
    for (let step = 1; step <= 6; step++)
      await mouse.move(
        start.x + ((end.x - start.x) * step) / 6,
        start.y + ((end.y - start.y) * step) / 6,
      );
    if (options.drop ?? true) await mouse.up();
    if (options.modifier) await keyboard.up(options.modifier);
  }
}

export const SECOND = 705_600_000;

/** A 16-bit WAV; the samples of several channels lie in turn. */
export function wavOf(samples: Float32Array, rate: number, channels = 1): Buffer {
  const bytes = Buffer.alloc(44 + 2 * samples.length);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(bytes.length - 8, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(channels, 22);
  bytes.writeUInt32LE(rate, 24);
  bytes.writeUInt32LE(2 * channels * rate, 28);
  bytes.writeUInt16LE(2 * channels, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(2 * samples.length, 40);
  samples.forEach((value, at) =>
    bytes.writeInt16LE(Math.max(-1, Math.min(1, value)) * 32_767, 44 + 2 * at),
  );
  return bytes;
}

/** Brings sounds in by the picker and waits until they belong to the programme. */
export async function bringIn(
  page: Page,
  serving: Serving,
  programme: string,
  ...files: readonly { name: string; buffer: Buffer }[]
): Promise<void> {
  const before = Object.keys((await held(serving, programme)).programme.materials).length;
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles(files.map((file) => ({ ...file, mimeType: 'audio/wav' })));
  await expect
    .poll(async () => Object.keys((await held(serving, programme)).programme.materials).length, {
      timeout: 90_000,
    })
    .toBe(before + files.length);
}

/** Has all words woven that the window offers, and takes their times. */
export async function weaveWords(page: Page): Promise<void> {
  await page.keyboard.press('z');
  const dialog = page.getByRole('dialog', { name: 'Weave words' });
  await dialog.getByRole('button', { name: /^Weave \d+ words$/ }).click();
  await dialog.getByRole('button', { name: 'Use these times' }).click({ timeout: 180_000 });
  await expect(page.getByRole('dialog')).toHaveCount(0);
}
