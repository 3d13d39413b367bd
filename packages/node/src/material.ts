/** The files of a programme's materials, found in a folder; and files as materials. */
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { OpenSource } from '@cadence/core/mix/mixdown.ts';
import { materialsHeard } from '@cadence/core/mix/keySounds.ts';
import type { Id, Material, Programme } from '@cadence/core/programme/programme.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { VoiceListener } from '@cadence/core/weave/voiceListener.ts';
import type { Bands } from '@cadence/core/weave/cepstra.ts';
import { openSound } from './sound.ts';
import { Unusable } from './unusable.ts';

/** The SHA-256 of a file, in hexadecimal. */
async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

/**
 * The path of a material's file in a folder, by its name or its hash; its content is compared.
 *
 * @throws Unusable where it is not there
 */
export async function fileOf(folder: string, { name, hash }: Material): Promise<string> {
  for (const file of [name, hash]) {
    const path = join(folder, file);
    const isFile = await stat(path).then(
      (found) => found.isFile(),
      () => false,
    );
    if (isFile && (await hashOf(path)) === hash) return path;
  }
  throw new Unusable(
    'missing',
    `The file of “${name}” is not in ${folder}, or its content is another.`,
    join(folder, name),
  );
}

/** Opens the sounds that are heard in a programme, from a folder. @throws Unusable where the file of one is not there */
export async function soundsIn(folder: string, programme: Programme): Promise<OpenSource> {
  const paths = new Map<Id, string>();
  for (const material of materialsHeard(programme)) {
    const file = programme.materials[material];
    if (file) paths.set(material, await fileOf(folder, file));
  }
  return async (material) => {
    const path = paths.get(material);
    return path === undefined ? undefined : openSound(path);
  };
}

/** What a sound's file is as a material. @throws Unusable as `openSound` */
export async function soundMaterial(path: string, id: Id): Promise<Material> {
  const sound = await openSound(path);
  // Some files tell how long they are only when they have been read.
  let samples = 0;
  for await (const channels of sound.chunks()) samples += channels[0]?.length ?? 0;
  return {
    id,
    hash: await hashOf(path),
    name: basename(path),
    kind: 'sound',
    bytes: (await stat(path)).size,
    length: fromSeconds(samples / sound.sampleRate),
    sound: { sampleRate: sound.sampleRate, channels: sound.channels, codec: sound.codec },
    picture: null,
    family: null,
    remarks: [],
  };
}

/** What is compared of two sounds. */
export async function bandsOf(path: string): Promise<Bands> {
  const sound = await openSound(path);
  const voice = new VoiceListener(sound.sampleRate);
  for await (const channels of sound.chunks()) voice.push(channels);
  return voice.finish();
}
