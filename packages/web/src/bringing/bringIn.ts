/** Bringing files in: each is read and sent at once, and belongs to the programme when both are done. */
import type { Change, Edit } from '@cadence/core/programme/record/change.ts';
import { addMaterial } from '@cadence/core/programme/edits/programme/setFacts.ts';
import { soundsHeard } from '@cadence/core/programme/heard.ts';
import type { Material } from '@cadence/core/programme/programme.ts';
import { ZERO } from '@cadence/core/time/ticks.ts';
import { server, upload } from '../sync/api.ts';
import { make, newId } from '../desk/desk.ts';
import { whenIdle } from '../sync/idle.ts';
import { offer } from '../desk/offer.tsx';
import { messageOf, say } from '../desk/say.ts';
import { isIn } from '../desk/places.ts';
import { openNow, store } from '../desk/store.ts';
import { arriving, beginArrival, changed, endArrival, gone, growing } from '../desk/arrivals.ts';
import { remember, takeMedia } from '../listening/heard.ts';
import { showWindow } from '../desk/windows.ts';

const FONT = /\.(ttf|otf|woff2)$/i;
const PATTERNS = /\.json$/i;
const IMAGE = /\.(png|jpe?g|webp|gif|svg|avif)$/i;
const WORDS =
  /\.(srt|vtt|webvtt|ttml|dfxp|xml|stl|lrc|csv|tsv|txt|md|markdown|rtf|docx|rss|atom|otio|midi?|kar)$/i;

/** Takes a file of words. */
export type TakeWords = (file: File) => Promise<void>;

/** Shows what was understood of a file of words, to be taken for cues or marks. */
const forCues: TakeWords = async (file) => (await import('./BringIn.tsx')).openBringIn(file);

/**
 * Takes files of any kind that can be used; each that cannot says why.
 *
 * @param takeWords  what becomes of files of words
 */
export function bringIn(files: readonly File[], takeWords = forCues): void {
  for (const file of files)
    if (PATTERNS.test(file.name))
      void Promise.all([import('./patternFiles.ts'), file.text()]).then(([patterns, text]) =>
        patterns.bringInPatterns(text, file.name),
      );
    else void isWords(file).then((words) => (words ? takeWords(file) : bringInMaterial(file)));
}

/** The first bytes of a file that tell whether it is text. */
const HEAD = 20_000;

