import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readBytes, writeWhole } from './files.ts';
import { Unusable } from './unusable.ts';

let folder: string;
beforeEach(async () => (folder = await mkdtemp(join(tmpdir(), 'cadence-files-'))));
afterEach(() => rm(folder, { recursive: true, force: true }));

/** What a failure says. */
const failure = async (work: Promise<unknown>): Promise<Partial<Unusable>> => {
  const error: unknown = await work.then(
    () => undefined,
    (reason: unknown) => reason,
  );
  if (!(error instanceof Unusable))
    throw new Error(`It did not fail as it should: ${String(error)}`);
  return { kind: error.kind, message: error.message, file: error.file };
};

describe('files', () => {
  test('are written whole, with nothing left beside them', async () => {
    const file = join(folder, 'frame.txt');
    await writeWhole(file, 'one');
    await writeWhole(file, 'two');
    expect(await readFile(file, 'utf8')).toBe('two');
    expect(await readdir(folder)).toEqual(['frame.txt']);
  });

  test('below a path that is a file are told of in a sentence', async () => {
    const file = join(folder, 'frame.txt');
    await writeFile(file, 'one');
    expect(await failure(writeWhole(join(file, 'x.png'), 'two', 'frame.txt/x.png'))).toEqual({
      kind: 'unwritable',
      message: 'The file cannot be written. Part of its path is a file, not a folder.',
      file: 'frame.txt/x.png',
    });
    expect(await readFile(file, 'utf8')).toBe('one');
  });

  test('in a folder that is not there, or in the place of one, are told of too', async () => {
    expect(await failure(writeWhole(join(folder, 'no', 'x.png'), ''))).toMatchObject({
      message: 'The file cannot be written. There is no such folder.',
    });
    expect(await failure(writeWhole(folder, ''))).toMatchObject({ kind: 'unwritable' });
    expect(await failure(readBytes(folder))).toMatchObject({
      kind: 'unreadable',
      message: 'The file cannot be read. It is a folder.',
    });
    expect(await failure(readBytes(join(folder, 'no'), 'no'))).toEqual({
      kind: 'missing',
      message: 'There is no such file.',
      file: 'no',
    });
  });
});
