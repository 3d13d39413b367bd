/** Files as people name them who call the command. */
import { resolve } from 'node:path';
import { decodeText, type DecodedText } from '@cadence/core/formats/decodeText.ts';
import * as files from '@cadence/node/files.ts';

/** The path that a person means who stands where the command was called. */
export const pathOf = (name: string): string =>
  resolve(process.env.INIT_CWD ?? process.cwd(), name);

/** @throws Unusable, see `files.readBytes` */
export const readBytes = (name: string): Promise<Uint8Array> => files.readBytes(pathOf(name), name);

export const readText = async (name: string): Promise<DecodedText> =>
  decodeText(await readBytes(name));

/** @throws Unusable, see `files.writeWhole` */
export const writeWhole = (name: string, content: files.Content): Promise<void> =>
  files.writeWhole(pathOf(name), content, name);