/** Whether a file is of words: by its name, and else by what it begins with. */
async function isWords(file: File): Promise<boolean> {
  if (WORDS.test(file.name)) return true;
  if (FONT.test(file.name) || IMAGE.test(file.name) || /^(?:audio|video)\//.test(file.type))
    return false;
  const { recogniseFile } = await import('@cadence/core/formats/readFile.ts');
  const { decodeText } = await import('@cadence/core/formats/decodeText.ts');
  try {
    const head = new Uint8Array(await file.slice(0, HEAD).arrayBuffer());
    return recogniseFile(head, () => decodeText(head).text, file.name) !== 'wav';
  } catch {
    return false;
  }
}

async function bringInMaterial(file: File): Promise<void> {
  const id = newId();
  const signal = beginArrival(id);
  const isFont = FONT.test(file.name);
  const isImage = IMAGE.test(file.name);
  const doing = isFont ? 'Reading the font' : isImage ? 'Reading the picture' : 'Listening';
  const isHeard = !isFont && !isImage;
  store.dispatch(
    arriving({ id, name: file.name, isHeard, state: 'reading', share: 0, message: doing }),
  );
  try {
    if (file.size === 0) throw new Error('The file is empty. Nothing was added.');
    if (isFont) await bringInFont(file, id, signal);
    else if (isImage) await bringInImage(file, id, signal);
    else await bringInMedia(file, id, signal);
    store.dispatch(gone(id));
  } catch (error) {
    if (signal.aborted) store.dispatch(gone(id));
    else {
      const message = messageOf(error);
      store.dispatch(changed({ id, state: 'failed', message }));
      // The card that says it is seen in Material only.
      if (!isIn('material')) say.problem(`${file.name} was not brought in. ${message}`);
    }
  } finally {
    endArrival(id);
  }
}

async function bringInMedia(file: File, id: string, signal: AbortSignal): Promise<void> {
  growing.set(id, { pairs: [], duration: 0 });
  const taken = await takeMedia(
    file,
    id,
    ({ read, sent, peaks, duration }) => {
      const grown = growing.get(id);
      if (grown && peaks.length > 0) growing.set(id, { pairs: [...grown.pairs, peaks], duration });
      // What takes longer is what there is to wait for.
      const message = read < 1 && read <= sent ? 'Listening' : 'Saving the file';
      store.dispatch(changed({ id, share: Math.min(read, sent), message }));
    },
    signal,
  );
  const { heard, hash, bytes, length, sound, picture, remarks } = taken;
  if (heard) remember(hash, heard.kept);
  const material: Material = {
    id,
    hash,
    name: file.name,
    kind: picture ? 'film' : 'sound',
    bytes,
    length,
    sound,
    picture,
    family: null,
    remarks,
    ...heard?.song,
  };
  const found = heard ? (JSON.parse(heard.changes) as Change[]) : [];
  // In a task of its own, as reading them takes its time.
  await new Promise((done) => setTimeout(done));
  const add = addMaterial(openNow().programme, material);
  const edit: Edit = { ...add, changes: [...add.changes, ...found] };
  make(edit);
  // Thousands of beats are shown first, and the page comes to rest.
  await whenIdle();
  await new Promise((done) => setTimeout(done, 300));
  await whenIdle();
  // It belongs to the programme now; comparing it may take a while longer.
  if (sound) void offerCarrying(material);
}

/** Offers to carry the cues over to a sound that is another recording or cut of one that is heard. */
async function offerCarrying(fresh: Material): Promise<void> {
  const { programme } = openNow();
  const old = soundsHeard(programme)
    .map(({ material }) => programme.materials[material])
    .find((material) => material && material.id !== fresh.id);
  const hasCues = Object.values(programme.cues).some(({ passage }) => !passage);
  if (!old || !hasCues) return;
  const { compare } = await import('../weaving/weaving.ts');
  // That a comparison fails is said where the editor asks for it.
  const same = await compare(old, fresh, () => undefined).catch(() => []);
  if (same.length > 0)
    offer(`${fresh.name} is a new version of ${old.name}.`, 'Carry the cues over', () =>
      showWindow('carry', fresh.id),
    );
}

async function bringInFont(file: File, id: string, signal: AbortSignal): Promise<void> {
  const [{ familyNameOf, Face }, given] = await Promise.all([
    import('@cadence/paint/face.ts'),
    file.arrayBuffer().then((buffer) => new Uint8Array(buffer)),
  ]);
  const bytes = isWoff2(given) ? await server.unpackFont(given) : given;
  const family = familyNameOf(bytes);
  const face = new Face(id, bytes, { family, bold: false, italic: false });
  const { hash } = await upload(
    new Blob([bytes as Uint8Array<ArrayBuffer>]),
    (share) => store.dispatch(changed({ id, share })),
    signal,
  );
  const name = file.name.replace(/woff2$/i, 'ttf');
  make(
    addMaterial(openNow().programme, {
      id,
      hash,
      name,
      kind: 'font',
      bytes: bytes.length,
      length: ZERO,
      sound: null,
      picture: null,
      family: face.family,
      remarks: [],
    }),
  );
}

/** A picture that has no size of its own is drawn so large, and no picture is kept larger, in pixels. */
const [DRAWN, LARGEST] = [1600, 4096];

/** A still picture as PNG, whatever it came as, so that it is the same wherever it is drawn. */
async function asPng(file: File): Promise<{ png: Blob; width: number; height: number }> {
  const url = URL.createObjectURL(file);
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const vector = /svg$/i.test(file.name);
    const largest = Math.max(image.naturalWidth, image.naturalHeight, 1);
    const scale = vector ? DRAWN / largest : Math.min(1, LARGEST / largest);
    const width = Math.max(1, Math.round(image.naturalWidth * scale));
    const height = Math.max(1, Math.round(image.naturalHeight * scale));
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')?.drawImage(image, 0, 0, width, height);
    return { png: await canvas.convertToBlob({ type: 'image/png' }), width, height };
  } catch {
    throw new Error('This picture cannot be read. Nothing was added.');
  } finally {
    URL.revokeObjectURL(url);
  }
}

async function bringInImage(file: File, id: string, signal: AbortSignal): Promise<void> {
  const { png, width, height } = await asPng(file);
  const { hash, bytes } = await upload(
    png,
    (share) => store.dispatch(changed({ id, share })),
    signal,
  );
  make(
    addMaterial(openNow().programme, {
      id,
      hash,
      name: file.name,
      kind: 'image',
      bytes,
      length: ZERO,
      sound: null,
      picture: { width, height, frameRate: null, codec: 'png', shown: true },
      family: null,
      remarks: [],
    }),
  );
}

const isWoff2 = (bytes: Uint8Array): boolean =>
  String.fromCharCode(...bytes.subarray(0, 4)) === 'wOF2';
