/** The command line as tests run it. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The bundle, made anew where it is older than its sources. */
const script = fileURLToPath(new URL('../../../scripts/cadence.mjs', import.meta.url));
export const demo = fileURLToPath(new URL('../../../demo/ferry/', import.meta.url));

/** A folder for the tests of a file, and the command line run as by somebody who stands in it. */
export function commandLine() {
  let folder: string;
  beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'cadence-cli-'))));
  afterAll(() => rmSync(folder, { recursive: true }));
  return {
    folder: () => folder,
    cadence: (...args: string[]) => {
      const { status, stdout, stderr } = spawnSync(process.execPath, [script, ...args], {
        encoding: 'utf8',
        env: { ...process.env, INIT_CWD: folder, NODE_OPTIONS: '' },
      });
      const json = stdout.startsWith('{') ? JSON.parse(stdout) : undefined;
      return { status, stderr, json, stdout };
    },
  };
}
